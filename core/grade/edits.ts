// Edits: pure functions from one grade document to the next. An edit that changes nothing returns the same object.
import { clamp } from '../numbers'
import { newStep } from './defaults'
import {
  inheritedShow,
  type CurvePoint,
  type GradeDocument,
  type ParameterValue,
  type ReadSettings,
  type ShowSettings,
  type Side,
  type Step,
} from './document'
import { stationOf } from './chain'
import { showAfter } from './opening-show'
import type { DefaultRendering, ShowParameterKey } from './show/parameters'
import type { StationId } from './stations'
import { stepKindById } from './steps'

function replaceStep(grade: GradeDocument, id: string, change: (step: Step) => Step): GradeDocument {
  let changed = false
  const steps = grade.steps.map((step) => {
    if (step.id !== id) return step
    const next = change(step)
    changed ||= next !== step
    return next
  })
  return changed ? { ...grade, steps } : grade
}

export function setParameter(grade: GradeDocument, stepId: string, key: string, value: ParameterValue): GradeDocument {
  return replaceStep(grade, stepId, (step) =>
    step.params[key] === value ? step : { ...step, params: { ...step.params, [key]: value } },
  )
}

export function setStep(
  grade: GradeDocument,
  stepId: string,
  change: Partial<Pick<Step, 'enabled' | 'strength' | 'side' | 'name'>>,
): GradeDocument {
  return replaceStep(grade, stepId, (step) => ({ ...step, ...change }))
}

/**
 * Changes Read. A definition of the user's own leaves with the encoding it belongs to; Show follows while it stands as
 * it opened, with the rendering of its project.
 */
export function setRead(
  grade: GradeDocument,
  change: Partial<ReadSettings>,
  rendering?: DefaultRendering,
): GradeDocument {
  const { own, ...others } = { ...grade.read, ...change }
  const read = own && own.id === others.encodingId ? { ...others, own } : others
  return { ...grade, read, show: showAfter(grade, read, rendering) }
}

/** Changes Show. What is chosen so no longer follows the defaults of scene and project. */
export function setShow(grade: GradeDocument, change: Partial<ShowSettings>): GradeDocument {
  const chosen = inheritedShow.filter((key) => change[key] !== undefined || grade.show.own?.includes(key))
  return { ...grade, show: { ...grade.show, ...(chosen.length ? { own: chosen } : {}), ...change } }
}

export function setShowParameter(grade: GradeDocument, key: ShowParameterKey, value: number): GradeDocument {
  return grade.show.params[key] === value ? grade : setShow(grade, { params: { ...grade.show.params, [key]: value } })
}

/** Puts every step, and those still to come, on one side of Show: scene light, or the display signal. */
export function workOn(grade: GradeDocument, side: Side): GradeDocument {
  return { ...grade, working: side, steps: grade.steps.map((step) => (step.side === side ? step : { ...step, side })) }
}

/** The first of "stem-1", "stem-2" … that is not taken. */
export function freeId(taken: readonly { readonly id: string }[], stem: string): string {
  const ids = new Set(taken.map((t) => t.id))
  for (let n = 1; ; n++) if (!ids.has(`${stem}-${n}`)) return `${stem}-${n}`
}

/** The usual three zones; any number of others can be made of them. */
export const zonePresets = [
  { name: 'Darks', params: { centreStops: -3, widthStops: 3, reach: 'below' } },
  { name: 'Middles', params: { centreStops: 0, widthStops: 2.5, reach: 'around' } },
  { name: 'Lights', params: { centreStops: 2.5, widthStops: 2.5, reach: 'above' } },
] as const

/** Adds a step of the whole picture behind the others, on the side new steps stand on. */
export function addStep(
  grade: GradeDocument,
  kind: string,
  name: string,
  params: Readonly<Record<string, ParameterValue>>,
): GradeDocument {
  const step = newStep(kind, freeId(grade.steps, kind), grade.working)
  return { ...grade, steps: [...grade.steps, { ...step, name, params: { ...step.params, ...params } }] }
}

/** Keyframes of steps that are no longer there go with them. */
export function withoutLostKeyframes(grade: GradeDocument): GradeDocument {
  const animation = grade.animation.filter((m) => grade.steps.some((s) => s.id === m.stepId))
  return animation.length === grade.animation.length ? grade : { ...grade, animation }
}

export function removeStep(grade: GradeDocument, stepId: string): GradeDocument {
  return grade.steps.some((s) => s.id === stepId)
    ? withoutLostKeyframes({ ...grade, steps: grade.steps.filter((s) => s.id !== stepId) })
    : grade
}

/** The least distance in x that a curve's points keep from each other. */
export const curveSpacing = 0.004

/** Adds a point to a curve; near an existing one nothing is added. */
export function addCurvePoint(points: readonly CurvePoint[], point: CurvePoint): readonly CurvePoint[] {
  if (points.some((p) => Math.abs(p.x - point.x) < curveSpacing)) return points
  return [...points, point].sort((a, b) => a.x - b.x)
}

/** Moves a point; it stays between its neighbours and inside `low`…`high`. */
export function moveCurvePoint(
  points: readonly CurvePoint[],
  index: number,
  to: CurvePoint,
  low: number,
  high: number,
): readonly CurvePoint[] {
  const left = (points[index - 1]?.x ?? low - curveSpacing) + curveSpacing
  const right = (points[index + 1]?.x ?? high + curveSpacing) - curveSpacing
  const moved: CurvePoint = { x: clamp(to.x, left, right), y: clamp(to.y, low, high) }
  return points.map((p, i) => (i === index ? moved : p))
}

/** Removes a point; two always remain. */
export function removeCurvePoint(points: readonly CurvePoint[], index: number): readonly CurvePoint[] {
  return points.length <= 2 ? points : points.filter((_, i) => i !== index)
}

const stepsOf = (grade: GradeDocument, station: StationId): readonly Step[] =>
  grade.steps.filter((s) => stationOf(s) === station && s.enabled && !stepKindById(s.kind).isNeutral(s.params))

/** The mean strength of a station's steps that do something; null where none does. */
export function stationStrength(grade: GradeDocument, station: StationId): number | null {
  const active = stepsOf(grade, station)
  return active.length === 0 ? null : active.reduce((sum, s) => sum + s.strength, 0) / active.length
}

/** Gives all steps of a station that do something one strength. */
export function setStationStrength(grade: GradeDocument, station: StationId, strength: number): GradeDocument {
  return stepsOf(grade, station).reduce(
    (next, s) => (s.strength === strength ? next : setStep(next, s.id, { strength })),
    grade,
  )
}

/** The grade without what a station does: for a look, not to be kept. Read and Show cannot be left out. */
export function withoutStation(grade: GradeDocument, station: StationId): GradeDocument {
  const steps = grade.steps.map((s) => (stationOf(s) === station && s.enabled ? { ...s, enabled: false } : s))
  return steps.every((s, i) => s === grade.steps[i]) ? grade : { ...grade, steps }
}
