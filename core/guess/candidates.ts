// The answers a guess chooses from: every encoding that ships, each with its code range as flagged or the other one.
import {
  encodings,
  gamutById,
  gamutToGamut,
  workingGamut,
  type Encoding,
  type EncodingGroup,
  type Matrix3,
} from '../colour'
import type { CodeRange } from '../image'
import { priorOf, type FileFacts } from './priors'

export interface Candidate {
  readonly encoding: Encoding
  readonly range: CodeRange
  readonly toWorking: Matrix3
}

/** What a person is told about the kind of footage. */
export type FootageKind = 'camera log' | 'display gamma' | 'flat gamma' | 'HLG' | 'PQ' | 'linear'

export function kindOf({ id, group }: Pick<Encoding, 'id' | 'group'>): FootageKind {
  const kinds: Record<EncodingGroup, FootageKind> = {
    log: 'camera log',
    display: 'display gamma',
    flat: 'flat gamma',
    hdr: id === 'pq' ? 'PQ' : 'HLG',
    linear: 'linear',
  }
  return kinds[group]
}

export const otherRange = (range: CodeRange): CodeRange => (range === 'full' ? 'legal' : 'full')

/** Linear footage is told by its file (floating point), never by its codes, so it is no candidate. */
const guessable = encodings.filter((e) => e.group !== 'linear')

/** Every encoding that such a file could hold, the user's own included, in each of the two ranges. */
export function candidatesFor(
  flagged: CodeRange,
  file?: FileFacts,
  own: readonly Encoding[] = [],
): readonly Candidate[] {
  return [flagged, otherRange(flagged)].flatMap((range) =>
    [...guessable, ...own].flatMap((encoding) =>
      file && priorOf(encoding, range === flagged, file) === 0
        ? []
        : [{ encoding, range, toWorking: gamutToGamut(gamutById(encoding.gamutIds[0]), workingGamut) }],
    ),
  )
}

/**
 * A code value of 0..1 read under one range, as it would be under another: 10-bit legal range spans 64–940
 * (ITU-R BT.709-6, item 4.6).
 */
export function rereadCode(code: number, from: CodeRange, to: CodeRange): number {
  if (from === to) return code
  return to === 'legal' ? (code * 1023 - 64) / 876 : (code * 876 + 64) / 1023
}
