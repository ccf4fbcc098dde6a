// Direct evaluation: every pixel through every operation of the chain in double precision. Slow, and the reference.
import { clamp } from '../numbers'
import { displayById } from '../colour'
import type { Frame } from '../image'
import { matteAt, type Region } from '../regions'
import { applyLink, type Chain, type Link } from './chain'
import { operate, type NeighbourhoodOperation } from './operation'
import type { Rasters } from './rasters'

/** Where each pixel of a list lies in the frame, for mattes: x and y as shares of the frame, two values per pixel. */
export interface Positions {
  readonly shares: Float64Array
  readonly frameWidth: number
  readonly frameHeight: number
  /** What depends on other pixels; without it keys hold nothing and neighbourhoods change nothing. */
  readonly rasters?: Rasters
}

/**
 * Camera code values → display signal, held to 0..1, in place.
 * @param pixels RGB triples of code values (0..1 full range; values outside are allowed).
 */
export function evaluateDirect(chain: Chain, pixels: Float64Array, positions: Positions): void {
  for (let i = 0; i < pixels.length; i++) pixels[i] = chain.decode(pixels[i])
  chain.links.forEach((link, at) => applyPlaced(link, pixels, positions, chain, at))
  finishSignal(chain, pixels)
}

/** One link of a chain, mixed by its region's matte where it has one. `at` is its index among the chain's links. */
export function applyPlaced(
  link: Link,
  pixels: Float64Array,
  positions: Positions,
  { regions }: Pick<Chain, 'regions'>,
  at: number,
): void {
  const { region } = link
  const before = region ? pixels.slice() : pixels
  if (positions.rasters && link.operations.some((o) => o.kind === 'neighbourhood'))
    link.operations.forEach((operation, i) =>
      operation.kind === 'neighbourhood'
        ? applyMeans(operation, positions.rasters?.means.get(`${at} ${link.signature} ${i}`), pixels, positions)
        : operate(operation, pixels),
    )
  else applyLink(link, pixels)
  if (!region) return
  const matte = mattesAt(region, regions, positions)
  for (let p = 0; p < matte.length; p++)
    for (let i = p * 3; i < p * 3 + 3; i++) pixels[i] = before[i] + (pixels[i] - before[i]) * matte[p] * region.strength
}

function applyMeans(
  { amount, weights }: NeighbourhoodOperation,
  means: Float32Array | undefined,
  pixels: Float64Array,
  positions: Positions,
): void {
  if (!means) return
  for (let p = 0; p < pixels.length / 3; p++) {
    const i = p * 3
    const at = rasterIndex(positions, p)
    const sum = weights
      ? weights[0] * pixels[i] + weights[1] * pixels[i + 1] + weights[2] * pixels[i + 2] - means[at]
      : 0
    for (let c = 0; c < 3; c++) pixels[i + c] += amount * (weights ? sum : pixels[i + c] - means[at * 3 + c])
  }
}

/** The pixel of the rasters that a place falls on. */
function rasterIndex({ shares, rasters }: Positions, p: number): number {
  if (!rasters) return 0
  const cell = (v: number, most: number): number => clamp(Math.floor(v * most), 0, most - 1)
  return cell(shares[p * 2 + 1], rasters.height) * rasters.width + cell(shares[p * 2], rasters.width)
}

/**
 * What remains after the last link: encode for the display where that is still to do, and hold to what the display can
 * show.
 */
export function finishSignal(chain: Chain, pixels: Float64Array): void {
  const {
    eotf: { encode },
    carriedPeak,
  } = displayById(chain.displayId)
  const encodeFirst = chain.leaves === 'displayLinear'
  const top = encodeFirst ? carriedPeak : encode(carriedPeak)
  for (let i = 0; i < pixels.length; i++) {
    const clamped = clamp(pixels[i], 0, top)
    pixels[i] = encodeFirst ? encode(clamped) : clamped
  }
}

/** The matte of a region at a list of places, 0..1, without its strength. */
export function mattesAt(region: Region, regions: readonly Region[], positions: Positions): Float64Array {
  const { shares, frameWidth, frameHeight, rasters } = positions
  const at = matteAt(region, regions, frameWidth / frameHeight, frameHeight)
  const drawn = rasters?.mattes.get(region.id)
  return Float64Array.from({ length: shares.length / 2 }, (_, p) =>
    at ? at(shares[p * 2], shares[p * 2 + 1]) : (drawn?.[rasterIndex(positions, p)] ?? 0),
  )
}

// Enough pixels at a time to keep the loops busy, few enough to stay in the cache.
const chunkPixels = 4096

/**
 * Rows `from` up to, not including, `to` of a frame into `target` (16-bit display signal of the whole frame), by direct
 * evaluation.
 */
export function executeDirectRows(
  chain: Chain,
  frame: Frame,
  target: Uint16Array,
  from: number,
  to: number,
  rasters: Rasters | null,
): void {
  const scale = (frame.high - frame.low) / 65535
  const end = to * frame.width
  for (let first = from * frame.width; first < end; first += chunkPixels) {
    const count = Math.min(chunkPixels, end - first)
    const pixels = Float64Array.from(
      frame.data.subarray(first * 3, (first + count) * 3),
      (code) => frame.low + code * scale,
    )
    const positions = framePositions(frame.width, frame.height, 1, first, count)
    evaluateDirect(chain, pixels, rasters ? { ...positions, rasters } : positions)
    for (let i = 0, o = first * 3; i < pixels.length; i++, o++) target[o] = pixels[i] * 65535 + 0.5
  }
}

/** Positions of every `stride`-th pixel of a frame, at pixel centres: all of them, or `count` from pixel `first` on. */
export function framePositions(
  frameWidth: number,
  frameHeight: number,
  stride: number,
  first = 0,
  count = Math.ceil((frameWidth * frameHeight) / stride),
): Positions {
  const shares = new Float64Array(count * 2)
  for (let i = 0; i < count; i++) {
    const pixel = first + i * stride
    shares[i * 2] = ((pixel % frameWidth) + 0.5) / frameWidth
    shares[i * 2 + 1] = (Math.floor(pixel / frameWidth) + 0.5) / frameHeight
  }
  return { shares, frameWidth, frameHeight }
}
