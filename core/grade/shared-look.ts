// A shared look: steps that many shots carry by reference. They stand in Look, behind each shot's own correction, and
// follow their source.
import { isNeutralStep } from './chain'
import type { GradeDocument, Step } from './document'
import { freeId } from './edits'
import type { RecipeStep } from './recipes'

/** Steps that were shared once and are this shot's own now: they stay where they stood. */
export const ownLook = 'own'

/** A look as one shot carries it. */
export interface CarriedLook {
  readonly id: string
  readonly steps: readonly RecipeStep[]
  /** 0…1, of the scene and of the shot together. */ readonly strength: number
}

/** Equal whatever the order of their keys: a database keeps an order of its own. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_, v: unknown) =>
    typeof v === 'object' && v !== null && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  )
const same = (a: unknown, b: unknown): boolean => inOrder(a) === inOrder(b)

const isShared = (step: Step): boolean => step.lookId !== undefined && step.lookId !== ownLook
export const sharedSteps = (grade: GradeDocument): readonly Step[] => grade.steps.filter(isShared)

/**
 * The grade with a shared look in place of the one it carried; null for none. The same object where nothing changes.
 */
export function withSharedLook(grade: GradeDocument, look: CarriedLook | null): GradeDocument {
  const own = grade.steps.filter((s) => !isShared(s))
  const carried = (look?.steps ?? []).map(({ kind, name, strength, side, params }, i): Step => ({
    id: `shared-${i + 1}`,
    kind,
    name,
    enabled: true,
    strength: Math.round(strength * (look?.strength ?? 1) * 1e4) / 1e4,
    side,
    params,
    lookId: look?.id ?? ownLook,
  }))
  return same(carried, sharedSteps(grade))
    ? grade
    : {
        ...grade,
        steps: [...own, ...carried],
        animation: grade.animation.filter((m) => [...own, ...carried].some((s) => s.id === m.stepId)),
      }
}

/** The shared steps become this shot's own: the picture stays as it is, and follows nobody. */
export function detachLook(grade: GradeDocument): GradeDocument {
  return sharedSteps(grade).reduce((next, shared) => {
    const id = freeId(next.steps, `own-${shared.kind}`)
    return { ...next, steps: next.steps.map((s) => (s.id === shared.id ? { ...s, id, lookId: ownLook } : s)) }
  }, grade)
}

/**
 * What a hand did to the shared steps of one shot, done to the look itself: numbers and switches as they are now,
 * strengths as much as they were turned by. Null where nothing of the look was changed, or where other steps stand
 * there than the look's.
 */
export function lookAfter(
  look: readonly RecipeStep[],
  before: GradeDocument,
  after: GradeDocument,
): readonly RecipeStep[] | null {
  const was = sharedSteps(before)
  const now = sharedSteps(after)
  if (
    same(was, now) ||
    was.length !== look.length ||
    !same(
      was.map((s) => [s.id, s.lookId]),
      now.map((s) => [s.id, s.lookId]),
    )
  )
    return null
  return look.map((step, i): RecipeStep => {
    const from = was[i]
    const to = now[i]
    if (!from || !to) return step
    const turned = from.strength > 0 ? to.strength / from.strength : 1
    return {
      ...step,
      name: to.name,
      side: to.side,
      params: to.params,
      strength: to.enabled ? Math.min(1, Math.round(step.strength * turned * 1e4) / 1e4) : 0,
    }
  })
}

/** The steps of a recipe that a look can hold: of the whole picture, and doing something. */
export const lookSteps = (steps: readonly RecipeStep[]): readonly RecipeStep[] =>
  steps
    .filter((s) => s.regionId === undefined && s.strength > 0 && !isNeutralStep(s as Step))
    .map(({ kind, name, strength, side, params }) => ({ kind, name, strength, side, params }))
