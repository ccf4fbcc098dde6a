// Recipes: chosen steps of a grade under a name, to be used on other shots and in other projects. They come in as
// ordinary steps.
import { stepKindById } from './steps'
import { builtFrom, type MatteComponent, type Region } from '../regions'
import { restingAt } from './animation'
import { isNeutralStep, stationOf } from './chain'
import { newStep, regionKinds } from './defaults'
import type { GradeDocument, Step } from './document'
import { addStep, freeId, setStep } from './edits'
import type { StationId } from './stations'

/** A step as a recipe keeps it: where it sits in a grade is the grade's. A region is one of the recipe's own. */
export type RecipeStep = Pick<Step, 'kind' | 'name' | 'strength' | 'side' | 'params' | 'regionId'>
/** A region as a recipe keeps it: where it lay in the picture it came from, to be placed anew in the next. */
export type RecipeRegion = Omit<Region, 'enabled'>
export interface RecipeContent {
  readonly steps: readonly RecipeStep[]
  readonly regions: readonly RecipeRegion[]
}
export interface Recipe extends RecipeContent {
  readonly id: string
  readonly name: string
  readonly note: string
}

/** The steps of some stations that do something, and the regions that carry them. */
export function recipeContent(grade: GradeDocument, chosen: readonly StationId[]): RecipeContent {
  const on = new Set(grade.regions.filter((r) => r.enabled).map((r) => r.id))
  const steps = grade.steps
    .filter(
      (s) =>
        chosen.includes(stationOf(s)) &&
        s.enabled &&
        s.strength > 0 &&
        !isNeutralStep(s) &&
        (s.regionId === undefined || on.has(s.regionId)),
    )
    .map(({ kind, name, strength, side, params, regionId }) => ({
      kind,
      name,
      strength,
      side,
      params,
      ...(regionId === undefined ? {} : { regionId }),
    }))
  const used = new Set(steps.map((s) => s.regionId))
  const needed = new Set(
    grade.regions.filter((r) => used.has(r.id)).flatMap((r) => builtFrom(r, grade.regions).map((b) => b.id)),
  )
  return {
    steps,
    regions: grade.regions
      .filter((r) => needed.has(r.id))
      .map(({ enabled: _, ...region }) => ({ ...region, components: region.components.map(resting) })),
  }
}

/**
 * One region with the steps it carries and the regions it is built from, as it lies at a frame: to be brought to
 * another shot.
 */
export function regionContent(grade: GradeDocument, regionId: string, frame: number): RecipeContent {
  const resting = restingAt(grade, frame)
  const region = resting.regions.find((r) => r.id === regionId)
  if (!region) return { steps: [], regions: [] }
  const steps = resting.steps
    .filter((s) => s.regionId === regionId && s.enabled && s.strength > 0 && !isNeutralStep(s))
    .map(({ kind, name, strength, side, params }) => ({ kind, name, strength, side, params, regionId }))
  return { steps, regions: builtFrom(region, resting.regions).map(({ enabled: _, ...r }) => r) }
}

/**
 * Each step of the whole picture goes into the grade's own neutral step of its kind where there is one, so that the
 * usual controls show it; else it is added. Regions are added, with their steps.
 */
export function applyRecipe(grade: GradeDocument, { steps, regions }: RecipeContent): GradeDocument {
  const ids = new Map<string, string>()
  for (const { id } of regions)
    ids.set(id, freeId([...grade.regions, ...[...ids.values()].map((taken) => ({ id: taken }))], 'region'))
  const placed = regions.reduce(
    (next, region) =>
      addPlaced(
        next,
        region,
        ids,
        steps.filter((s) => s.regionId === region.id),
      ),
    grade,
  )
  return steps.filter((s) => s.regionId === undefined).reduce(applyStep, placed)
}

function applyStep(grade: GradeDocument, { kind, name, strength, side, params }: RecipeStep): GradeDocument {
  const own = grade.steps.find(
    (s) =>
      s.kind === kind &&
      s.regionId === undefined &&
      s.lookId === undefined &&
      isNeutralStep(s) &&
      !stepKindById(kind).many,
  )
  if (own)
    return {
      ...grade,
      steps: grade.steps.map((s) => (s.id === own.id ? { ...s, enabled: true, strength, side, params } : s)),
    }
  const added = addStep(grade, kind, name, params)
  const fresh = added.steps.at(-1)
  return fresh ? setStep(added, fresh.id, { strength, side }) : added
}

/** How a shape followed one clip says nothing about another. */
const resting = (component: MatteComponent): MatteComponent => {
  if (component.source.kind !== 'shape') return component
  const { motion: _, ...still } = component.source
  return { ...component, source: still }
}

function addPlaced(
  grade: GradeDocument,
  region: RecipeRegion,
  ids: ReadonlyMap<string, string>,
  carried: readonly RecipeStep[],
): GradeDocument {
  const regionId = ids.get(region.id) ?? region.id
  const components = region.components.map((component) =>
    component.source.kind === 'region'
      ? {
          ...component,
          source: { ...component.source, regionId: ids.get(component.source.regionId) ?? component.source.regionId },
        }
      : component,
  )
  // What a region always offers is there for the hand as well, neutral where the recipe says nothing.
  const offered = regionKinds
    .filter((kind) => !carried.some((s) => s.kind === kind))
    .map((kind) => ({ ...newStep(kind, '', grade.working, regionId), side: carried[0]?.side ?? grade.working }))
  const fresh = [...carried.map((s) => ({ ...s, id: '', enabled: true, regionId })), ...offered]
  const steps = fresh.reduce<readonly Step[]>(
    (all, step) => [...all, { ...step, id: freeStepId(all, `${regionId}-${step.kind}`) }],
    grade.steps,
  )
  return { ...grade, regions: [...grade.regions, { ...region, id: regionId, components, enabled: true }], steps }
}

const freeStepId = (steps: readonly Step[], stem: string): string =>
  steps.some((s) => s.id === stem) ? freeId(steps, stem) : stem
