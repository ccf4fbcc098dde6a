// What a matte is worth, measured: how much it holds, specks, how hard its edges jump, and how much it chatters from
// frame to frame.
import type { Plane } from '../image'

export interface MatteFacts {
  /** Share of the picture it holds (0..1). */
  readonly coverage: number
  /** Islands and holes smaller than the smallest thing that is seen as one. */
  readonly specks: number
  /** Share of the edge's pixels (0..1) whose matte jumps by more than `hardJump` to a neighbour. */
  readonly hardEdge: number
  /** Share of the edge's pixels (0..1) that fall on the other side in the next frame; null where that is not known. */
  readonly chatter: number | null
}

export const hardJump = 0.6
/** An edge as hard as this over more of its length than that tears: it flickers and shows its pixels. */
export const tornShare = 0.05
/** Pixels whose matte differs from a neighbour's by more than this lie on an edge. */
const edgeStep = 0.04
/** A speck is smaller than this share of the frame's area. */
const speckArea = 1.2e-4

export function judgeMatte(matte: Plane, next: Plane | null = null): MatteFacts {
  const { width, height, values } = matte
  let sum = 0
  let edge = 0
  let hard = 0
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x
      const v = values[i]
      const right = x + 1 < width ? Math.abs(v - values[i + 1]) : 0
      const below = y + 1 < height ? Math.abs(v - values[i + width]) : 0
      const jump = Math.max(right, below)
      sum += v
      if (jump > edgeStep) edge++
      if (jump > hardJump) hard++
    }
  return {
    coverage: sum / values.length,
    specks: specksOf(matte),
    hardEdge: edge === 0 ? 0 : hard / edge,
    chatter: next && chatterOf(matte, next),
  }
}

/**
 * Of the pixels on the edge of either matte (where it crosses a half), the share that is inside in one and outside in
 * the other.
 */
export function chatterOf({ width, height, values }: Plane, next: Plane): number {
  let edge = 0
  let flipped = 0
  const crosses = (of: Float32Array, i: number, x: number, y: number): boolean => {
    const inside = of[i] > 0.5
    return (
      (x + 1 < width && of[i + 1] > 0.5 !== inside) ||
      (y + 1 < height && of[i + width] > 0.5 !== inside) ||
      (x > 0 && of[i - 1] > 0.5 !== inside) ||
      (y > 0 && of[i - width] > 0.5 !== inside)
    )
  }
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x
      if (!crosses(values, i, x, y) && !crosses(next.values, i, x, y)) continue
      edge++
      // A pixel that hardly moves about a half is not seen to flip.
      if (values[i] > 0.5 !== next.values[i] > 0.5 && Math.abs(values[i] - next.values[i]) > 0.25) flipped++
    }
  return edge === 0 ? 0 : flipped / edge
}

/** Connected areas of either side that are too small to be meant. */
function specksOf({ width, height, values }: Plane): number {
  const most = Math.max(2, speckArea * width * height)
  const seen = new Uint8Array(values.length)
  const stack = new Int32Array(values.length)
  let specks = 0
  for (let start = 0; start < values.length; start++) {
    if (seen[start]) continue
    const inside = values[start] > 0.5
    let top = 0
    let area = 0
    stack[top++] = start
    seen[start] = 1
    while (top > 0) {
      const i = stack[--top]
      const x = i % width
      area++
      const reach = (j: number): void => {
        if (!seen[j] && values[j] > 0.5 === inside) {
          seen[j] = 1
          stack[top++] = j
        }
      }
      if (x > 0) reach(i - 1)
      if (x + 1 < width) reach(i + 1)
      if (i >= width) reach(i - width)
      if (i + width < values.length) reach(i + width)
    }
    if (area < most) specks++
  }
  return specks
}

/** The mean difference of two mattes over their mean: how far one moved against the other, 0..1. */
export function matteMoved(before: Float32Array, after: Float32Array): number {
  let different = 0
  let area = 0
  for (let i = 0; i < before.length; i++) {
    different += Math.abs(before[i] - after[i])
    area += Math.max(before[i], after[i])
  }
  return area === 0 ? 0 : different / area
}

/** Intersection over union of two mattes, each cut at a half. */
export function overlapOf(a: Float32Array, b: Float32Array): number {
  let both = 0
  let either = 0
  for (let i = 0; i < a.length; i++) {
    const p = a[i] > 0.5
    const q = b[i] > 0.5
    if (p && q) both++
    if (p || q) either++
  }
  return either === 0 ? 1 : both / either
}
