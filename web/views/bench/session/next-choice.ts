// Choices that a key steps through.
import type { InstrumentId } from '@core/instruments'
import type { Surround } from '../../../stores/view'

const surrounds: readonly Surround[] = ['dark', 'black', 'grey', 'white']
const after = <T>(list: readonly T[], now: T): T | undefined => list[(list.indexOf(now) + 1) % list.length]

export const nextSurround = (now: Surround): Surround => after(surrounds, now) ?? 'dark'

/** The instrument that fills the column next; null for all of them in their places. */
export const nextFilling = (slots: readonly InstrumentId[], now: InstrumentId | null): InstrumentId | null =>
  after([null, ...slots], now) ?? null
