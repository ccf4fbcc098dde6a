// What a chart says, put into a grade: Level's own controls, and a matrix for the camera and light.
import { clamp } from '../numbers'
import { addStep, setParameter, stepKindById, type GradeDocument, type RecipeStep } from '../grade'
import type { ChartReading } from './chart'

function setNumber(grade: GradeDocument, kind: string, key: string, value: number): GradeDocument {
  const parameter = stepKindById(kind).parameters[key]
  return parameter?.type === 'number'
    ? setParameter(grade, kind, key, clamp(value, parameter.min, parameter.max))
    : grade
}

/** Exposure and white balance as the chart says, in place of what they were. */
export function balancedByChart(
  grade: GradeDocument,
  { exposureStops, temperatureMired, tint }: Pick<ChartReading, 'exposureStops' | 'temperatureMired' | 'tint'>,
): GradeDocument {
  const exposed = setNumber(grade, 'exposure', 'exposureStops', exposureStops)
  return setNumber(
    setNumber(exposed, 'white-balance', 'temperatureMired', temperatureMired),
    'white-balance',
    'tint',
    tint,
  )
}

/** The chart's matrix as a step of a recipe, within what the step can hold. */
export function matrixStep({ matrix }: Pick<ChartReading, 'matrix'>, name: string): RecipeStep {
  const { parameters } = stepKindById('camera-matrix')
  const params = Object.entries(matrix).map(([key, value]: [string, number]) => {
    const parameter = parameters[key]
    return [key, parameter?.type === 'number' ? clamp(value, parameter.min, parameter.max) : value] as const
  })
  return { kind: 'camera-matrix', name, strength: 1, side: 'scene', params: Object.fromEntries(params) }
}

/** The matrix in the grade's own step, which is added where there is none. */
export function matchedByChart(grade: GradeDocument, reading: Pick<ChartReading, 'matrix'>): GradeDocument {
  const { kind, name, params } = matrixStep(reading, 'Camera matrix')
  const own = grade.steps.find((s) => s.kind === kind && s.regionId === undefined && s.lookId === undefined)
  if (!own) return addStep(grade, kind, name, params)
  return {
    ...grade,
    steps: grade.steps.map((s) => (s.id === own.id ? { ...s, enabled: true, strength: 1, params } : s)),
  }
}
