// Which handles an instrument carries, and the aims they stand for.
import type { Aim } from '@core/aims'
import type { InstrumentId } from '@core/instruments'
import type { PictureFacts } from '../../../workers/messages'
import { text } from '../text'

export interface LevelHandle {
  readonly id: 'black' | 'middle' | 'white' | 'foot-0' | 'foot-1' | 'foot-2'
  readonly name: string
  readonly tip: string
  /** Where it stands now, 0..1 of the signal. */
  readonly value: number
  /** Where it stands across the plot, 0..1. */
  readonly across: number
}

export function handlesOf(id: InstrumentId, facts: PictureFacts | null, parade: string): readonly LevelHandle[] {
  if (!facts) return []
  if (id === 'waveform')
    return (['black', 'middle', 'white'] as const).map((at) => ({
      id: at,
      name: text.aims.handle[at],
      tip: text.aims.handleTip[at],
      value: facts[at],
      across: 1,
    }))
  if (id !== 'parade' || parade !== 'rgb') return []
  return ([0, 1, 2] as const).map((c) => ({
    id: `foot-${c}` as const,
    name: text.aims.footName[c],
    tip: text.aims.footTip[c],
    value: facts.channelPercentile1[c],
    across: (c + 1) / 3,
  }))
}

const shares = { black: 0.001, middle: 0.5, white: 0.999 } as const

export function aimOfHandle(id: LevelHandle['id'], value: number): Aim {
  if (id === 'black' || id === 'middle' || id === 'white')
    return { id, name: text.readingNames[id], rank: 2, want: { kind: 'level', share: shares[id], value } }
  const channel = Number(id.slice(-1)) as 0 | 1 | 2
  return { id, name: text.aims.footName[channel], rank: 2, want: { kind: 'level', share: 0.01, channel, value } }
}
