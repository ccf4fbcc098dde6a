// The matte of a region for some rows of a frame: every piece drawn, keyed or taken over, then joined in order.
import { cleaned, calmed, cleaningReach } from './cleaning'
import { keyMatte, type KeyPlanes, type KeyTap } from './key'
import { builtFrom, pieceLimits, type KeySource, type Piece, type PieceMode, type Region, type ShownShape } from './region'
import { onSteps, renderShape, shapeMatteAt } from './shape-matte'

/** What mattes are made on. */
export interface MattePicture {
  readonly width: number
  readonly height: number
  /** The picture's rows `from` up to, not including, `to` as keys read them at a tap. */
  readonly planes: (tap: KeyTap, from: number, to: number) => KeyPlanes
}

/** A picture without colours: keys hold nothing on it. */
export const blankPicture = (width: number, height: number): MattePicture => ({
  width, height,
  planes: (_, from, to) => { const none = new Float32Array(width * (to - from)); return { width, height: to - from, l: none, a: none, b: none } },
})

/** Joins a value to what stands before it. On steps of 1/65536 all three are exact. */
export function join(mode: PieceMode, before: number, value: number): number {
  switch (mode) {
    case 'add': return before > value ? before : value
    case 'subtract': return before > value ? before - value : 0
    case 'intersect': return before < value ? before : value
  }
}
const startOf = (pieces: readonly Piece[]): number => (pieces.length > 0 && pieces[0]!.mode !== 'add' ? 1 : 0)
const presented = (value: number, invert: boolean, opacity: number): number => { const v = invert ? 1 - value : value; return opacity === 1 ? v : onSteps(v * opacity) }

/** The matte of rows `from` up to `to`: one value per pixel, in steps of 1/65536. Strength is not in it. Shapes are those of the region as it is at the frame. */
export function renderMatte(region: Region, regions: readonly Region[], picture: MattePicture, from = 0, to = picture.height, depth = 0): Float32Array {
  const matte = new Float32Array(picture.width * (to - from)), start = startOf(region.pieces)
  if (start !== 0) matte.fill(start)
  for (const piece of region.pieces) {
    const drawn = sourceMatte(piece, regions, picture, from, to, depth)
    if (!drawn) continue
    const { mode, invert, opacity } = piece
    if (mode === 'add') for (let i = 0; i < matte.length; i++) { const v = presented(drawn[i]!, invert, opacity); if (v > matte[i]!) matte[i] = v }
    else for (let i = 0; i < matte.length; i++) matte[i] = join(mode, matte[i]!, presented(drawn[i]!, invert, opacity))
  }
  if (region.invert) for (let i = 0; i < matte.length; i++) matte[i] = 1 - matte[i]!
  return matte
}

/** Null where a piece stands for nothing: a region that is not there, or that leads back to itself. */
function sourceMatte({ source }: Piece, regions: readonly Region[], picture: MattePicture, from: number, to: number, depth: number): Float32Array | null {
  switch (source.kind) {
    case 'shape': {
      const { presence = 1 } = source as ShownShape
      if (presence <= 0) return new Float32Array(picture.width * (to - from))
      const drawn = renderShape(source as ShownShape, picture.width, picture.height, from, to)
      if (presence < 1) for (let i = 0; i < drawn.length; i++) drawn[i] = onSteps(drawn[i]! * presence)
      return drawn
    }
    case 'key': return keyedRows(source, picture, from, to)
    case 'region': {
      const other = regions.find((r) => r.id === source.regionId)
      return other && depth < pieceLimits.depth ? renderMatte(other, regions, picture, from, to, depth + 1) : null
    }
  }
}

function keyedRows({ key, cleaning }: KeySource, picture: MattePicture, from: number, to: number): Float32Array {
  const { width, height } = picture, reach = cleaningReach(cleaning, height), top = Math.max(0, from - reach), bottom = Math.min(height, to + reach)
  const planes = picture.planes(key.tap, top, bottom), matte = keyMatte(key, calmed(planes, cleaning, height))
  const clean = cleaned({ width, height: bottom - top, values: matte }, { width, height: bottom - top, values: planes.l }, cleaning, height)
  return clean.values.subarray((from - top) * width, (to - top) * width)
}

/** The taps that a region's keys read at. */
export const tapsRead = (region: Region, regions: readonly Region[]): readonly KeyTap[] => [...new Set(builtFrom(region, regions).flatMap((r) => r.pieces.flatMap(({ source }) => (source.kind === 'key' ? [source.key.tap] : []))))]

/** A region of shapes alone as a function of the place (shares of the frame); null where a key is in it. */
export function matteAt(region: Region, regions: readonly Region[], aspect: number, frameHeight: number, depth = 0): ((x: number, y: number) => number) | null {
  const parts: { readonly piece: Piece; readonly at: (x: number, y: number) => number }[] = []
  for (const piece of region.pieces) {
    const { source } = piece
    if (source.kind === 'key') return null
    if (source.kind === 'shape') {
      const { presence = 1 } = source as ShownShape, at = shapeMatteAt(source as ShownShape, aspect, frameHeight)
      parts.push({ piece, at: presence >= 1 ? at : (x, y) => onSteps(at(x, y) * Math.max(0, presence)) })
      continue
    }
    const other = regions.find((r) => r.id === source.regionId)
    if (!other || depth >= pieceLimits.depth) continue
    const at = matteAt(other, regions, aspect, frameHeight, depth + 1)
    if (!at) return null
    parts.push({ piece, at })
  }
  const start = startOf(region.pieces)
  return (x, y) => {
    let m = start
    for (const { piece: { mode, invert, opacity }, at } of parts) m = join(mode, m, presented(at(x, y), invert, opacity))
    return region.invert ? 1 - m : m
  }
}
