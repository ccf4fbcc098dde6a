import { buildChain, stationOf } from './chain'
import { defaultGrade } from './defaults'
import { evaluateDirect } from './direct'
import { setParameter, setStep } from './edits'
import { applyRecipe, recipeContent } from './recipes'
import { followChange } from './set-up'
import { detachLook, lookAfter, lookSteps, sharedSteps, withSharedLook } from './shared-look'
import { shippedRecipes } from './shipped-recipes'
import { differences } from './differences'
import type { GradeDocument } from './document'

const base = setParameter(defaultGrade('log-420-95'), 'contrast', 'contrast', 1.2)
const steps = lookSteps(shippedRecipes.find((r) => r.id === 'shipped-silver')!.steps)
const look = { id: '11111111-1111-4111-8111-111111111111', steps, strength: 0.5 }
const through = (g: GradeDocument): number[] => {
  const pixels = Float64Array.from({ length: 300 }, (_, i) => 0.2 + ((i * 7) % 100) / 200)
  evaluateDirect(
    buildChain(g, () => undefined),
    pixels,
    { shares: new Float64Array(0), frameWidth: 1, frameHeight: 1 },
  )
  return [...pixels]
}

test("stands in Look behind the shot's own steps, at its strength, and again is nothing new", () => {
  const shared = withSharedLook(base, look)
  expect(sharedSteps(shared).map((s) => [s.kind, s.strength])).toEqual(steps.map((s) => [s.kind, 0.5 * s.strength]))
  expect(new Set(sharedSteps(shared).map(stationOf))).toEqual(new Set(['look']))
  expect(withSharedLook(shared, look)).toBe(shared)
  expect(withSharedLook(shared, null).steps).toEqual(base.steps)
  expect(differences(base, shared).length).toBe(steps.length)
})

test("the same kinds in the shot's own stations stay apart: a recipe goes into them, not into the shared ones", () => {
  const shared = withSharedLook(base, look)
  const worked = applyRecipe(shared, {
    steps: [
      { kind: 'saturation', name: 'Saturation', strength: 1, side: 'scene', params: { saturation: 0.9, vibrance: 1 } },
    ],
    regions: [],
  })
  expect(sharedSteps(worked)).toEqual(sharedSteps(shared))
  expect(worked.steps.find((s) => s.id === 'saturation')?.params['saturation']).toBe(0.9)
  // A set-up does not hand its members' looks on: each gets it from its own scene.
  expect(followChange(base, base, shared)).toBe(base)
})

test("detached, the picture is as it was and the steps are the shot's own; a recipe takes them along", () => {
  const shared = withSharedLook(base, look)
  const detached = detachLook(shared)
  expect(through(detached)).toEqual(through(shared))
  expect(sharedSteps(detached)).toEqual([])
  expect(sharedSteps(withSharedLook(detached, null))).toEqual([])
  expect(recipeContent(detached, ['look']).steps.map((s) => s.kind)).toEqual(steps.map((s) => s.kind))
  expect(new Set(detached.steps.map((s) => s.id)).size).toBe(detached.steps.length)
})

test('a hand on a shared step in one shot is a hand on the look, whatever the strength there', () => {
  const shared = withSharedLook(base, look)
  const changed = setStep(setParameter(shared, 'shared-1', 'contrast', 1.1), 'shared-2', { strength: 0.25 })
  const after = lookAfter(steps, shared, changed)!
  expect(after[0]).toMatchObject({ kind: 'contrast', strength: 1, params: { contrast: 1.1 } })
  expect(after[1]).toMatchObject({ kind: 'saturation', strength: 0.5 })
  expect(lookAfter(steps, shared, setParameter(shared, 'exposure', 'exposureStops', 1))).toBeNull()
  // A state without the look, or with half of it, is no edit of it.
  expect(lookAfter(steps, shared, { ...shared, steps: shared.steps.filter((s) => s.id !== 'shared-1') })).toBeNull()
  expect(lookAfter(steps, shared, base)).toBeNull()
})
