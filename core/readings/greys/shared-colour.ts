// The colour of light that tones of many brightnesses share: coloured things differ, greys agree.
import { workingGamut } from '../../colour'
import type { Area } from '../picture'
import type { Uv } from '../white'
import type { Blocks } from './blocks'

const toneBins = 8
const cell = 0.0015
const reachCells = 48
const side = reachCells * 2 + 1
/** Lights met in practice lie along the locus: about ±60 mired, much less across it. */
const spreadAlong = 0.022
const spreadAcross = 0.011

const white: Uv = (() => {
  const { x, y } = workingGamut.white
  const d = -2 * x + 12 * y + 3
  return { u: (4 * x) / d, v: (6 * y) / d }
})()
// The direction of the locus at the white: lights differ along it.
const along = { u: 0.84, v: 0.54 }

export interface Peak {
  readonly at: Uv
  /**
   * How strongly some other colour is shared as well, against this one (0..1), weighed alike: where one is, the colour
   * of a surface and the colour of the light cannot be told apart.
   */
  readonly rival: number
}

/** Colours nearer than this are one. */
const apart = 0.005

/** Where tones of many brightnesses share one colour, weighed by how likely such a light is. */
export function densest(s: Blocks): Peak | null {
  const counts = new Float32Array(side * side * toneBins)
  const occupied = new Uint8Array(side * side)
  const scores = new Float32Array(side * side)
  for (let i = 0; i < s.count; i++) {
    const a = Math.round((s.u[i] - white.u) / cell) + reachCells
    const b = Math.round((s.v[i] - white.v) / cell) + reachCells
    if (a < 1 || b < 1 || a >= side - 1 || b >= side - 1) continue
    occupied[b * side + a] = 1
    counts[(b * side + a) * toneBins + Math.min(toneBins - 1, Math.floor(s.luma[i] * toneBins))]++
  }
  const uvOf = (at: number): Uv => ({
    u: ((at % side) - reachCells) * cell,
    v: (Math.floor(at / side) - reachCells) * cell,
  })
  let best = -1
  for (let b = 1; b < side - 1; b++)
    for (let a = 1; a < side - 1; a++) {
      const at = b * side + a
      if (!occupied[at]) continue
      let score = 0
      for (let tone = 0; tone < toneBins; tone++) {
        let near = 0
        for (let db = -1; db <= 1; db++)
          for (let da = -1; da <= 1; da++) near += counts[(at + db * side + da) * toneBins + tone]
        score += Math.sqrt(near / s.count)
      }
      const { u, v } = uvOf(at)
      const t = u * along.u + v * along.v
      const n = u * along.v - v * along.u
      scores[at] = score * Math.exp(-0.5 * ((t / spreadAlong) ** 2 + (n / spreadAcross) ** 2))
      if (best < 0 || scores[at] > scores[best]) best = at
    }
  if (best < 0) return null
  const { u, v } = uvOf(best)
  let rival = 0
  for (let at = 0; at < scores.length; at++) {
    if (scores[at] <= rival) continue
    const other = uvOf(at)
    if (Math.hypot(other.u - u, other.v - v) > apart) rival = scores[at]
  }
  return { at: { u: white.u + u, v: white.v + v }, rival: rival / scores[best] }
}

export interface Settled {
  readonly at: Uv
  readonly share: number
  /** The share of the frame's 24 parts (6 × 4) that hold some of it, 0..1. */
  readonly frame: number
  /** Eighths of the scale of luma that hold some of it. */
  readonly tones: number
  /** Their mean luma. */
  readonly luma: number
  readonly area: Area
  /** Some of the places that count, evenly over them. */
  readonly places: readonly Area[]
}
/** So many places stand for all. */
const placesKept = 40

/** The middle of the samples around a colour, among tones between two lumas: the window closes in on it. */
export function settle(s: Blocks, start: Uv, low: number, high: number): Settled | null {
  let { u, v } = start
  let share = 0
  let tones = 0
  let left = 1
  let top = 1
  let right = 0
  let bottom = 0
  let members: number[] = []
  for (const radius of [0.008, 0.006, 0.005, 0.005, 0.005]) {
    let n = 0
    let su = 0
    let sv = 0
    const seen = new Uint32Array(toneBins)
    left = top = 1
    right = bottom = 0
    members = []
    for (let i = 0; i < s.count; i++) {
      const l = s.luma[i]
      if (l < low || l >= high) continue
      const du = s.u[i] - u
      const dv = s.v[i] - v
      if (du * du + dv * dv > radius * radius) continue
      n++
      members.push(i)
      su += du
      sv += dv
      seen[Math.min(toneBins - 1, Math.floor(l * toneBins))]++
      const x = s.x[i]
      const y = s.y[i]
      if (x < left) left = x
      if (x > right) right = x
      if (y < top) top = y
      if (y > bottom) bottom = y
    }
    share = n / s.count
    if (share < 0.002) return null
    u += su / n
    v += sv / n
    tones = seen.reduce((sum, k) => sum + (k > n * 0.02 ? 1 : 0), 0)
  }
  const frame = new Set(members.map((i) => Math.floor(s.x[i] * 6) + 6 * Math.floor(s.y[i] * 4))).size / 24
  const luma = members.reduce((sum, i) => sum + s.luma[i], 0) / members.length
  const every = Math.max(1, Math.floor(members.length / placesKept))
  const half = 0.002
  const places = members
    .filter((_, k) => k % every === 0)
    .slice(0, placesKept)
    .map((i) => ({ left: s.x[i] - half, top: s.y[i] - half, right: s.x[i] + half, bottom: s.y[i] + half }))
  return { at: { u, v }, share, frame, tones, luma, area: { left, top, right, bottom }, places }
}
