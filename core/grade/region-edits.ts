// Edits of regions: adding them from a starting point, their components, their order, and their shapes at a frame.
import {
  changedShape,
  freshKey,
  noCleaning,
  withShapeAt,
  type MatteComponent,
  type Region,
  type Shape,
  type ShapeSource,
} from '../regions'
import { regionSteps } from './defaults'
import type { GradeDocument, StepParameters } from './document'
import { freeId, withoutLostKeyframes } from './edits'

/** A region to begin with, and what its steps do at first. */
export interface RegionStart {
  readonly name: string
  readonly region: Pick<Region, 'invert' | 'components'>
  /** By the kind of step. */
  readonly params: Readonly<Record<string, StepParameters>>
}

export const shapeComponent = (
  id: string,
  shape: Shape,
  softness: { readonly inner: number; readonly outer: number },
  more: Partial<MatteComponent> = {},
): MatteComponent => ({
  id,
  mode: 'add',
  invert: false,
  opacity: 1,
  ...more,
  source: { kind: 'shape', shape, ...softness },
})
export const keyComponent = (id: string, more: Partial<MatteComponent> = {}): MatteComponent => ({
  id,
  mode: 'add',
  invert: false,
  opacity: 1,
  source: { kind: 'key', key: freshKey, cleaning: noCleaning },
  ...more,
})

export const usualSoftness = { inner: 0.06, outer: 0.06 } as const
const plainStart = (): RegionStart => ({
  name: '',
  region: {
    invert: false,
    components: [
      shapeComponent(
        'component-1',
        { kind: 'ellipse', centreX: 0.5, centreY: 0.5, radiusX: 0.3, radiusY: 0.3, rotationDegrees: 0 },
        usualSoftness,
      ),
    ],
  },
  params: {},
})

/**
 * Adds a region with one neutral step of every kind it offers, but for what its start asks for. Returns the new
 * region's id as well.
 */
export function addRegion(
  grade: GradeDocument,
  start: RegionStart = plainStart(),
): { readonly grade: GradeDocument; readonly regionId: string } {
  const regionId = freeId(grade.regions, 'region')
  const name = freeName(grade.regions, start.name || `Region ${regionId.slice('region-'.length)}`)
  const region: Region = { id: regionId, name, enabled: true, strength: 1, ...start.region }
  const tools = regionSteps(grade.working, regionId).map((step) => ({
    ...step,
    params: { ...step.params, ...start.params[step.kind] },
  }))
  return {
    grade: {
      ...grade,
      regions: [...grade.regions, region],
      steps: [...grade.steps, ...tools],
    },
    regionId,
  }
}

function freeName(regions: readonly Region[], name: string): string {
  if (!regions.some((r) => r.name === name)) return name
  for (let n = 2; ; n++) if (!regions.some((r) => r.name === `${name} ${n}`)) return `${name} ${n}`
}

function replaceRegion(grade: GradeDocument, regionId: string, change: (region: Region) => Region): GradeDocument {
  const regions = grade.regions.map((r) => (r.id === regionId ? change(r) : r))
  return regions.every((r, i) => r === grade.regions[i]) ? grade : { ...grade, regions }
}

export const setRegion = (
  grade: GradeDocument,
  regionId: string,
  change: Partial<Omit<Region, 'id' | 'components'>>,
): GradeDocument => replaceRegion(grade, regionId, (r) => ({ ...r, ...change }))

/** Removes a region, the steps it carries, and the components of others that were built from it. */
export function removeRegion(grade: GradeDocument, regionId: string): GradeDocument {
  const without = grade.regions
    .filter((r) => r.id !== regionId)
    .map((r) =>
      r.components.some((p) => p.source.kind === 'region' && p.source.regionId === regionId)
        ? { ...r, components: r.components.filter((p) => p.source.kind !== 'region' || p.source.regionId !== regionId) }
        : r,
    )
  return withoutLostKeyframes({ ...grade, regions: without, steps: grade.steps.filter((s) => s.regionId !== regionId) })
}

const movedBy = <T>(list: readonly T[], at: number, by: number): readonly T[] => {
  const item = list[at]
  const to = Math.min(list.length - 1, Math.max(0, at + by))
  if (item === undefined || to === at) return list
  const rest = list.filter((_, i) => i !== at)
  return [...rest.slice(0, to), item, ...rest.slice(to)]
}

/** Regions act in their order: each on what those before it left. */
export function moveRegion(grade: GradeDocument, regionId: string, by: number): GradeDocument {
  const regions = movedBy(
    grade.regions,
    grade.regions.findIndex((r) => r.id === regionId),
    by,
  )
  return regions === grade.regions ? grade : { ...grade, regions }
}

/** Adds a component behind the others; its id is made anew. */
export function addComponent(
  grade: GradeDocument,
  regionId: string,
  component: MatteComponent,
): { readonly grade: GradeDocument; readonly componentId: string } {
  const componentId = freeId(grade.regions.find((r) => r.id === regionId)?.components ?? [], 'component')
  return {
    grade: replaceRegion(grade, regionId, (r) => ({
      ...r,
      components: [...r.components, { ...component, id: componentId }],
    })),
    componentId,
  }
}

export function changeComponent(
  grade: GradeDocument,
  regionId: string,
  componentId: string,
  change: (component: MatteComponent) => MatteComponent,
): GradeDocument {
  return replaceRegion(grade, regionId, (r) => {
    const components = r.components.map((p) => (p.id === componentId ? change(p) : p))
    return components.every((p, i) => p === r.components[i]) ? r : { ...r, components }
  })
}
export const removeComponent = (grade: GradeDocument, regionId: string, componentId: string): GradeDocument =>
  replaceRegion(grade, regionId, (r) => ({ ...r, components: r.components.filter((p) => p.id !== componentId) }))
export const moveComponent = (grade: GradeDocument, regionId: string, componentId: string, by: number): GradeDocument =>
  replaceRegion(grade, regionId, (r) => {
    const components = movedBy(
      r.components,
      r.components.findIndex((p) => p.id === componentId),
      by,
    )
    return components === r.components ? r : { ...r, components }
  })

/** Changes a component that is a shape. */
export const changeShapeSource = (
  grade: GradeDocument,
  regionId: string,
  componentId: string,
  change: (source: ShapeSource) => ShapeSource,
): GradeDocument =>
  changeComponent(grade, regionId, componentId, (component) => {
    const { source } = component
    if (source.kind !== 'shape') return component
    const next = change(source)
    return next === source ? component : { ...component, source: next }
  })

/** A shape as a hand left it at a frame of the medium. */
export const setShapeAt = (
  grade: GradeDocument,
  regionId: string,
  componentId: string,
  shape: Shape,
  frame: number,
): GradeDocument => changeShapeSource(grade, regionId, componentId, (source) => withShapeAt(source, shape, frame))

/**
 * All shapes of a region moved, scaled and turned together, as when it is placed in another picture; what followed the
 * old one is forgotten.
 */
export function placeRegion<R extends Pick<Region, 'components'>>(
  region: R,
  aspect: number,
  by: Parameters<typeof changedShape>[2],
): R {
  return {
    ...region,
    components: region.components.map((component) =>
      component.source.kind === 'shape'
        ? {
            ...component,
            source: {
              kind: 'shape',
              shape: changedShape(component.source.shape, aspect, by),
              inner: component.source.inner * (by.size ?? 1),
              outer: component.source.outer * (by.size ?? 1),
            },
          }
        : component,
    ),
  }
}

/** Regions of a grade moved by shares of the frame's width and height; those that are not there are left out. */
export function moveRegions(
  grade: GradeDocument,
  moves: readonly { readonly id: string; readonly x: number; readonly y: number }[],
): GradeDocument {
  return moves.reduce(
    // Moving alone knows no aspect: nothing is turned or sized.
    (next, { id, x, y }) => replaceRegion(next, id, (region) => placeRegion(region, 1, { x, y })),
    grade,
  )
}
