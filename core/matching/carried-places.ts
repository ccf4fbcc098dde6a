// Where parts of one picture lie in another: regions and subjects that are carried from shot to shot. Only what shows
// the same view is sure; all else is to be asked about.
import {
  laidThrough,
  largestIsland,
  moved,
  placeByLook,
  renderShapeMatte,
  scaleAt,
  similarity,
  type Homography,
  type Level,
  type Region,
  type ShapeSource,
} from '../regions'
import type { Area } from '../readings'
import type { LightPicture } from './light'
import { logLuminance, sameView } from './same-view'

/** A part of a picture: 1 inside, 0 outside, row by row in the size of that picture. */
export type Mask = Float32Array

export interface CarriedPlace {
  /** Of planes whose unit is the pictures' height: where places of the one lie in the other. */
  readonly motion: Homography
  readonly sure: boolean
}
export interface CarriedPlaces {
  readonly sameView: boolean
  readonly of: (mask: Mask) => CarriedPlace
  readonly aspect: number
  readonly aspectThere: number
}

/** With less detail than this (deviation in stops), what a part looks like says nothing of where it is. */
const leastDetail = 0.12
/** In the same view: how far from there something is looked for, and how far off it counts as where it was (widths). */
const reach = 0.12
const stayed = 0.02
/** How alike a part must look to be taken for the same. */
const leastAlike = 0.75

/**
 * What lies where, from the first picture to the second. Same views are told by their corners; then each part is looked
 * for near the place where it should be, for people move between takes.
 */
export function carriedPlaces(from: LightPicture, to: LightPicture): CarriedPlaces {
  const here = logLuminance(from)
  const there = logLuminance(to)
  const [aspect, aspectThere] = [from.width / from.height, to.width / to.height]
  const view = sameView(from, to)
  const layout = view && inHeights(view.motion, from.height, to.height)
  return {
    sameView: view !== null,
    aspect,
    aspectThere,
    of: (mask) => {
      const island = largestIsland({ ...here, values: mask })
      // Nothing that could be looked for, as a slope over all of the picture: it lies where the view says.
      if (!island) return { motion: layout ?? similarity(1, 0, (aspectThere - aspect) / 2, 0), sure: layout !== null }
      const plain = detailIn(here, mask) < leastDetail
      const middle = [island.x * aspect, island.y] as const
      const centred = (x: number, y: number, size: number): Homography =>
        similarity(size, 0, x * aspectThere - size * middle[0], y - size * middle[1])
      if (layout) {
        const size = scaleAt(layout, ...middle)
        const [u, y] = moved(layout, ...middle)
        const x = u / aspectThere
        if (plain) return { motion: layout, sure: true }
        const found = placeByLook(here, mask, there, { x, y, radius: reach, size })
        if (!found || found.sure < leastAlike) return { motion: layout, sure: false }
        if (Math.hypot(found.x - x, (found.y - y) / aspectThere) <= stayed) return { motion: layout, sure: true }
        return { motion: centred(found.x, found.y, found.size), sure: false }
      }
      const found = plain ? null : placeByLook(here, mask, there)
      if (!found) return { motion: centred(island.x, island.y, 1), sure: false }
      // Of two places that show different things, the likest one may look as alike as the same thing does.
      return { motion: centred(found.x, found.y, found.size), sure: false }
    },
  }
}

/** A motion between pixels as one between planes whose unit is the picture's height. */
const inHeights = (m: Homography, height: number, heightThere: number): Homography => [
  (m[0] * height) / heightThere,
  (m[1] * height) / heightThere,
  m[2] / heightThere,
  (m[3] * height) / heightThere,
  (m[4] * height) / heightThere,
  m[5] / heightThere,
  0,
  0,
  1,
]

function detailIn({ values }: Level, mask: Mask): number {
  let n = 0
  let sum = 0
  let squares = 0
  for (let p = 0; p < values.length; p++)
    if (mask[p] > 0.5) {
      n++
      sum += values[p]
      squares += values[p] ** 2
    }
  return n === 0 ? 0 : Math.sqrt(Math.max(0, squares / n - (sum / n) ** 2))
}

const shapesOf = ({ components }: Region): readonly ShapeSource[] =>
  components.flatMap(({ source }) => (source.kind === 'shape' ? [source] : []))

/** What a region's shapes hold by half; empty where it has none. */
export function maskOfShapes(region: Region, width: number, height: number): Mask {
  const mask = new Float32Array(width * height)
  for (const { source, mode } of region.components) {
    if (source.kind !== 'shape' || mode === 'subtract') continue
    const matte = renderShapeMatte(source, width, height)
    for (let p = 0; p < mask.length; p++) mask[p] = Math.max(mask[p], matte[p])
  }
  return mask
}

export interface CarriedRegion {
  readonly region: Region
  readonly sure: boolean
}

/** A region laid where its shapes should be. One that is told by its colours alone goes along as it is. */
export function carriedRegion(region: Region, from: LightPicture, places: CarriedPlaces): CarriedRegion {
  if (shapesOf(region).length === 0) return { region, sure: true }
  const { motion, sure } = places.of(maskOfShapes(region, from.width, from.height))
  return {
    sure,
    region: {
      ...region,
      components: region.components.map((component) =>
        component.source.kind === 'shape'
          ? { ...component, source: laidThrough(component.source, motion, places.aspect, places.aspectThere) }
          : component,
      ),
    },
  }
}

export interface CarriedArea {
  readonly area: Area
  readonly sure: boolean
}

/** A rectangle of one picture as it lies in the other; null where it would lie outside. */
export function carriedArea(
  { left, top, right, bottom }: Area,
  from: LightPicture,
  places: CarriedPlaces,
): CarriedArea | null {
  const { width, height } = from
  const mask = new Float32Array(width * height)
  for (let y = Math.floor(top * height); y < bottom * height; y++)
    for (let x = Math.floor(left * width); x < right * width; x++) mask[y * width + x] = 1
  const { motion, sure } = places.of(mask)
  const [u, v] = moved(motion, ((left + right) / 2) * places.aspect, (top + bottom) / 2)
  const size = scaleAt(motion, ((left + right) / 2) * places.aspect, (top + bottom) / 2)
  const across = ((right - left) / 2) * size * (places.aspect / places.aspectThere)
  const up = ((bottom - top) / 2) * size
  const held = (share: number): number => Math.min(1, Math.max(0, share))
  const area = {
    left: held(u / places.aspectThere - across),
    top: held(v - up),
    right: held(u / places.aspectThere + across),
    bottom: held(v + up),
  }
  return area.right - area.left < 0.005 || area.bottom - area.top < 0.005 ? null : { area, sure }
}
