// A region: a part of the picture, put together of shapes, keys and other regions, as a matte of 0..1.
import type { Cleaning } from './cleaning'
import type { Key } from './key'
import type { Motion } from './motion'
import type { Shape } from './shape'
import type { PlacedShape } from './shape-matte'

export interface ShapeSource extends Omit<PlacedShape, 'placed'> {
  readonly kind: 'shape'
  readonly shape: Shape
  /** How the shape follows the picture; without it, it stays. */
  readonly motion?: Motion
}
export interface KeySource {
  readonly kind: 'key'
  readonly key: Key
  readonly cleaning: Cleaning
}
/** Another region of the same grade: both follow its edits. */
export interface RegionSource {
  readonly kind: 'region'
  readonly regionId: string
}

export type ComponentMode = 'add' | 'subtract' | 'intersect'
export interface MatteComponent {
  readonly id: string
  /**
   * How it joins what stands before it. A first component that takes away, or is met with, starts from the whole
   * picture.
   */
  readonly mode: ComponentMode
  readonly invert: boolean
  readonly opacity: number
  readonly source: ShapeSource | KeySource | RegionSource
}

export interface Region {
  readonly id: string
  readonly name: string
  readonly enabled: boolean
  readonly invert: boolean
  /** 0..1 of what its steps do. */
  readonly strength: number
  readonly components: readonly MatteComponent[]
}

/** A shape that has been brought to a frame; it is never kept. */
export interface ShownShape extends ShapeSource, PlacedShape {
  /** 0 where it is hidden, 1 where it is seen, between while it fades. */
  readonly presence?: number
}

export const componentLimits = { components: 24, depth: 8 } as const

/** The regions that a region is built from, itself first; a region that leads back to itself is not followed again. */
export function builtFrom(region: Region, regions: readonly Region[]): readonly Region[] {
  const found = new Set<Region>()
  const follow = (r: Region): void => {
    if (found.has(r)) return
    found.add(r)
    for (const { source } of r.components) {
      const next = source.kind === 'region' ? regions.find((o) => o.id === source.regionId) : undefined
      if (next) follow(next)
    }
  }
  follow(region)
  return [...found]
}

/** True when a region would be built from itself, by whatever detour. */
export function isCircular(region: Region, regions: readonly Region[]): boolean {
  return region.components.some(({ source }) => {
    const next = source.kind === 'region' ? regions.find((o) => o.id === source.regionId) : undefined
    return next !== undefined && builtFrom(next, regions).some((r) => r.id === region.id)
  })
}
