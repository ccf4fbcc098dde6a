// The aim that a reading proposes: what would put it where its standard wants it.
import type { Area, Reading } from '../readings'
import { aimWords, type Aim } from './aim'

const shares = { black: 0.001, middle: 0.5, white: 0.999 } as const

/** Null for readings that no control of the whole picture answers to, and for those without a target. */
export function aimOfReading(reading: Reading, card: Area | null): Aim | null {
  const { id, name, target, area, places, of, value } = reading
  if (!target) return null
  const middle = (target.low + target.high) / 2
  const aim = (want: Aim['want'], rank: Aim['rank'] = 2): Aim => ({ id: of ? `${id} ${of}` : id, name, rank, want })
  switch (id) {
    case 'black':
    case 'middle':
    case 'white':
      return aim({ kind: 'level', share: shares[id], value: middle })
    case 'cardExposure':
      return card && aim({ kind: 'light', areas: [card], stops: middle }, 1)
    case 'cardWhite':
      return card && aim({ kind: 'neutral', areas: [card] }, 1)
    case 'neutrals':
    case 'castBlacks':
    case 'castMids':
    case 'castWhites':
      return places?.length ? aim({ kind: 'neutral', areas: places }, 1) : null
    case 'skinLuma':
      return area ? aim({ kind: 'skin', area, luma: middle }) : null
    case 'saturation':
      return aim({ kind: 'chroma', value: value < target.low ? target.low : target.high }, 3)
    default:
      return null
  }
}

/** The words of a button that takes the proposal up. */
export const proposalWords = (aim: Aim): string => `Aim: ${aimWords(aim)}`
