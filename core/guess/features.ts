// Long: what is measured of a candidate, and the row of numbers that a model weighs, in the same order.
// How plausible a picture looks when decoded through one candidate: numbers a model can weigh and a sentence can quote.
import { clamp } from '../numbers'
import { middleGrey } from '../colour'
import type { CodeRange } from '../image'
import { rereadCode, type Candidate } from './candidates'
import { fitNoise, type NoiseFit } from './noise-fit'
import { countLow } from './ceiling'
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
  /**
   * Shares of raw channel values heaped up at exactly the lowest and the highest code of the range, as clipping leaves
   * them.
   */
  readonly heapLow: number
  readonly heapHigh: number
  /** Shares of raw channel values beyond these. */
  readonly beyondLow: number
  readonly beyondHigh: number
  /** Codes from the encoding's black up to the darkest real tones, in 1023rds. */
  readonly blackGapCodes: number
  /**
   * Change of colour ratio for a change of light on what is likely one surface: dark tones, and the rest. 0 is ideal.
   */
  readonly driftDark: number
  readonly drift: number
  /**
   * How colour strength changes with light on one surface, per factor e of light: below 0 bright tones fade, above 0
   * dark ones do. 0 is right.
   */
  readonly fadeDark: number
  readonly fade: number
  /** How well a sensor's noise explains what was measured. */
  readonly noise: NoiseFit
  /** Mean distance of working-space colours from neutral, 0..1. */
  readonly saturation: number
}

const shares = [0.001, 0.01, 0.1, 0.5, 0.9, 0.99, 0.999] as const

/** Codes −0.25…1.25 in fine steps, decoded once per candidate. */
const tableLow = -0.25
const tableSteps = 6000
const perTableStep = 1.5 / tableSteps
const leastLight = 1e-6

interface CurveTable {
  readonly light: Float64Array
  /** Natural log of the light; NaN where there is none. */ readonly log: Float64Array
}
const tables = new Map<string, CurveTable>()

function tableOf({ encoding, range }: Candidate, flagged: CodeRange): CurveTable {
  const key = `${encoding.id} ${range === flagged ? 'as flagged' : range}`
  const known = tables.get(key)
  if (known) return known
  const light = Float64Array.from({ length: tableSteps + 1 }, (_, i) =>
    encoding.curve.decode(rereadCode(tableLow + i * perTableStep, flagged, range)),
  )
  const made = { light, log: light.map((x) => (x > leastLight ? Math.log(x) : NaN)) }
  tables.set(key, made)
  return made
}
const stepOf = (code: number): number => Math.min(tableSteps, Math.max(0, Math.round((code - tableLow) / perTableStep)))

export function measureFacts(candidate: Candidate, statistics: FrameStatistics, flagged: CodeRange): Facts {
  const { encode } = candidate.encoding.curve
  const table = tableOf(candidate, flagged)
  const light = (code: number): number => table.light[stepOf(code)]
  const { samples, pairs, noise, codeShares, darkestCode } = statistics
  const count = samples.length / 3
  const luminance = new Float64Array(count)
  const black = rereadCode(encode(0), candidate.range, flagged)
  const top = rereadCode(1, candidate.range, flagged)
  let under = 0
  let over = 0
  let atTop = 0
  let saturation = 0
  const m = candidate.toWorking
  for (let i = 0, p = 0; p < count; p++, i += 3) {
    const cr = samples[i]
    const cg = samples[i + 1]
    const cb = samples[i + 2]
    if (Math.min(cr, cg, cb) < black - 0.006) under++
    const mostCode = Math.max(cr, cg, cb)
    if (mostCode > top + 0.002) over++
    if (Math.abs(mostCode - top) <= 0.003) atTop++
    const r = light(cr)
    const g = light(cg)
    const b = light(cb)
    luminance[p] = 0.27 * r + 0.67 * g + 0.06 * b
    const wr = m[0] * r + m[1] * g + m[2] * b
    const wg = m[3] * r + m[4] * g + m[5] * b
    const wb = m[6] * r + m[7] * g + m[8] * b
    const most = Math.max(wr, wg, wb)
    saturation += most > 1e-4 ? Math.min(1.5, (most - Math.min(wr, wg, wb)) / most) : 0
  }
  luminance.sort()
  const at = (share: number): number => luminance[Math.min(count - 1, Math.floor(share * count))]
  const { dark, rest, fadeDark, fadeRest } = driftOf(pairs, table, at(0.25))
  const ends = endsOf(codeShares, rereadCode(0, candidate.range, flagged), top)
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
    noise: fitNoise(noise, candidate, flagged),
    ...ends,
    saturation: saturation / count,
  }
}

/**
 * What lies at the two ends of a range: more than near them means that signals were clipped there; anything beyond
 * means that they were not.
 */
function endsOf(
  shares: Float64Array,
  low: number,
  high: number,
): Pick<Facts, 'heapLow' | 'heapHigh' | 'beyondLow' | 'beyondHigh'> {
  const first = Math.round(low * 1023) - countLow
  const last = Math.round(high * 1023) - countLow
  const sum = (from: number, to: number): number =>
    shares.subarray(Math.max(0, from), Math.max(0, to + 1)).reduce((a, b) => a + b, 0)
  return {
    heapLow: Math.max(0, sum(first - 1, first + 1) - sum(first + 3, first + 8) / 2),
    heapHigh: Math.max(0, sum(last - 1, last + 1) - sum(last - 8, last - 3) / 2),
    beyondLow: sum(0, first - 3),
    beyondHigh: sum(last + 3, shares.length - 1),
  }
}

/**
 * Over the pairs: change of log colour ratios per change of log light (2 where a channel has no light), and the signed
 * change of their strength.
 */
function driftOf(
  pairs: Float64Array,
  { light, log }: CurveTable,
  darkBelow: number,
): { dark: number; rest: number; fadeDark: number; fadeRest: number } {
  const darks: number[] = []
  const rests: number[] = []
  const darkFades: number[] = []
  const restFades: number[] = []
  for (let i = 0; i < pairs.length; i += 6) {
    const g1 = stepOf(pairs[i + 1])
    const g2 = stepOf(pairs[i + 4])
    const isDark = (light[g1] + light[g2]) / 2 < darkBelow
    const list = isDark ? darks : rests
    const red1 = log[stepOf(pairs[i])] - log[g1]
    const blue1 = log[stepOf(pairs[i + 2])] - log[g1]
    const red2 = log[stepOf(pairs[i + 3])] - log[g2]
    const blue2 = log[stepOf(pairs[i + 5])] - log[g2]
    if (!Number.isFinite(red1 + blue1 + red2 + blue2)) {
      list.push(2)
      continue
    }
    const change = log[g2] - log[g1]
    list.push(Math.min(2, (Math.abs(red2 - red1) + Math.abs(blue2 - blue1)) / Math.max(Math.abs(change), 0.05)))
    const first = Math.abs(red1) + Math.abs(blue1)
    const second = Math.abs(red2) + Math.abs(blue2)
    if (first + second > 0.15 && Math.abs(change) > 0.08)
      (isDark ? darkFades : restFades).push((2 * (second - first)) / (first + second) / change)
  }
  const at = (list: number[], share: number): number =>
    list.length < 20 ? NaN : Float64Array.from(list).sort()[Math.floor(list.length * share)]
  return { dark: at(darks, 0.4), rest: at(rests, 0.4), fadeDark: at(darkFades, 0.5), fadeRest: at(restFades, 0.5) }
}

export const featureNames = [
  'underBlack',
  'overTop',
  'touch',
  'gapOver',
  'gapUnder',
  'exposure',
  'exposureSquared',
  'contrastRange',
  'contrastRangeSquared',
  'high',
  'highSquared',
  'low',
  'lowSquared',
  'driftDark',
  'drift',
  'driftSum',
  'fade',
  'fadeSquared',
  'fadeSize',
  'fadeDark',
  'fadeDarkSquared',
  'fadeDarkSize',
  'fadeMissing',
  'saturation',
  'saturationSquared',
  'isDisplay',
  'isFlat',
  'isHlg',
  'isPq',
  'isRare',
  'otherRange',
  'isLegal',
  'codesLowLegal',
  'codesHighLegal',
  'topDisplay',
  'topHdr',
  'topLog',
  'contrastRangeDisplay',
  'contrastRangeSquaredDisplay',
  'highDisplay',
  'highHdr',
  'heapLow',
  'heapHigh',
  'beyondLow',
  'beyondHigh',
  'noise',
  'noiseInTime',
  'noiseRoot',
  'noiseRootInTime',
  'noiseBest',
  'noiseBestInTime',
  'toldInTime',
  'noiseWhite',
  'noiseTimesWhite',
  'noiseRootTimesWhite',
  'grain',
  'grainSquared',
  'growth',
  'growthSquared',
] as const

const stops = (light: number): number => Math.log2(Math.max(light, 1e-5) / middleGrey)
const or = (value: number, fallback: number): number => (Number.isFinite(value) ? value : fallback)
const within = (value: number, most: number): number => clamp(or(value, 0), -most, most)
/** 0…1, by orders of magnitude: a ten-thousandth of the picture already says something. */
const weightOf = (share: number): number => Math.min(1, Math.log10(1 + Math.max(0, share) * 1e4) / 3.5)
/** What even a right curve misses by. */
const usualMisfit = 0.0015

/** The facts of all candidates as rows for the model; drift and noise count against the best among them. */
export function featureRows(
  candidates: readonly Candidate[],
  facts: readonly Facts[],
  statistics: FrameStatistics,
  flagged: CodeRange,
): readonly Float64Array[] {
  const least = (pick: (f: Facts) => number): number =>
    facts.reduce((m, f) => Math.min(m, or(pick(f), Infinity)), Infinity)
  const bestDark = least((f) => f.driftDark)
  const bestDrift = least((f) => f.drift)
  const bestNoise = least((f) => f.noise.misfit)
  const told = statistics.noiseTold === 'time' ? 1 : 0
  const noiseBest = within(Math.log(bestNoise / 0.01) / 2, 2)
  return facts.map((f, i) => {
    const { encoding, range } = candidates[i]
    const [, p1 = 0, p10 = 0, p50 = 0, p90 = 0, , p999 = 0] = f.light
    const exposure = stops(p50) / 2
    const contrastRange = (Math.min(stops(p90) - stops(p10), 12) - 4) / 2
    const high = (stops(p999) - 3) / 2
    const low = (Math.max(stops(p1) - stops(p50), -12) + 4) / 2
    const gap = f.blackGapCodes / 15
    const rare = ['film-density', 'acescc', 'acescct', 'gamma-2.6'].includes(encoding.id)
    const display = encoding.group === 'display' || encoding.group === 'flat' ? 1 : 0
    const hdr = encoding.group === 'hdr' ? 1 : 0
    const top = weightOf(f.atTop)
    const fade = within(f.fade, 1.5)
    const fadeDark = within(f.fadeDark, 1.5)
    const noise =
      (within(Math.log((f.noise.misfit + usualMisfit) / (bestNoise + usualMisfit)), 5) *
        Math.min(1, statistics.noise.length / 20)) /
      2
    const noiseRoot = Math.sqrt(Math.max(0, noise))
    const grain = within(Math.log2(f.noise.atGrey / 0.003) / 2, 3)
    const growth = within((Math.log2(f.noise.growth) - 3) / 3, 2)
    return Float64Array.of(
      weightOf(f.underBlack),
      weightOf(f.overTop),
      Math.exp(-((gap * 2) ** 2)),
      Math.min(1, Math.max(gap, 0)),
      Math.min(3, Math.max(-gap, 0)),
      exposure,
      exposure ** 2,
      contrastRange,
      contrastRange ** 2,
      high,
      high ** 2,
      low,
      low ** 2,
      Math.min(2, or(f.driftDark - bestDark, 0)),
      Math.min(2, or(f.drift - bestDrift, 0)),
      Math.min(3, or(f.driftDark - bestDark, 0) + or(f.drift - bestDrift, 0)),
      fade,
      fade ** 2,
      Math.abs(fade),
      fadeDark,
      fadeDark ** 2,
      Math.abs(fadeDark),
      Number.isFinite(f.fade) ? 0 : 1,
      f.saturation * 2,
      (f.saturation * 2) ** 2,
      encoding.group === 'display' ? 1 : 0,
      encoding.group === 'flat' ? 1 : 0,
      encoding.id === 'hlg' ? 1 : 0,
      encoding.id === 'pq' ? 1 : 0,
      rare ? 1 : 0,
      range === flagged ? 0 : 1,
      range === 'legal' ? 1 : 0,
      range === 'legal' ? weightOf(statistics.codesLow) : 0,
      range === 'legal' ? weightOf(statistics.codesHigh) : 0,
      display * top,
      hdr * top,
      (1 - display) * (1 - hdr) * top,
      display * contrastRange,
      display * contrastRange ** 2,
      display * high,
      hdr * high,
      weightOf(f.heapLow),
      weightOf(f.heapHigh),
      weightOf(f.beyondLow),
      weightOf(f.beyondHigh),
      noise,
      noise * told,
      noiseRoot,
      noiseRoot * told,
      noiseBest,
      noiseBest * told,
      told,
      statistics.noiseWhite * told,
      noise * told * statistics.noiseWhite ** 2,
      noiseRoot * told * statistics.noiseWhite ** 2,
      grain,
      grain ** 2,
      growth,
      growth ** 2,
    )
  })
}
