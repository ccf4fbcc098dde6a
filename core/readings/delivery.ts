// The delivered signal against its bounds: out of gamut, out of range, and codes that do not fit the range they are
// read by.
import { encodingOf } from '../grade'
import { eachOutOfRange, measureMeridian, totalLoss } from '../instruments'
import type { MeasuredPicture } from './picture'
import type { Finding } from './reading'

/** The share of pixels (0..1) outside EBU R 103 once the signal is delivered (see eachOutOfRange). */
export function outOfRangeShare({ shown, luma }: Pick<MeasuredPicture, 'shown' | 'luma'>): number {
  let out = 0
  eachOutOfRange(shown, luma, 0, shown.height, () => {
    out++
  })
  return out / Math.max(1, Math.floor(shown.width / 2) * 2 * shown.height)
}

/**
 * The share of pixels (0..1) with a code that the range they are read by cannot hold, or null where the encoding itself
 * never reaches the ends.
 */
export function rangeMisfit({
  source: { data, low, high },
  grade,
  sourceBits,
}: Pick<MeasuredPicture, 'source' | 'grade' | 'sourceBits'>): {
  readonly share: number
  readonly likely: 'full' | 'legal'
} | null {
  const span = high - low
  const steps = 2 ** Math.min(16, sourceBits) - 1
  const codeOf = (signal: number): number => Math.round(((signal - low) / span) * 65535)
  const pixels = data.length / 3
  if (grade.read.range === 'legal') {
    // Codes over the legal white or under the legal black by more than filters ring.
    const under = codeOf(-0.035)
    const over = codeOf(1.055)
    let beyond = 0
    for (let i = 0; i < data.length; i += 3) {
      const most = Math.max(data[i], data[i + 1], data[i + 2])
      const least = Math.min(data[i], data[i + 1], data[i + 2])
      if (most > over || least < under) beyond++
    }
    return { share: beyond / pixels, likely: 'full' }
  }
  // Read as full: a curve that starts at zero, yet nothing under the legal black and a pile at it.
  if (encodingOf(grade.read).curve.encode(0) > 0.03) return null
  const floor = codeOf((64 - 1.5) / 1023 - 1 / steps)
  const black = codeOf((64 + 8) / 1023)
  const ceiling = codeOf((940 + 6) / 1023 + 1 / steps)
  const white = codeOf(920 / 1023)
  let below = 0
  let atBlack = 0
  let above = 0
  let atWhite = 0
  for (let i = 0; i < data.length; i += 3) {
    const most = Math.max(data[i], data[i + 1], data[i + 2])
    const least = Math.min(data[i], data[i + 1], data[i + 2])
    if (least < floor) below++
    if (most <= black) atBlack++
    if (most > ceiling) above++
    if (least >= white) atWhite++
  }
  const piled = atBlack + atWhite
  return below + above <= pixels * 2e-4 && piled > pixels * 1e-3
    ? { share: piled / pixels, likely: 'legal' }
    : { share: 0, likely: 'legal' }
}

export function deliveryFindings(picture: MeasuredPicture): readonly Finding[] {
  const { outOfGamut } = totalLoss(measureMeridian(picture.chain, picture.source, 20_000).stations.map((s) => s.loss))
  const misfit = rangeMisfit(picture)
  return [
    { id: 'outOfGamut', value: outOfGamut, confidence: 1, detail: '' },
    { id: 'outOfRange', value: outOfRangeShare(picture), confidence: 1, detail: 'Measured as 4:2:2 in legal range.' },
    ...(misfit
      ? [
          {
            id: 'range' as const,
            value: misfit.share,
            confidence: 1,
            detail:
              misfit.share > 0.001
                ? `The codes look like ${misfit.likely} range; the shot is read as ${picture.grade.read.range} range.`
                : '',
          },
        ]
      : []),
  ]
}
