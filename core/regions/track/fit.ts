// Fitting a plane motion to points and where they went, with those that do not agree left out.
import { LuDecomposition, Matrix } from 'ml-matrix'
import { moved, motionAfter, similarity, translation, inverseMotion, type Homography } from '../homography'
import type { TrackKind } from '../tracks'
import type { Point } from './features'

export interface Pair {
  readonly from: Point
  readonly to: Point
}
export interface Fit {
  readonly motion: Homography
  /** The pairs that agree, by their index. */
  readonly inliers: readonly number[]
  /** The root of the mean squared distance of those that agree, in pixels. */
  readonly residual: number
}

/** Random choices that are tried. */
const trials: Readonly<Record<TrackKind, number>> = { position: 50, similarity: 50, affine: 100, perspective: 160 }
const needed: Readonly<Record<TrackKind, number>> = { position: 1, similarity: 2, affine: 3, perspective: 4 }

/**
 * Pairs within `tolerance` pixels agree. Sampled minimal fits (Fischler and Bolles, 1981) choose those that agree;
 * least squares does the rest. Null where too few do.
 */
export function fitMotion(kind: TrackKind, pairs: readonly Pair[], tolerance: number, seed = 1): Fit | null {
  const least = Math.max(needed[kind] + 2, 5)
  if (pairs.length < least) return null
  let best: readonly number[] = []
  let state = (seed * 2654435761) >>> 0
  const random = (): number => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
  for (let round = 0; round < trials[kind]; round++) {
    const chosen = new Set<number>()
    while (chosen.size < needed[kind]) chosen.add(Math.floor(random() * pairs.length))
    const motion = leastSquares(
      kind,
      [...chosen].map((i) => pairs[i]),
      null,
    )
    if (!motion) continue
    const agree = agreeing(pairs, motion, tolerance)
    if (agree.length > best.length) best = agree
    if (best.length > pairs.length * 0.95) break
  }
  if (best.length < least) return null
  let motion: Homography | null = null
  // Those that agree with the fit of all that agree; twice is enough.
  for (let k = 0; k < 3; k++) {
    const chosen = best.map((i) => pairs[i])
    const weights: Float64Array | null = motion ? weightsOf(chosen, motion, tolerance) : null
    motion = leastSquares(kind, chosen, weights)
    if (!motion) return null
    const agree = agreeing(pairs, motion, tolerance)
    if (agree.length < least) return null
    best = agree
  }
  if (!motion) return null
  let squares = 0
  for (const i of best) squares += distance2(pairs[i], motion)
  return { motion, inliers: best, residual: Math.sqrt(squares / best.length) }
}

const distance2 = ({ from, to }: Pair, motion: Homography): number => {
  const [x, y] = moved(motion, from.x, from.y)
  return (x - to.x) ** 2 + (y - to.y) ** 2
}
const agreeing = (pairs: readonly Pair[], motion: Homography, tolerance: number): readonly number[] =>
  pairs.flatMap((p, i) => (distance2(p, motion) < tolerance * tolerance ? [i] : []))
/** Tukey's weights: what lies far out counts little. */
const weightsOf = (pairs: readonly Pair[], motion: Homography, tolerance: number): Float64Array =>
  Float64Array.from(pairs, (p) => Math.max(0.01, 1 - distance2(p, motion) / (tolerance * tolerance)) ** 2)

function leastSquares(kind: TrackKind, pairs: readonly Pair[], weights: Float64Array | null): Homography | null {
  const weight = (i: number): number => weights?.[i] ?? 1
  let total = 0
  let fx = 0
  let fy = 0
  let tx = 0
  let ty = 0
  pairs.forEach(({ from, to }, i) => {
    const w = weight(i)
    total += w
    fx += w * from.x
    fy += w * from.y
    tx += w * to.x
    ty += w * to.y
  })
  if (total <= 0) return null
  fx /= total
  fy /= total
  tx /= total
  ty /= total
  if (kind === 'position') return translation(tx - fx, ty - fy)
  if (kind === 'similarity') {
    let dot = 0
    let cross = 0
    let long = 0
    pairs.forEach(({ from, to }, i) => {
      const w = weight(i)
      const px = from.x - fx
      const py = from.y - fy
      const qx = to.x - tx
      const qy = to.y - ty
      dot += w * (px * qx + py * qy)
      cross += w * (px * qy - py * qx)
      long += w * (px * px + py * py)
    })
    if (long < 1e-6) return null
    const a = dot / long
    const b = cross / long
    return similarity(a, b, tx - a * fx + b * fy, ty - b * fx - a * fy)
  }
  // Coordinates about the middle, of about one in size, keep the equations well conditioned (Hartley, 1997).
  const scale =
    1 /
    Math.max(
      1e-6,
      Math.sqrt(pairs.reduce((s, { from }) => s + (from.x - fx) ** 2 + (from.y - fy) ** 2, 0) / pairs.length),
    )
  const unknowns = kind === 'affine' ? 6 : 8
  const normal = new Float64Array(unknowns * unknowns)
  const right = new Float64Array(unknowns)
  const row = new Float64Array(unknowns)
  const put = (value: number, w: number): void => {
    for (let i = 0; i < unknowns; i++) {
      right[i] += w * row[i] * value
      for (let j = 0; j < unknowns; j++) normal[i * unknowns + j] += w * row[i] * row[j]
    }
  }
  pairs.forEach(({ from, to }, i) => {
    const w = weight(i)
    const x = (from.x - fx) * scale
    const y = (from.y - fy) * scale
    const u = (to.x - tx) * scale
    const v = (to.y - ty) * scale
    row.fill(0)
    row[0] = x
    row[1] = y
    row[2] = 1
    if (unknowns === 8) {
      row[6] = -u * x
      row[7] = -u * y
    }
    put(u, w)
    row.fill(0)
    row[3] = x
    row[4] = y
    row[5] = 1
    if (unknowns === 8) {
      row[6] = -v * x
      row[7] = -v * y
    }
    put(v, w)
  })
  const m = solved(normal, right)
  if (!m || !m.every(Number.isFinite)) return null
  const inside: Homography = [
    m[0],
    m[1],
    m[2],
    m[3],
    m[4],
    m[5],
    unknowns === 8 ? m[6] : 0,
    unknowns === 8 ? m[7] : 0,
    1,
  ]
  const into: Homography = [scale, 0, -fx * scale, 0, scale, -fy * scale, 0, 0, 1]
  const outOf: Homography = inverseMotion([scale, 0, -tx * scale, 0, scale, -ty * scale, 0, 0, 1])
  const whole = motionAfter(outOf, motionAfter(inside, into))
  return whole.map((n) => n / whole[8]) as unknown as Homography
}

/** Null for equations that say too little. */
function solved(matrix: Float64Array, right: Float64Array): readonly number[] | null {
  const n = right.length
  const lu = new LuDecomposition(Matrix.from1DArray(n, n, matrix))
  return lu.isSingular() ? null : lu.solve(Matrix.columnVector(right)).to1DArray()
}
