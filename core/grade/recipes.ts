// Recipes: chosen steps of a grade under a name, to be used on other shots and in other projects. They come in as ordinary steps.
import { stationOf } from './chain'
import type { GradeDocument, Step } from './document'
import { addStep, setStep } from './edits'
import type { StationId } from './stations'
import { stepKindById } from './steps'

/** A step as a recipe keeps it: where it sits in a grade and what it is called there is the grade's. */
export type RecipeStep = Pick<Step, 'kind' | 'name' | 'strength' | 'side' | 'params'>
export interface Recipe { readonly id: string; readonly name: string; readonly note: string; readonly steps: readonly RecipeStep[] }

/** The steps of some stations that do something to the whole picture. Regions depend on where things lie in a shot, and are left out. */
export function recipeSteps(grade: GradeDocument, stations: readonly StationId[]): readonly RecipeStep[] {
  return grade.steps.filter((s) => s.regionId === undefined && stations.includes(stationOf(s)) && s.enabled && s.strength > 0 && !stepKindById(s.kind).isNeutral(s.params))
    .map(({ kind, name, strength, side, params }) => ({ kind, name, strength, side, params }))
}

/** Each step goes into the grade's own neutral step of its kind where there is one, so that the usual controls show it; else it is added. */
export function applyRecipe(grade: GradeDocument, steps: readonly RecipeStep[]): GradeDocument {
  return steps.reduce((next, { kind, name, strength, side, params }) => {
    const own = next.steps.find((s) => s.kind === kind && s.regionId === undefined && stepKindById(kind).isNeutral(s.params) && kind !== 'zone')
    if (own) return { ...next, steps: next.steps.map((s) => (s.id === own.id ? { ...s, enabled: true, strength, side, params } : s)) }
    const before = new Set(next.steps.map((s) => s.id)), added = addStep(next, kind, name, params), fresh = added.steps.find((s) => !before.has(s.id))!
    return setStep(added, fresh.id, { strength, side })
  }, grade)
}
