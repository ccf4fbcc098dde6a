// Frame numbers as time in the clip.
import type { MediaFacts } from '@contracts/responses'

/** HH:MM:SS:FF from the start of the clip, counting whole frames at the nominal rate. */
export function timecode(frame: number, { rateNumerator, rateDenominator }: Pick<MediaFacts, 'rateNumerator' | 'rateDenominator'>): string {
  const rate = Math.max(1, Math.round(rateNumerator / rateDenominator))
  const seconds = Math.floor(frame / rate)
  const two = (n: number): string => String(n).padStart(2, '0')
  return `${two(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}:${two(frame % rate)}`
}
