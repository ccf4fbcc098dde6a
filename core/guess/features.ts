// How plausible a picture looks when decoded through one candidate: numbers a model can weigh and a sentence can quote.
import { middleGrey } from '../colour'
import type { CodeRange } from '../image'
import { rereadCode, type Candidate } from './candidates'
import type { FrameStatistics } from './statistics'

export interface Facts {
  /** Scene light at shares of the samples, linear: 0.1, 1, 10, 50, 90, 99 and 99.9 %. */
  readonly light: readonly number[]
  /** Share of samples with a channel clearly under the encoding's black. */
  readonly underBlack: number
  /** Share of samples over what the encoding's highest code stands for. */
  readonly overTop: number
  /** Share of samples with a channel at the very top of the encoding's codes. */
  readonly atTop: number
  /** Codes from the encoding's black up to the darkest real tones, in 1023rds. */
  readonly blackGapCodes: number
  /** Change of colour ratio for a change of light on what is likely one surface: dark tones, and the rest. 0 is ideal. */
  readonly driftDark: number
  readonly drift: number
  /** How colour strength changes with light on one surface, per factor e of light: below 0 bright tones fade, above 0 dark ones do. 0 is right. */
  readonly fadeDark: number
  readonly fade: number
  /** Deviation of measured noise from what a sensor gives (a constant and a part that grows with light), natural log of variance. */
  readonly noiseMisfit: number
  /** Mean distance of working-space colours from neutral, 0..1. */
  readonly saturation: number
}

const shares = [0.001, 0.01, 0.1, 0.5, 0.9, 0.99, 0.999] as const

/** Codes −0.25…1.25 in fine steps, decoded once per candidate. */
const tableLow = -0.25
const tableSteps = 6000
const perTableStep = 1.5 / tableSteps

export function measureFacts(candidate: Candidate, statistics: FrameStatistics, flagged: CodeRange): Facts {
  const { decode, encode } = candidate.encoding.curve
  const table = Float64Array.from({ length: tableSteps + 1 }, (_, i) => decode(rereadCode(tableLow + i * perTableStep, flagged, candidate.range)))
  const light = (code: number): number => table[Math.min(tableSteps, Math.max(0, Math.round((code - tableLow) / perTableStep)))]!
  const { samples, pairs, noise } = statistics
  const count = samples.length / 3
  const luminance = new Float64Array(count)
  const black = rereadCode(encode(0), candidate.range, flagged), top = rereadCode(1, candidate.range, flagged)
  let under = 0, over = 0, atTop = 0, saturation = 0
  const m = candidate.toWorking
  for (let i = 0, p = 0; p < count; p++, i += 3) {
    const cr = samples[i]!, cg = samples[i + 1]!, cb = samples[i + 2]!
    if (Math.min(cr, cg, cb) < black - 0.006) under++
    const mostCode = Math.max(cr, cg, cb)
    if (mostCode > top + 0.002) over++
    if (Math.abs(mostCode - top) <= 0.003) atTop++
    const r = light(cr), g = light(cg), b = light(cb)
    luminance[p] = 0.27 * r + 0.67 * g + 0.06 * b
    const wr = m[0] * r + m[1] * g + m[2] * b, wg = m[3] * r + m[4] * g + m[5] * b, wb = m[6] * r + m[7] * g + m[8] * b
    const most = Math.max(wr, wg, wb)
    saturation += most > 1e-4 ? Math.min(1.5, (most - Math.min(wr, wg, wb)) / most) : 0
  }
  luminance.sort()
  const at = (share: number): number => luminance[Math.min(count - 1, Math.floor(share * count))]!
  const { dark, rest, fadeDark, fadeRest } = driftOf(pairs, light, at(0.25))
  const darkestCode = quantileOfMin(samples, 0.002)
  return {
    light: shares.map(at),
    underBlack: under / count,
    overTop: over / count,
    atTop: atTop / count,
    blackGapCodes: (darkestCode - black) * 1023,
    driftDark: dark,
    drift: rest,
    fadeDark,
    fade: fadeRest,
    noiseMisfit: noiseMisfit(noise, candidate, flagged),
    saturation: saturation / count,
  }
}

function quantileOfMin(samples: Float64Array, share: number): number {
  const least = Float64Array.from({ length: samples.length / 3 }, (_, p) => Math.min(samples[p * 3]!, samples[p * 3 + 1]!, samples[p * 3 + 2]!)).sort()
  return least[Math.floor(share * least.length)] ?? 0
}

/** Over the pairs: change of log colour ratios per change of log light (2 where a channel has no light), and the signed change of their strength. */
function driftOf(pairs: Float64Array, light: (code: number) => number, darkBelow: number): { dark: number; rest: number; fadeDark: number; fadeRest: number } {
  const darks: number[] = [], rests: number[] = [], darkFades: number[] = [], restFades: number[] = []
  for (let i = 0; i < pairs.length; i += 6) {
    const r1 = light(pairs[i]!), g1 = light(pairs[i + 1]!), b1 = light(pairs[i + 2]!), r2 = light(pairs[i + 3]!), g2 = light(pairs[i + 4]!), b2 = light(pairs[i + 5]!)
    const isDark = (g1 + g2) / 2 < darkBelow
    const list = isDark ? darks : rests
    if (Math.min(r1, g1, b1, r2, g2, b2) <= 1e-6) {
      list.push(2)
      continue
    }
    const change = Math.log(g2 / g1)
    const red1 = Math.log(r1 / g1), blue1 = Math.log(b1 / g1), red2 = Math.log(r2 / g2), blue2 = Math.log(b2 / g2)
    list.push(Math.min(2, (Math.abs(red2 - red1) + Math.abs(blue2 - blue1)) / Math.max(Math.abs(change), 0.05)))
    const first = Math.abs(red1) + Math.abs(blue1), second = Math.abs(red2) + Math.abs(blue2)
    if (first + second > 0.15 && Math.abs(change) > 0.08) (isDark ? darkFades : restFades).push((2 * (second - first)) / (first + second) / change)
  }
  const middle = (list: number[]): number => (list.length < 20 ? NaN : list.sort((a, b) => a - b)[Math.floor(list.length * 0.4)]!)
  const median = (list: number[]): number => (list.length < 20 ? NaN : list.sort((a, b) => a - b)[list.length >> 1]!)
  return { dark: middle(darks), rest: middle(rests), fadeDark: median(darkFades), fadeRest: median(restFades) }
}

/** How well variance = slope²·scale·(1 + ratio·light) explains the bands: the 66th percentile of deviations; NaN with too few bands. */
function noiseMisfit(noise: FrameStatistics['noise'], { encoding, range }: Candidate, flagged: CodeRange): number {
  if (noise.length < 6) return NaN
  const { decode, encode } = encoding.curve
  const gain = rereadCode(1, range, flagged) - rereadCode(0, range, flagged)
  const points = noise.map(({ code, deviation }) => {
    const x = decode(rereadCode(code, flagged, range)), h = Math.max(1e-4, Math.abs(x) * 0.01)
    const slope = ((encode(x + h) - encode(x - h)) / (2 * h)) * gain
    // What rounding to 10 bits alone leaves is no noise of the sensor.
    const variance = Math.max(deviation ** 2 - 1 / 12 / 1023 ** 2, deviation ** 2 * 0.2)
    return { x: Math.max(x, 0), y: Math.log(variance) - 2 * Math.log(Math.max(slope, 1e-6)) }
  })
  let best = Infinity
  for (let power = -2; power <= 14; power++) {
    const ratio = power === -2 ? 0 : 2 ** power
    const left = points.map(({ x, y }) => y - Math.log(1 + ratio * x)).sort((a, b) => a - b)
    // The middle two thirds: texture and noise reduction spoil some bands, and those must not decide.
    const middle = left[left.length >> 1]!
    const off = left.map((d) => Math.abs(d - middle)).sort((a, b) => a - b)
    best = Math.min(best, off[Math.floor(off.length * 0.66)]!)
  }
  return best
}

export const featureNames = [
  'underBlack', 'overTop', 'touch', 'gapOver', 'gapUnder', 'exposure', 'exposureSquared', 'spread', 'spreadSquared', 'high', 'highSquared', 'low', 'lowSquared',
  'driftDark', 'drift', 'noise', 'noiseSquared', 'saturation', 'saturationSquared', 'isDisplay', 'isFlat', 'isHlg', 'isPq', 'isRare', 'otherRange', 'codesLowLegal', 'codesHighLegal',
  'topDisplay', 'topHdr', 'topLog', 'spreadDisplay', 'spreadSquaredDisplay', 'highDisplay', 'highHdr', 'driftSum',
  'fade', 'fadeSquared', 'fadeSize', 'fadeDark', 'fadeDarkSquared', 'fadeDarkSize', 'fadeMissing',
] as const

const stops = (light: number): number => Math.log2(Math.max(light, 1e-5) / middleGrey)
const or = (value: number, fallback: number): number => (Number.isFinite(value) ? value : fallback)

/** The facts of all candidates as rows for the model; drift and noise count against the best among them. */
export function featureRows(candidates: readonly Candidate[], facts: readonly Facts[], statistics: FrameStatistics, flagged: CodeRange): readonly Float64Array[] {
  const least = (pick: (f: Facts) => number): number => facts.reduce((m, f) => Math.min(m, or(pick(f), Infinity)), Infinity)
  const bestDark = least((f) => f.driftDark), bestDrift = least((f) => f.drift), bestNoise = least((f) => f.noiseMisfit)
  return facts.map((f, i) => {
    const { encoding, range } = candidates[i]!
    const [, p1 = 0, p10 = 0, p50 = 0, p90 = 0, , p999 = 0] = f.light
    const exposure = stops(p50) + 0.7, spread = (Math.min(stops(p90) - stops(p10), 12) - 4) / 2, high = (stops(p999) - 3) / 2, low = (Math.max(stops(p1) - stops(p50), -12) + 4) / 2
    const gap = f.blackGapCodes / 15, rare = ['film-density', 'acescc', 'acescct', 'gamma-2.6'].includes(encoding.id)
    const display = encoding.group === 'display' || encoding.group === 'flat' ? 1 : 0, hdr = encoding.group === 'hdr' ? 1 : 0, top = Math.min(1, f.atTop * 20)
    const held = (v: number): number => Math.min(1.5, Math.max(-1.5, or(v, 0))), fade = held(f.fade), fadeDark = held(f.fadeDark)
    const noise = Math.min(3, or(f.noiseMisfit - bestNoise, 0))
    return Float64Array.of(
      Math.min(1, f.underBlack * 20), Math.min(1, f.overTop * 20), Math.exp(-((gap * 2) ** 2)), Math.min(1, Math.max(gap, 0)), Math.min(3, Math.max(-gap, 0)),
      exposure / 2, (exposure / 2) ** 2, spread, spread ** 2, high, high ** 2, low, low ** 2,
      Math.min(2, or(f.driftDark - bestDark, 0)), Math.min(2, or(f.drift - bestDrift, 0)), noise, noise ** 2,
      f.saturation * 2, (f.saturation * 2) ** 2,
      encoding.group === 'display' ? 1 : 0, encoding.group === 'flat' ? 1 : 0, encoding.id === 'hlg' ? 1 : 0, encoding.id === 'pq' ? 1 : 0, rare ? 1 : 0,
      range === flagged ? 0 : 1, range === 'legal' ? Math.min(1, statistics.codesLow * 50) : 0, range === 'legal' ? Math.min(1, statistics.codesHigh * 50) : 0,
      display * top, hdr * top, (1 - display) * (1 - hdr) * top, display * spread, display * spread ** 2, display * high, hdr * high, Math.min(3, or(f.driftDark - bestDark, 0) + or(f.drift - bestDrift, 0)),
      fade, fade ** 2, Math.abs(fade), fadeDark, fadeDark ** 2, Math.abs(fadeDark), Number.isFinite(f.fade) ? 0 : 1,
    )
  })
}
