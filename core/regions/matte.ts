// The matte of a region for some rows of a frame: every component drawn, keyed or taken over, then joined in order.
import { finer, onSteps } from '../image'
import { cleaned, calmed, cleaningReach, type Cleaning } from './cleaning'
import { keyMatte, type KeyPlanes, type KeyTap } from './key'
import { freshRoom, type MatteRoom } from './matte-room'
import {
  builtFrom,
  componentLimits,
  type KeySource,
  type MatteComponent,
  type ComponentMode,
  type Region,
  type ShownShape,
} from './region'
import { renderShape, rowsReached, shapeMatteAt } from './shape-matte'

/** What mattes are made on. */
export interface MattePicture {
  readonly width: number
  readonly height: number
  /** Keys are made on every pixel, or on every second of every second row while a hand moves. */
  readonly keyStep: 1 | 2
  /**
   * What keys read at a tap, of rows `from` up to, not including, `to` of their own grid; `away` frames from this one.
   * Null where that frame is not at hand.
   */
  readonly planes: (tap: KeyTap, from: number, to: number, away: number) => KeyPlanes | null
  /**
   * Keyed rows that are at hand, else those that `make` gives: at least `rows`, at most `all`. Absent where nothing is
   * kept.
   */
  readonly keyed?: (
    source: KeySource,
    rows: RowRange,
    all: RowRange,
    make: (rows: RowRange) => Float32Array,
  ) => KeyedRows
  /** Where mattes get their memory; fresh where it is absent. */
  readonly room?: MatteRoom
}

/** Rows `from` up to, not including, `to`. */
export interface RowRange {
  readonly from: number
  readonly to: number
}
/** A key's cleaned matte of some rows. */
export interface KeyedRows extends RowRange {
  readonly values: Float32Array
}

/** A picture without colours: keys hold nothing on it. */
export const blankPicture = (width: number, height: number): MattePicture => ({
  width,
  height,
  keyStep: 1,
  planes: (_, from, to) => {
    const none = new Float32Array(width * (to - from))
    return { width, height: to - from, l: none, a: none, b: none }
  },
})

/** Joins a value to what stands before it. On steps of 1/65536 all three are exact. */
export function join(mode: ComponentMode, before: number, value: number): number {
  switch (mode) {
    case 'add':
      return before > value ? before : value
    case 'subtract':
      return before > value ? before - value : 0
    case 'intersect':
      return before < value ? before : value
  }
}
/**
 * The same for all values, in place: a loop of its own for each way, as this runs on every pixel while a hand moves.
 */
function joinAll(mode: ComponentMode, matte: Float32Array, values: Float32Array): void {
  const count = matte.length
  switch (mode) {
    case 'add':
      for (let i = 0; i < count; i++) {
        const v = values[i]
        if (v > matte[i]) matte[i] = v
      }
      break
    case 'subtract':
      for (let i = 0; i < count; i++) {
        const m = matte[i]
        const v = values[i]
        matte[i] = m > v ? m - v : 0
      }
      break
    case 'intersect':
      for (let i = 0; i < count; i++) {
        const v = values[i]
        if (v < matte[i]) matte[i] = v
      }
  }
}
const startOf = (components: readonly MatteComponent[]): number =>
  components.length > 0 && components[0].mode !== 'add' ? 1 : 0
const presented = (value: number, invert: boolean, opacity: number): number => {
  const v = invert ? 1 - value : value
  return opacity === 1 ? v : onSteps(v * opacity)
}

/**
 * The matte of rows `from` up to `to`: one value per pixel, in steps of 1/65536. Strength is not in it. Shapes are
 * those of the region as it is at the frame.
 */
export function renderMatte(
  region: Region,
  regions: readonly Region[],
  picture: MattePicture,
  from = 0,
  to = picture.height,
  depth = 0,
): Float32Array {
  const start = startOf(region.components)
  const { room = freshRoom } = picture
  const filled = (length: number): Float32Array => {
    const matte = room.take(length)
    return start === 0 ? matte : matte.fill(start)
  }
  let made: Float32Array | null = null
  for (const [i, component] of region.components.entries()) {
    const drawn: Float32Array | null =
      component.source.kind === 'key'
        ? keyWhereItCounts(component.source, region.components, i, made, picture, from, to)
        : sourceMatte(component, regions, picture, from, to, depth)
    if (!drawn) continue
    const values: Float32Array =
      component.invert || component.opacity !== 1
        ? drawn.map((v) => presented(v, component.invert, component.opacity))
        : drawn
    // What is added to nothing is itself.
    if (!made && start === 0 && component.mode === 'add')
      made = values === drawn && component.source.kind !== 'shape' ? values.slice() : values
    else {
      joinAll(component.mode, (made ??= filled(values.length)), values)
      if (component.source.kind === 'shape') room.give(drawn)
    }
  }
  const matte = made ?? filled(picture.width * (to - from))
  if (region.invert) for (let i = 0; i < matte.length; i++) matte[i] = 1 - matte[i]
  return matte
}

/**
 * A key's rows, those left empty where they cannot matter: where what it is met with holds nothing, or a shape that it
 * is met with later does not reach.
 */
function keyWhereItCounts(
  source: KeySource,
  components: readonly MatteComponent[],
  at: number,
  made: Float32Array | null,
  picture: MattePicture,
  from: number,
  to: number,
): Float32Array {
  const { width, height } = picture
  let top = from
  let bottom = to
  if (components[at]?.mode === 'intersect' && made) {
    const first = made.findIndex((v) => v !== 0)
    const last = made.findLastIndex((v) => v !== 0)
    if (first < 0) return new Float32Array(made.length)
    top = from + Math.floor(first / width)
    bottom = from + Math.floor(last / width) + 1
  }
  for (const { mode, invert, source: later } of components.slice(at + 1)) {
    if (mode !== 'intersect' || invert || later.kind !== 'shape') continue
    const rows = rowsReached(later, width, height, top, bottom)
    top = rows.top
    bottom = rows.bottom
  }
  if (top === from && bottom === to) return keptRows(source, picture, { from, to }, { from, to })
  const out = new Float32Array(width * (to - from))
  if (bottom > top) out.set(keptRows(source, picture, { from: top, to: bottom }, { from, to }), (top - from) * width)
  return out
}

function keptRows(source: KeySource, picture: MattePicture, rows: RowRange, all: RowRange): Float32Array {
  const make = ({ from, to }: RowRange): Float32Array => keyedRows(source, picture, from, to)
  const { width } = picture
  if (!picture.keyed) return make(rows)
  const { from, values } = picture.keyed(source, rows, all, make)
  return values.subarray((rows.from - from) * width, (rows.to - from) * width)
}

/** Null where a component stands for nothing: a region that is not there, or that leads back to itself. */
function sourceMatte(
  { source }: MatteComponent,
  regions: readonly Region[],
  picture: MattePicture,
  from: number,
  to: number,
  depth: number,
): Float32Array | null {
  switch (source.kind) {
    case 'shape': {
      const { presence = 1 } = source as ShownShape
      const { room = freshRoom } = picture
      if (presence <= 0) return room.take(picture.width * (to - from))
      const drawn = renderShape(source, picture.width, picture.height, from, to, room)
      if (presence < 1) for (let i = 0; i < drawn.length; i++) drawn[i] = onSteps(drawn[i] * presence)
      return drawn
    }
    case 'key':
      return keptRows(source, picture, { from, to }, { from, to })
    case 'region': {
      const other = regions.find((r) => r.id === source.regionId)
      return other && depth < componentLimits.depth ? renderMatte(other, regions, picture, from, to, depth + 1) : null
    }
  }
}

function keyedRows(source: KeySource, picture: MattePicture, from: number, to: number): Float32Array {
  const { keyStep } = picture
  const { key, cleaning } = source
  if (keyStep === 1) return keyedOn(source, picture, picture.width, picture.height, from, to)
  // One row more below: between rows of the coarse grid the way is straight.
  const width = Math.max(1, picture.width >> 1)
  const height = Math.max(1, picture.height >> 1)
  const top = Math.max(0, Math.floor((from - 1) / 2))
  const bottom = Math.min(height, Math.floor(to / 2) + 1)
  return finer(
    {
      width,
      height: bottom - top,
      values: keyedOn(
        { kind: 'key', key, cleaning: wholeRadii(cleaning, height) },
        picture,
        width,
        height,
        top,
        bottom,
      ),
    },
    top,
    picture.width,
    from,
    to,
  )
}

/** Cleaned rows of a key on a grid, steadied over the frames that are at hand. */
function keyedOn(
  { key, cleaning }: KeySource,
  picture: MattePicture,
  width: number,
  height: number,
  from: number,
  to: number,
): Float32Array {
  const reach = cleaningReach(cleaning, height)
  const top = Math.max(0, from - reach)
  const bottom = Math.min(height, to + reach)
  const rows = bottom - top
  const at = (away: number): Float32Array | null => {
    const planes = picture.planes(key.tap, top, bottom, away)
    return (
      planes &&
      cleaned(
        { width, height: rows, values: keyMatte(key, calmed(planes, cleaning, height)) },
        { width, height: rows, values: planes.l },
        cleaning,
        height,
      ).values.subarray((from - top) * width, (to - top) * width)
    )
  }
  const own = at(0) ?? new Float32Array(width * (to - from))
  const steady = picture.keyStep === 1 ? Math.round(cleaning.steady) : 0
  const others = Array.from({ length: steady * 2 }, (_, i) => at(i < steady ? i - steady : i - steady + 1)).filter(
    (m): m is Float32Array => m !== null,
  )
  return others.length === 0
    ? own
    : own.map((v, i) => onSteps(others.reduce((sum, m) => sum + m[i], v) / (others.length + 1)))
}

/** Half pixels of a radius are not seen while a hand moves. */
const wholeRadii = (cleaning: Cleaning, height: number): Cleaning => {
  const whole = (share: number): number => Math.round(share * height) / height
  return { ...cleaning, specks: whole(cleaning.specks), holes: whole(cleaning.holes), grow: whole(cleaning.grow) }
}

/** How many frames before and after a region wants to see. */
export const framesAround = (region: Region, regions: readonly Region[]): number =>
  Math.max(
    0,
    ...builtFrom(region, regions).flatMap((r) =>
      r.components.map(({ source }) => (source.kind === 'key' ? Math.round(source.cleaning.steady) : 0)),
    ),
  )

/** The taps that a region's keys read at. */
export const tapsRead = (region: Region, regions: readonly Region[]): readonly KeyTap[] => [
  ...new Set(
    builtFrom(region, regions).flatMap((r) =>
      r.components.flatMap(({ source }) => (source.kind === 'key' ? [source.key.tap] : [])),
    ),
  ),
]

/** A region of shapes alone as a function of the place (shares of the frame); null where a key is in it. */
export function matteAt(
  region: Region,
  regions: readonly Region[],
  aspect: number,
  frameHeight: number,
  depth = 0,
): ((x: number, y: number) => number) | null {
  const parts: { readonly component: MatteComponent; readonly at: (x: number, y: number) => number }[] = []
  for (const component of region.components) {
    const { source } = component
    if (source.kind === 'key') return null
    if (source.kind === 'shape') {
      const { presence = 1 } = source as ShownShape
      const at = shapeMatteAt(source, aspect, frameHeight)
      parts.push({ component, at: presence >= 1 ? at : (x, y) => onSteps(at(x, y) * Math.max(0, presence)) })
      continue
    }
    const other = regions.find((r) => r.id === source.regionId)
    if (!other || depth >= componentLimits.depth) continue
    const at = matteAt(other, regions, aspect, frameHeight, depth + 1)
    if (!at) return null
    parts.push({ component, at })
  }
  const start = startOf(region.components)
  return (x, y) => {
    let m = start
    for (const {
      component: { mode, invert, opacity },
      at,
    } of parts)
      m = join(mode, m, presented(at(x, y), invert, opacity))
    return region.invert ? 1 - m : m
  }
}
