// Direct evaluation: every pixel through every operation of the chain in double precision. Slow, and the reference.
import { displayById } from '../colour'
import { matteAt, type Region } from '../regions'
import type { Chain, Link } from './chain'

/** Where each pixel of a list lies in the frame, for mattes: x and y as shares of the frame, two values per pixel. */
export interface Positions {
  readonly shares: Float64Array
  readonly frameWidth: number
  readonly frameHeight: number
}

/**
 * Camera code values → display signal, held to 0..1, in place.
 * @param pixels RGB triples of code values (0..1 full range; values outside are allowed).
 */
export function evaluateDirect(chain: Chain, pixels: Float64Array, positions: Positions): void {
  for (let i = 0; i < pixels.length; i++) pixels[i] = chain.decode(pixels[i]!)
  for (const link of chain.links) applyLink(link, pixels, positions)
  finishSignal(chain, pixels)
}

/** One link, mixed by its region's matte where it has one. */
export function applyLink(link: Link, pixels: Float64Array, positions: Positions): void {
  if (!link.region) {
    link.apply(pixels)
    return
  }
  const before = pixels.slice()
  link.apply(pixels)
  const matte = mattesAt(link.region, positions)
  for (let p = 0; p < matte.length; p++)
    for (let i = p * 3; i < p * 3 + 3; i++) pixels[i] = before[i]! + (pixels[i]! - before[i]!) * matte[p]!
}

/** What remains after the last link: encode for the display where that is still to do, and hold to 0..1. */
export function finishSignal(chain: Chain, pixels: Float64Array): void {
  const { encode } = displayById(chain.displayId).eotf
  const encodeFirst = chain.leaves === 'displayLinear'
  for (let i = 0; i < pixels.length; i++) {
    const held = Math.min(Math.max(pixels[i]!, 0), 1)
    pixels[i] = encodeFirst ? encode(held) : held
  }
}

function mattesAt(region: Region, { shares, frameWidth, frameHeight }: Positions): Float64Array {
  const at = matteAt(region, frameWidth / frameHeight, frameHeight)
  return Float64Array.from({ length: shares.length / 2 }, (_, p) => at(shares[p * 2]!, shares[p * 2 + 1]!))
}

/** Positions of every `stride`-th pixel of a frame, at pixel centres. */
export function framePositions(frameWidth: number, frameHeight: number, stride: number): Positions {
  const count = Math.ceil((frameWidth * frameHeight) / stride)
  const shares = new Float64Array(count * 2)
  for (let i = 0; i < count; i++) {
    const pixel = i * stride
    shares[i * 2] = ((pixel % frameWidth) + 0.5) / frameWidth
    shares[i * 2 + 1] = (Math.floor(pixel / frameWidth) + 0.5) / frameHeight
  }
  return { shares, frameWidth, frameHeight }
}
