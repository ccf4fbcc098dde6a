// Casts: the greys of a picture are found as the colour of light that tones of every brightness share, and measured by
// tone.
import { rgbToXyz, workingGamut } from '../colour'
import { workingLightOf, type Area, type MeasuredPicture } from './picture'
import type { Finding } from './reading'
import { castOf, castWords, type Cast, type Uv } from './white'

export interface ToneCast extends Cast {
  readonly share: number
}
export interface Casts {
  /** Of all greys that were found; null where none are. */
  readonly all:
    (ToneCast & { readonly confidence: number; readonly area: Area; readonly places: readonly Area[] }) | null
  readonly blacks: ToneCast | null
  readonly mids: ToneCast | null
  readonly whites: ToneCast | null
}

/** Tones by luma: what the eye calls dark, middle and bright. */
const darkBelow = 0.25
const brightOver = 0.62
/** Tones near the ends say nothing of colour: noise and clipping. */
const leastLuma = 0.04
const mostLuma = 0.99
const toneBins = 8
const cell = 0.0015
const reachCells = 48
const side = reachCells * 2 + 1
/** Lights met in practice lie along the locus: about ±60 mired, much less across it. */
const spreadAlong = 0.022
const spreadAcross = 0.011

interface Samples {
  readonly count: number
  readonly u: Float32Array
  readonly v: Float32Array
  readonly luma: Float32Array
  readonly x: Float32Array
  readonly y: Float32Array
}

/** Means over blocks of pixels, so that noise does not decide; clipped blocks are left out. */
function sample({ shown, display, luma: w }: MeasuredPicture): Samples {
  const { width, height, data } = shown
  const block = Math.max(1, Math.round(Math.sqrt((width * height) / 45_000)))
  const across = Math.floor(width / block)
  const down = Math.floor(height / block)
  const most = across * down
  const u = new Float32Array(most)
  const v = new Float32Array(most)
  const luma = new Float32Array(most)
  const px = new Float32Array(most)
  const py = new Float32Array(most)
  const light = workingLightOf(display)
  const [m0, m1, m2, m3, m4, m5, m6, m7, m8] = rgbToXyz(workingGamut)
  const per = 1 / (block * block * 65535)
  let count = 0
  for (let by = 0; by < down; by++)
    for (let bx = 0; bx < across; bx++) {
      let r = 0
      let g = 0
      let b = 0
      let top = 0
      for (let y = by * block; y < (by + 1) * block; y++)
        for (let i = (y * width + bx * block) * 3, end = i + block * 3; i < end; i += 3) {
          const cr = data[i]
          const cg = data[i + 1]
          const cb = data[i + 2]
          r += cr
          g += cg
          b += cb
          top = Math.max(top, cr, cg, cb)
        }
      r *= per
      g *= per
      b *= per
      const l = w.red * r + w.green * g + w.blue * b
      if (top >= 65300 || l < leastLuma || l > mostLuma) continue
      const [lr, lg, lb] = light(r, g, b)
      const X = m0 * lr + m1 * lg + m2 * lb
      const Y = m3 * lr + m4 * lg + m5 * lb
      const Z = m6 * lr + m7 * lg + m8 * lb
      const d = X + 15 * Y + 3 * Z
      if (d <= 1e-9) continue
      u[count] = (4 * X) / d
      v[count] = (6 * Y) / d
      luma[count] = l
      px[count] = (bx + 0.5) / across
      py[count] = (by + 0.5) / down
      count++
    }
  return { count, u, v, luma, x: px, y: py }
}

const white: Uv = (() => {
  const { x, y } = workingGamut.white
  const d = -2 * x + 12 * y + 3
  return { u: (4 * x) / d, v: (6 * y) / d }
})()
// The direction of the locus at the white: lights differ along it.
const along = { u: 0.84, v: 0.54 }

/** Finds the greys of the picture as it is shown and says how far they are from neutral, by tone. */
export function measureCasts(picture: MeasuredPicture): Casts {
  const s = sample(picture)
  const none: Casts = { all: null, blacks: null, mids: null, whites: null }
  if (s.count < 200) return none
  const peak = densest(s)
  if (!peak) return none
  const all = settle(s, peak.at, 0, 1)
  if (!all) return none
  const tone = (low: number, high: number): ToneCast | null => {
    const found = settle(s, all.at, low, high)
    return found && { ...castOf(found.at, workingGamut), share: found.share }
  }
  const cast = castOf(all.at, workingGamut)
  const confidence =
    Math.min(1, all.share / 0.06) *
    Math.min(1, all.tones / 3) *
    Math.exp(-((cast.distance / 60) ** 2)) *
    (1 - peak.rival) ** 2
  return {
    all: { ...cast, share: all.share, confidence, area: all.area, places: all.places },
    blacks: tone(0, darkBelow),
    mids: tone(darkBelow, brightOver),
    whites: tone(brightOver, 1),
  }
}

interface Peak {
  readonly at: Uv
  /**
   * How strongly some other colour, nearer to neutral, is shared as well, against this one (0..1): where there is one,
   * a surface of that colour under a cast and a coloured surface in neutral light cannot be told apart.
   */
  readonly rival: number
}

/** Colours nearer than this are one. */
const apart = 0.0045

/** Where tones of many brightnesses share one colour, weighed by how likely such a light is. */
function densest(s: Samples): Peak | null {
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
  const reach = Math.hypot(u, v) - apart
  let rival = 0
  for (let at = 0; at < scores.length; at++) {
    if (scores[at] <= rival) continue
    const other = uvOf(at)
    if (Math.hypot(other.u, other.v) < reach && Math.hypot(other.u - u, other.v - v) > apart) rival = scores[at]
  }
  return { at: { u: white.u + u, v: white.v + v }, rival: rival / scores[best] }
}

interface Settled {
  readonly at: Uv
  readonly share: number
  readonly tones: number
  readonly area: Area
  /** Some of the places that count, evenly over them. */ readonly places: readonly Area[]
}
/** So many places stand for all. */
const placesKept = 40

/** The middle of the samples around a colour, among tones between two lumas: the window closes in on it. */
function settle(s: Samples, start: Uv, low: number, high: number): Settled | null {
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
  const every = Math.max(1, Math.floor(members.length / placesKept))
  const half = 0.002
  const places = members
    .filter((_, k) => k % every === 0)
    .slice(0, placesKept)
    .map((i) => ({ left: s.x[i] - half, top: s.y[i] - half, right: s.x[i] + half, bottom: s.y[i] + half }))
  return { at: { u, v }, share, tones, area: { left, top, right, bottom }, places }
}

export function castFindings(picture: MeasuredPicture): readonly Finding[] {
  const { all, blacks, mids, whites } = measureCasts(picture)
  if (!all) return []
  const byTone = (
    [
      ['castBlacks', blacks],
      ['castMids', mids],
      ['castWhites', whites],
    ] as const
  ).flatMap(([id, cast]): Finding[] =>
    cast
      ? [
          {
            id,
            value: cast.distance,
            confidence: all.confidence * Math.min(1, cast.share / 0.01),
            detail: sentence(castWords(cast)),
            cast,
          },
        ]
      : [],
  )
  return [
    {
      id: 'neutrals',
      value: all.distance,
      confidence: all.confidence,
      detail: `${(all.share * 100).toFixed(0)} % of the picture is near grey: ${castWords(all)}.`,
      area: all.area,
      places: all.places,
      cast: all,
    },
    ...byTone,
  ]
}
const sentence = (words: string): string => `${words[0]?.toUpperCase() ?? ''}${words.slice(1)}.`
