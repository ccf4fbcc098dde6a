// Coarse steps: where one code of the file becomes more than two codes of an 8-bit display, a soft gradient shows
// stripes.
import { applyLink, finishSignal } from '../grade'
import { printValue } from './kinds'
import type { MeasuredPicture } from './picture'
import type { Finding } from './reading'

/** One code of the file and the step it makes on the display, in codes of 8 bits. */
export interface CodeStep {
  readonly code: number
  readonly signal: number
  readonly shown: number
  readonly displayCodes: number
}

/** More display codes than this per source code are at risk. */
export const riskyStep = 2

/** Every neutral code of the file through the whole-picture part of the grade, and the step to the next one. */
export function codeSteps({
  chain,
  sourceBits,
  grade,
}: Pick<MeasuredPicture, 'chain' | 'sourceBits' | 'grade'>): readonly CodeStep[] {
  const bits = Math.min(12, sourceBits)
  const legal = grade.read.range === 'legal'
  const unit = 2 ** (bits - 8)
  const first = legal ? 16 * unit : 0
  const last = legal ? 235 * unit : 2 ** bits - 1
  const signals = Float64Array.from({ length: last - first + 1 }, (_, i) => i / (last - first))
  const pixels = new Float64Array(signals.length * 3)
  signals.forEach((s, i) => pixels.fill(chain.decode(s), i * 3, i * 3 + 3))
  for (const link of chain.links) if (!link.region) applyLink(link, pixels)
  finishSignal(chain, pixels)
  return Array.from({ length: signals.length - 1 }, (_, i) => {
    let most = 0
    for (let c = 0; c < 3; c++) most = Math.max(most, Math.abs(pixels[(i + 1) * 3 + c] - pixels[i * 3 + c]))
    return { code: first + i, signal: signals[i], shown: pixels[i * 3 + 1], displayCodes: most * 255 }
  })
}

export interface Banding {
  /** Share of pixels (0..1) whose tones are at risk. */
  readonly share: number
  readonly steepest: number
  /** Display levels of the tones at risk; null without any. */
  readonly tones: readonly [number, number] | null
}

type BandingPicture = Pick<MeasuredPicture, 'chain' | 'sourceBits' | 'grade' | 'source'>

/** One byte per pixel: one where its tone is at risk. */
export function coarsePixels(picture: BandingPicture, steps = codeSteps(picture)): Uint8Array {
  const {
    source: { data, low, high },
  } = picture
  const marks = new Uint8Array(data.length / 3)
  if (picture.sourceBits > 16 || steps.length === 0) return marks
  const risky = Uint8Array.from(steps, (s) => (s.displayCodes > riskyStep ? 1 : 0))
  const perStep = steps.length
  const scale = ((high - low) / 65535) * perStep
  const offset = low * perStep
  for (let p = 0; p < marks.length; p++) marks[p] = risky[Math.round(data[p * 3 + 1] * scale + offset)] ?? 0
  return marks
}

export function measureBanding(picture: BandingPicture): Banding {
  const steps = picture.sourceBits > 16 ? [] : codeSteps(picture)
  const shown = steps.filter((s) => s.displayCodes > riskyStep).map((s) => s.shown)
  const steepest = steps.reduce((most, s) => Math.max(most, s.displayCodes), 0)
  if (shown.length === 0) return { share: 0, steepest, tones: null }
  const marks = coarsePixels(picture, steps)
  return {
    share: marks.reduce((sum, m) => sum + m, 0) / marks.length,
    steepest,
    tones: [Math.min(...shown), Math.max(...shown)],
  }
}

export function bandingFindings(picture: MeasuredPicture): readonly Finding[] {
  const { share, steepest, tones } = measureBanding(picture)
  const detail = tones
    ? `Tones of ${printValue(tones[0], 'percent')} to ${printValue(tones[1], 'percent')} % are at risk: ` +
      `up to ${steepest.toFixed(1)} display codes per code of ${picture.sourceBits} bits.`
    : ''
  return [{ id: 'banding', value: share, confidence: 1, detail, ...(tones && share > 0.02 ? { alarm: true } : {}) }]
}
