// Fitting a key's ranges to what was picked in the picture: groups of colours that lie together, and what was taken
// away from them.
import {
  chromaOf,
  hueOf,
  keyBounds,
  type HueRange,
  type KeyPlanes,
  type KeyRanges,
  type KeySample,
  type SoftRange,
} from './key'

type Lab = readonly [number, number, number]

const round = (v: number, by = 1e4): number => Math.round(v * by) / by

/** Some colours of a picked part (shares of the picture), spread evenly over it; outliers stay out. */
export function sampleOf(
  planes: KeyPlanes,
  mode: KeySample['mode'],
  area: { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number },
): KeySample {
  const { width, height } = planes
  const span = (a: number, b: number, n: number): readonly [number, number] => {
    const from = Math.min(n - 1, Math.max(0, Math.floor(Math.min(a, b) * n)))
    return [from, Math.min(n, Math.max(from + 1, Math.ceil(Math.max(a, b) * n)))]
  }
  let [x0, x1] = span(area.left, area.right, width)
  let [y0, y1] = span(area.top, area.bottom, height)
  // A click stands for the few pixels about it.
  const about = Math.max(1, Math.round(height / 180))
  if (x1 - x0 < 2 * about) {
    x0 = Math.max(0, x0 - about)
    x1 = Math.min(width, x1 + about)
  }
  if (y1 - y0 < 2 * about) {
    y0 = Math.max(0, y0 - about)
    y1 = Math.min(height, y1 + about)
  }
  // Each colour is the mean of a few pixels: a pick asks for the thing, not for the noise on it.
  const cell = Math.max(1, Math.round(height / 135))
  const found: Lab[] = []
  for (let y = y0; y < y1; y += cell)
    for (let x = x0; x < x1; x += cell) found.push(meanAt(planes, x, y, Math.min(x1, x + cell), Math.min(y1, y + cell)))
  const middle = [0, 1, 2].map((c) => {
    const sorted = found.map((f) => f[c]).sort((p, q) => p - q)
    return sorted[sorted.length >> 1] ?? 0
  })
  const near = found
    .map((f) => ({ f, away: Math.hypot((f[0] - middle[0]) * 0.5, f[1] - middle[1], f[2] - middle[2]) }))
    .sort((p, q) => p.away - q.away)
    .map(({ f }) => f)
  const kept = near.slice(0, Math.max(1, Math.ceil(near.length * 0.92)))
  const step = Math.max(1, kept.length / keyBounds.colours)
  return {
    mode,
    colours: Array.from(
      { length: Math.min(kept.length, keyBounds.colours) },
      (_, i) => kept[Math.min(kept.length - 1, Math.floor((i + 1) * step - 1))].map((v) => round(v)) as unknown as Lab,
    ),
  }
}

function meanAt({ width, l, a, b }: KeyPlanes, x0: number, y0: number, x1: number, y1: number): Lab {
  let sl = 0
  let sa = 0
  let sb = 0
  for (let y = y0; y < y1; y++)
    for (let p = y * width + x0; p < y * width + x1; p++) {
      sl += l[p]
      sa += a[p]
      sb += b[p]
    }
  const n = (x1 - x0) * (y1 - y0)
  return [sl / n, sa / n, sb / n]
}

/**
 * Two samples lie together when their middles are this near: in hue and chroma, and (a third as strict) in lightness.
 */
const together = 0.055

/** The groups of colours that the samples say; nothing where nothing was added. */
export function fitKey(samples: readonly KeySample[]): readonly KeyRanges[] {
  const clusters: Lab[][] = []
  for (const { mode, colours } of samples) {
    if (mode !== 'add' || colours.length === 0) continue
    const at = meanOf(colours)
    const nearest = clusters.map((c) => ({ c, d: distance(meanOf(c), at) })).sort((p, q) => p.d - q.d)[0]
    if (nearest && (nearest.d < together || clusters.length >= keyBounds.groups)) nearest.c.push(...colours)
    else clusters.push([...colours])
  }
  const away = samples.filter((s) => s.mode === 'remove').map(({ colours }) => colours)
  return clusters.map((c) => away.reduce(withoutColours, rangesOf(c)))
}

const meanOf = (colours: readonly Lab[]): Lab =>
  [0, 1, 2].map((c) => colours.reduce((sum, v) => sum + v[c], 0) / colours.length) as unknown as Lab
const distance = (a: Lab, b: Lab): number => Math.hypot((a[0] - b[0]) / 3, a[1] - b[1], a[2] - b[2])

/** Hues of colours nearer to grey than this say nothing. */
const greyish = 0.035

/**
 * Ranges about some colours. Light and shade change lightness most, hue least: their margins follow that, and how far
 * the picked colours lie apart themselves.
 */
function rangesOf(colours: readonly Lab[]): KeyRanges {
  const chromas = colours.map(([l, a, b]) => chromaOf(l, a, b))
  const [ml, ma, mb] = meanOf(colours)
  const mean = chromaOf(ml, ma, mb)
  const l = ends(colours.map((c) => c[0]))
  const lightness: SoftRange = {
    low: round(Math.max(-0.2, l.low * 0.62)),
    high: round(Math.min(3, l.high * 1.3 + 0.05)),
    softLow: round(0.05 + l.low * 0.15),
    softHigh: round(0.08 + l.high * 0.1),
  }
  const c = ends(chromas)
  const more = 0.006 + (c.high - c.low) * 0.12
  const chroma: SoftRange = {
    low: round(Math.max(0, c.low * 0.92 - more)),
    high: round(Math.min(1, c.high * 1.06 + more)),
    softLow: round(0.008 + c.low * 0.08),
    softHigh: round(0.01 + c.high * 0.1),
  }
  if (mean < greyish) return { hue: null, chroma: { ...chroma, low: 0, softLow: 0 }, lightness }
  const centre = hueOf(ma, mb)
  const offs = colours.map((o) => Math.abs(((hueOf(o[1], o[2]) - centre + 540) % 360) - 180)).sort((p, q) => p - q)
  // The nearer to grey, the further noise and reflections turn a hue.
  const half = Math.min(90, (offs[Math.floor(offs.length * 0.95)] ?? 0) + 2 + 0.25 / mean)
  const hue: HueRange = {
    centre: round(centre, 10),
    half: round(half, 10),
    soft: round(Math.min(60, 4 + half * 0.25), 10),
  }
  return { hue, chroma, lightness }
}

/** The third and the ninety-seventh of a hundred. */
function ends(values: readonly number[]): { readonly low: number; readonly high: number } {
  const sorted = [...values].sort((a, b) => a - b)
  return { low: sorted[Math.floor(sorted.length * 0.03)] ?? 0, high: sorted[Math.ceil(sorted.length * 0.97) - 1] ?? 0 }
}

/**
 * Draws in the range that parts the colours from the group with the least loss; colours that lie outside already change
 * nothing.
 */
function withoutColours(ranges: KeyRanges, colours: readonly Lab[]): KeyRanges {
  const [l, a, b] = meanOf(colours)
  const c = chromaOf(l, a, b)
  const h = hueOf(a, b)
  const cuts: { readonly loss: number; readonly make: () => KeyRanges }[] = []
  const cutRange = (range: SoftRange | null, v: number, spread: number, set: (r: SoftRange) => KeyRanges): void => {
    if (!range || v < range.low - range.softLow || v > range.high + range.softHigh) return
    const width = Math.max(1e-6, range.high - range.low + range.softLow + range.softHigh)
    // The nearer end comes in until the colours are outside with their spread.
    const fromHigh = v > (range.low + range.high) / 2
    const edge = fromHigh ? v - spread : v + spread
    const soft = Math.min(fromHigh ? range.softHigh : range.softLow, spread + 0.02)
    const next = fromHigh
      ? { ...range, high: round(Math.max(range.low, edge - soft)), softHigh: round(soft) }
      : { ...range, low: round(Math.min(range.high, edge + soft)), softLow: round(soft) }
    cuts.push({
      loss:
        (fromHigh
          ? range.high + range.softHigh - next.high - next.softHigh
          : next.low - next.softLow - range.low + range.softLow) / width,
      make: () => set(next),
    })
  }
  const spreadOf = (values: readonly number[]): number => {
    const m = values.reduce((s, v) => s + v, 0) / values.length
    return Math.sqrt(values.reduce((s, v) => s + (v - m) ** 2, 0) / values.length)
  }
  cutRange(ranges.lightness, l, spreadOf(colours.map((v) => v[0])), (lightness) => ({ ...ranges, lightness }))
  cutRange(ranges.chroma, c, spreadOf(colours.map((v) => chromaOf(...v))), (chroma) => ({ ...ranges, chroma }))
  const { hue } = ranges
  if (hue) {
    const off = Math.abs(((h - hue.centre + 540) % 360) - 180)
    const whole = hue.half + hue.soft
    if (off < whole && off > 1) {
      const soft = Math.min(hue.soft, off * 0.4)
      const half = Math.max(0, off - soft - 1)
      cuts.push({
        loss: (whole - half - soft) / whole,
        make: () => ({ ...ranges, hue: { ...hue, half: round(half, 10), soft: round(soft, 10) } }),
      })
    }
  }
  // Outside in one range is outside.
  const inside =
    (!ranges.lightness || within(ranges.lightness, l)) &&
    (!ranges.chroma || within(ranges.chroma, c)) &&
    (!hue || Math.abs(((h - hue.centre + 540) % 360) - 180) < hue.half + hue.soft)
  const least = inside ? [...cuts].sort((p, q) => p.loss - q.loss)[0] : undefined
  return least ? least.make() : ranges
}
const within = ({ low, high, softLow, softHigh }: SoftRange, v: number): boolean =>
  v > low - softLow && v < high + softHigh
