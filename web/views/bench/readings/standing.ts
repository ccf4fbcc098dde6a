// How a reading stands in its list, what comes first there, and what its target is, in few characters.
import { printValue, readingKey, readingKind, type Reading } from '@core/readings'

export type Standing = 'off' | 'waived' | 'met' | 'note'

/** `waived` holds reading keys. */
export function standingOf(r: Reading, waived: ReadonlySet<string>): Standing {
  if (waived.has(readingKey(r))) return 'waived'
  if (r.weight > 0) return 'off'
  return r.verdict === 'met' ? 'met' : 'note'
}

function helpfulness(r: Reading, waived: ReadonlySet<string>): number {
  const standing = standingOf(r, waived)
  if (standing === 'off') return 3
  if (r.alarm) return 2
  return standing === 'met' && r.id !== 'neutrals' ? 0 : 1
}

/** What lies outside its target, then alarms, then what is met. */
export const mostHelpfulFirst = (readings: readonly Reading[], waived: ReadonlySet<string>): readonly Reading[] =>
  [...readings].sort((a, b) => helpfulness(b, waived) - helpfulness(a, waived))

/** "± 2", "≤ 1.5" or "40–55"; there is little room: no zeros behind the point. Empty without a target. */
export function targetLabel({ id, target }: Reading): string {
  if (!target) return ''
  const { unit } = readingKind(id)
  const short = (value: number): string => {
    const shown = printValue(value, unit)
    return shown.includes('.') ? shown.replace(/(?<!0)0+$/, '').replace(/\.$/, '') : shown
  }
  const high = short(target.high)
  if (target.low === -target.high) return `± ${high}`
  return target.low === 0 && id !== 'black' ? `≤ ${high}` : `${short(target.low)}–${high}`
}
