// The footage of a shot as workers know it.
import type { ShotSummary } from '@contracts/responses'
import type { Medium } from './messages'

export const mediumOf = ({ media, proxy, firstFrame, frameCount }: ShotSummary): Medium => ({
  hash: media.hash,
  rate: { numerator: media.rateNumerator, denominator: media.rateDenominator },
  proxy,
  span: { first: firstFrame, last: firstFrame + frameCount - 1 },
})

/** Width over height of a medium as it is shown, its pixels' own shape included. */
export const shownAspect = ({ media }: Pick<ShotSummary, 'media'>): number =>
  (media.width * media.pixelAspect[0]) / (media.height * media.pixelAspect[1])
