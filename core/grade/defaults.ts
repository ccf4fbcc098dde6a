// The grade a shot starts with: its encoding read, one neutral step of every kind that always stands, shown straight;
// and documents of before, completed with what has come since.
import { encodingById } from '../colour'
import type { CodeRange } from '../image'
import { currentSchema, lutTakesSide, type GradeDocument, type Side, type Step } from './document'
import { defaultShowParameters } from './show/parameters'
import { defaultParameters, type StepKind } from './step-kind'
import { isStepKindId, stepKindById, stepKinds } from './steps'

/** A neutral step of a kind. `id` must be unique within its document; `working` is the side that the grade works on. */
export function newStep(kindId: string, id: string, working: Side, regionId?: string): Step {
  const kind = stepKindById(kindId)
  const step: Step = {
    id,
    kind: kindId,
    name: kind.name,
    enabled: true,
    strength: 1,
    side: kind.firstSide === 'working' ? working : kind.firstSide,
    params: defaultParameters(kind),
  }
  return regionId === undefined ? step : { ...step, regionId }
}

const standing: readonly StepKind[] = stepKinds.filter((k) => k.stands === 'always')
/** The kinds of step that every region offers, in their order. */
export const regionKinds: readonly string[] = stepKinds.filter((k) => k.inRegions === 'always').map((k) => k.id)

/** One neutral step of each kind that a region offers. */
export const regionSteps = (working: Side, regionId: string): readonly Step[] =>
  regionKinds.map((kind) => newStep(kind, `${regionId}-${kind}`, working, regionId))

export function defaultGrade(
  encodingId: string,
  gamutId: string = encodingById(encodingId).gamutIds[0],
  range: CodeRange = 'full',
): GradeDocument {
  return {
    schema: currentSchema,
    working: 'scene',
    read: { method: 'formula', encodingId, gamutId, range, lutHash: null, lutStrength: 1 },
    steps: standing.map(({ id }) => newStep(id, id, 'scene')),
    animation: [],
    regions: [],
    show: {
      method: 'straight',
      displayId: 'bt709-2.4',
      lutHash: null,
      lutTakes: lutTakesSide,
      lutStrength: 1,
      gamutMethod: 'clip',
      params: defaultShowParameters,
    },
  }
}

/**
 * A document of the present schema with the kinds that have come since it was stored and always stand: neutral, and in
 * their place. The same object where nothing is missing.
 */
export function completedGrade(grade: GradeDocument): GradeDocument {
  const { steps } = grade
  const ofPicture = completed(
    steps.filter((s) => s.regionId === undefined),
    standing.map(({ id }) => newStep(id, freshId(steps, id), grade.working)),
  )
  const ofRegions = grade.regions.flatMap(({ id }) =>
    completed(
      steps.filter((s) => s.regionId === id),
      regionSteps(grade.working, id).map((s) => ({ ...s, id: freshId(steps, s.id) })),
    ),
  )
  const known = new Set(grade.regions.map((r) => r.id))
  const stray = steps.filter((s) => s.regionId !== undefined && !known.has(s.regionId))
  const all = [...ofPicture, ...ofRegions, ...stray]
  return all.length === steps.length ? grade : { ...grade, steps: all }
}

/** `fresh` steps of kinds that are missing go behind the last of the kinds before theirs. */
function completed(own: readonly Step[], fresh: readonly Step[]): readonly Step[] {
  const isOwn = (s: Step, kind: string): boolean => s.kind === kind && s.lookId === undefined
  let steps = own
  fresh.forEach((step, n) => {
    if (steps.some((s) => isOwn(s, step.kind))) return
    const before = new Set(fresh.slice(0, n).map((f) => f.kind))
    const at = steps.findLastIndex((s) => before.has(s.kind) && s.lookId === undefined)
    steps = [...steps.slice(0, at + 1), step, ...steps.slice(at + 1)]
  })
  return steps
}

function freshId(steps: readonly Step[], id: string): string {
  let fresh = id
  for (let n = 2; steps.some((s) => s.id === fresh); n++) fresh = `${id}-${n}`
  return fresh
}

/** A step with parameters that came since it was stored, at their defaults. */
export function withAllParameters(step: Step): Step {
  if (!isStepKindId(step.kind)) return step
  const defaults = defaultParameters(stepKindById(step.kind))
  const missing = Object.keys(defaults).some((key) => step.params[key] === undefined)
  return missing ? { ...step, params: { ...defaults, ...step.params } } : step
}
