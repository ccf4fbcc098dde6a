// The footage of a shot as workers know it.
import type { ShotSummary } from '@contracts/responses'
import type { Medium } from './messages'

export const mediumOf = ({ media, proxy, firstFrame, frameCount }: ShotSummary): Medium => ({
  hash: media.hash,
  rate: { numerator: media.rateNumerator, denominator: media.rateDenominator },
  proxy,
  span: { first: firstFrame, last: firstFrame + frameCount - 1 },
})
