// Operations: what a link does to pixels, said so that neighbours can be joined: a curve per channel, a matrix, or
// neither.
import { identity3, multiply, transformPixels, type Matrix3, type Vector3 } from '../colour'

/** Changes interleaved RGB triples in place. */
export type PixelOperation = (pixels: Float64Array) => void
/** One component to one component; defined for every finite value. */
export type Curve = (value: number) => number

/** What kind of values stand between two links. `code` is the camera's code value, before Read. */
export type Light = 'code' | 'sceneLinear' | 'workingLog' | 'displayLinear' | 'displaySignal'

export type Operation =
  /** One curve for all channels, or one for each. */
  | { readonly kind: 'curve'; readonly curves: readonly [Curve] | readonly [Curve, Curve, Curve] }
  | { readonly kind: 'matrix'; readonly matrix: Matrix3 }
  | GainOperation
  | RelativeOperation
  | PixelsOperation
  | NeighbourhoodOperation

/**
 * All components times gain(n), where n is their weighted sum, or the largest of them; `blend` 0..1 mixes toward
 * `curve`, channel by channel. Weights all zero mean the largest.
 */
export interface GainOperation {
  readonly kind: 'gain'
  readonly weights: Vector3
  readonly gain: Curve
  readonly blend: number
  readonly curve: Curve
}

/** Each component c becomes m·curve(c / m), where m is the largest; where m is not above zero nothing changes. */
export interface RelativeOperation {
  readonly kind: 'relative'
  readonly curve: Curve
}

/**
 * Each pixel is moved away from the mean about it by `amount` times its distance from it, or toward it where that is
 * below zero (−1: the mean itself). The mean is Gaussian; `deviation` is a share of the frame's height. With weights,
 * all channels are moved by what their weighted sum is. Where nothing is known about the neighbourhood, nothing
 * changes.
 */
export interface NeighbourhoodOperation {
  readonly kind: 'neighbourhood'
  readonly deviation: number
  readonly amount: number
  readonly weights: Vector3 | null
  /** Says all of it but the amount. */ readonly signature: string
}

export const neighbourhoodOperation = (
  deviation: number,
  amount: number,
  weights: Vector3 | null,
): NeighbourhoodOperation => ({
  kind: 'neighbourhood',
  deviation,
  amount,
  weights,
  signature: JSON.stringify([deviation, weights]),
})

/** Mixes channels in a way of its own; only a lattice can stand for it. */
export interface PixelsOperation {
  readonly kind: 'pixels'
  readonly apply: PixelOperation
  readonly takes: Light
  readonly leaves: Light
  /** Tetrahedral interpolation between these evenly spaced nodes is the operation itself, and not an approximation. */
  readonly exactOn?: { readonly size: number; readonly low: number; readonly high: number }
}

export const curveOperation = (curve: Curve): Operation => ({ kind: 'curve', curves: [curve] })
export const channelCurves = (red: Curve, green: Curve, blue: Curve): Operation => ({
  kind: 'curve',
  curves: [red, green, blue],
})
export const matrixOperation = (matrix: Matrix3): Operation => ({ kind: 'matrix', matrix })
export const pixelsOperation = (apply: PixelOperation, takes: Light, leaves: Light = takes): PixelsOperation => ({
  kind: 'pixels',
  apply,
  takes,
  leaves,
})

/** Runs one operation in double precision, in place: the reference. */
export function operate(operation: Operation, pixels: Float64Array): void {
  switch (operation.kind) {
    case 'matrix':
      return transformPixels(operation.matrix, pixels)
    case 'pixels':
      return operation.apply(pixels)
    case 'curve':
      return alongCurves(operation.curves, pixels)
    case 'gain':
      return applyGain(operation, pixels)
    case 'relative':
      return applyRelative(operation, pixels)
    case 'neighbourhood':
      return
  }
}

function alongCurves([red, green = red, blue = red]: readonly Curve[], pixels: Float64Array): void {
  if (!red || !green || !blue) return
  for (let i = 0; i < pixels.length; i += 3) {
    pixels[i] = red(pixels[i])
    pixels[i + 1] = green(pixels[i + 1])
    pixels[i + 2] = blue(pixels[i + 2])
  }
}

function applyGain({ weights: [wr, wg, wb], gain, blend, curve }: GainOperation, pixels: Float64Array): void {
  const byLargest = wr === 0 && wg === 0 && wb === 0
  for (let i = 0; i < pixels.length; i += 3) {
    const r = pixels[i]
    const g = pixels[i + 1]
    const b = pixels[i + 2]
    const share = gain(byLargest ? Math.max(r, g, b) : wr * r + wg * g + wb * b) * (1 - blend)
    pixels[i] = r * share + (blend && curve(r) * blend)
    pixels[i + 1] = g * share + (blend && curve(g) * blend)
    pixels[i + 2] = b * share + (blend && curve(b) * blend)
  }
}

function applyRelative({ curve }: RelativeOperation, pixels: Float64Array): void {
  for (let i = 0; i < pixels.length; i += 3) {
    const largest = Math.max(pixels[i], pixels[i + 1], pixels[i + 2])
    if (largest <= 0) continue
    for (let c = i; c < i + 3; c++) pixels[c] = largest * curve(pixels[c] / largest)
  }
}

/**
 * The operation mixed over its input by `strength` 0..1. Curves and matrices stay what they are. `at` is the light it
 * stands in.
 */
export function mixed(operation: Operation, strength: number, at: Light): Operation {
  if (strength === 1) return operation
  if (operation.kind === 'curve') {
    const soften =
      (curve: Curve): Curve =>
      (v) =>
        v + (curve(v) - v) * strength
    const [red, green, blue] = operation.curves
    return green && blue ? channelCurves(soften(red), soften(green), soften(blue)) : curveOperation(soften(red))
  }
  if (operation.kind === 'neighbourhood') return { ...operation, amount: operation.amount * strength }
  if (operation.kind === 'matrix')
    return matrixOperation(
      operation.matrix.map((m, i) => identity3[i] + (m - identity3[i]) * strength) as unknown as Matrix3,
    )
  const apply: PixelOperation = (pixels) => {
    const before = pixels.slice()
    operate(operation, pixels)
    for (let i = 0; i < pixels.length; i++) pixels[i] = before[i] + (pixels[i] - before[i]) * strength
  }
  // Mixing keeps what is straight between nodes straight.
  return operation.kind === 'pixels' ? { ...operation, apply } : pixelsOperation(apply, at)
}

/** As mixed, for operations one behind the other: whole they stay what they are, in part they become one. */
export function mixedRun(run: readonly Operation[], strength: number, at: Light): readonly Operation[] {
  const [only] = run
  if (only && run.length === 1) return [mixed(only, strength, at)]
  return strength === 1
    ? run
    : [
        mixed(
          pixelsOperation((pixels) => run.forEach((operation) => operate(operation, pixels)), at),
          strength,
          at,
        ),
      ]
}

/** An operation with what it depends on, in words: equal signatures mean equal effects. */
export interface SignedOperation {
  readonly signature: string
  readonly operation: Operation
}

/** Joins neighbouring matrices, neighbouring curves, and curves with a gain of each channel between them. */
export function joined(run: readonly SignedOperation[]): readonly SignedOperation[] {
  const out: SignedOperation[] = []
  for (const next of run) {
    out.push(next)
    for (const count of [2, 3]) {
      const tail = out.slice(-count)
      const operation = joinedOne(tail.map((s) => s.operation))
      if (operation) out.splice(-count, count, { signature: tail.map((s) => s.signature).join('\n'), operation })
    }
  }
  return out
}

function joinedOne([first, second, third]: readonly Operation[]): Operation | null {
  if (third === undefined) {
    if (first?.kind === 'matrix' && second?.kind === 'matrix')
      return matrixOperation(multiply(second.matrix, first.matrix))
    return first?.kind === 'curve' && second?.kind === 'curve'
      ? { kind: 'curve', curves: inTurn(first.curves, second.curves) }
      : null
  }
  if (first?.kind !== 'curve' || second?.kind !== 'matrix' || third.kind !== 'curve') return null
  const gains = gainsOf(second.matrix)
  return gains && { kind: 'curve', curves: inTurn(inTurn(first.curves, gains), third.curves) }
}

/** A matrix that mixes no channels, as curves. */
function gainsOf([rr, rg, rb, gr, gg, gb, br, bg, bb]: Matrix3): Curves | null {
  if ([rg, rb, gr, gb, br, bg].some((m) => m !== 0)) return null
  const times =
    (gain: number): Curve =>
    (v) =>
      v * gain
  return rr === gg && gg === bb ? [times(rr)] : [times(rr), times(gg), times(bb)]
}

type Curves = readonly [Curve] | readonly [Curve, Curve, Curve]
function inTurn(first: Curves, second: Curves): Curves {
  const [fr, fg = fr, fb = fr] = first
  const [sr, sg = sr, sb = sr] = second
  if (first.length === 1 && second.length === 1) return [(v) => sr(fr(v))]
  return [(v) => sr(fr(v)), (v) => sg(fg(v)), (v) => sb(fb(v))]
}
