// Noise: the fine residue of flat places in the dark, in the picture as shown and in the footage.
import type { Frame } from '../image'
import type { MeasuredPicture } from './picture'
import { printValue } from './kinds'
import type { Finding } from './reading'

const block = 12
/** Dark, and not so dark that black cuts the noise off. */
const darkest = 0.015
const brightest = 0.3

export interface Noise {
  /** Standard deviation of R, G, B in shares of the signal. */
  readonly channels: readonly [number, number, number]
  /** The same of the camera's codes. */
  readonly sourceChannels: readonly [number, number, number]
  /** Luma noise as shown over that of the footage. */
  readonly gain: number
  /** Blocks it was measured on. */
  readonly places: number
}

interface Place {
  readonly x: number
  readonly y: number
}

/**
 * Flat blocks in the dark: chosen by how little their halves differ, which noise itself hardly decides. Empty where
 * there are too few to go by.
 */
function flatPlaces({
  shown: { width, height, data },
  luma: w,
}: Pick<MeasuredPicture, 'shown' | 'luma'>): readonly Place[] {
  const found: { readonly x: number; readonly y: number; readonly uneven: number }[] = []
  for (let y = 1; y + block < height; y += block)
    for (let x = 1; x + block < width; x += block) {
      const quarters = [0, 0, 0, 0]
      let zeros = 0
      for (let dy = 0; dy < block; dy++)
        for (let dx = 0; dx < block; dx++) {
          const i = ((y + dy) * width + x + dx) * 3
          const r = data[i]
          const g = data[i + 1]
          const b = data[i + 2]
          quarters[(dy < block / 2 ? 0 : 2) + (dx < block / 2 ? 0 : 1)] += w.red * r + w.green * g + w.blue * b
          if (r === 0 || g === 0 || b === 0) zeros++
        }
      const per = 1 / 65535 / ((block * block) / 4)
      const levels = quarters.map((q) => q * per)
      const mean = levels.reduce((a, q) => a + q, 0) / 4
      if (zeros > 0 || mean < darkest || mean > brightest) continue
      found.push({ x, y, uneven: (Math.max(...levels) - Math.min(...levels)) / mean })
    }
  if (found.length < 8) return []
  found.sort((a, b) => a.uneven - b.uneven)
  return found.slice(0, Math.max(8, Math.floor(found.length * 0.3)))
}

/**
 * The mask of Immerkær 1996 (1 −2 1; −2 4 −2; 1 −2 1) answers to no gradient; its root mean square over 6 is the
 * noise's deviation, and the middle of those of all flat blocks is taken. Null where no dark place is flat.
 */
export function measureNoise(picture: Pick<MeasuredPicture, 'shown' | 'source' | 'luma'>): Noise | null {
  const flat = flatPlaces(picture)
  const { shown, source, luma: w } = picture
  if (flat.length === 0) return null
  const middle = (frame: Frame, weights: readonly [number, number, number]): number => {
    const deviations = flat.map(({ x, y }) => residue(frame, x, y, weights)).sort((a, b) => a - b)
    return (deviations[Math.floor(deviations.length / 2)] ?? 0) * ((frame.high - frame.low) / 65535)
  }
  const each = (frame: Frame): [number, number, number] => [
    middle(frame, [1, 0, 0]),
    middle(frame, [0, 1, 0]),
    middle(frame, [0, 0, 1]),
  ]
  const lumaWeights = [w.red, w.green, w.blue] as const
  const before = middle(source, lumaWeights)
  return {
    channels: each(shown),
    sourceChannels: each(source),
    gain: before > 1e-6 ? middle(shown, lumaWeights) / before : 1,
    places: flat.length,
  }
}

function residue(
  { width, data }: Frame,
  x0: number,
  y0: number,
  [wr, wg, wb]: readonly [number, number, number],
): number {
  let sum = 0
  const row = width * 3
  const at = (i: number): number => wr * data[i] + wg * data[i + 1] + wb * data[i + 2]
  for (let y = y0; y < y0 + block; y++)
    for (let x = x0; x < x0 + block; x++) {
      const i = (y * width + x) * 3
      const answer =
        at(i - row - 3) -
        2 * at(i - row) +
        at(i - row + 3) -
        2 * at(i - 3) +
        4 * at(i) -
        2 * at(i + 3) +
        at(i + row - 3) -
        2 * at(i + row) +
        at(i + row + 3)
      sum += answer * answer
    }
  return Math.sqrt(sum / (block * block)) / 6
}

/** One byte per pixel: one where the noise was measured. */
export function noisePixels(picture: Pick<MeasuredPicture, 'shown' | 'luma'>): Uint8Array {
  const { width, height } = picture.shown
  const marks = new Uint8Array(width * height)
  for (const { x, y } of flatPlaces(picture))
    for (let row = y; row < y + block; row++) marks.fill(1, row * width + x, row * width + x + block)
  return marks
}

export function noiseFindings(picture: MeasuredPicture): readonly Finding[] {
  const noise = measureNoise(picture)
  if (!noise) return []
  const [r, g, b] = noise.channels
  const worst = Math.max(r, g, b)
  const confidence = Math.min(1, noise.places / 24)
  const detail = `R ${printValue(r, 'percent')} · G ${printValue(g, 'percent')} · B ${printValue(b, 'percent')} %.`
  return [
    { id: 'noise', value: worst, confidence, detail },
    { id: 'noiseGain', value: noise.gain, confidence, detail: '' },
  ]
}
