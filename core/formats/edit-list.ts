// What edit lists of every format come down to: pieces of the programme, in its own time.
import type { CdlNumbers } from '../grade'
import { FormatError } from './cube'

/** One event of a programme. Frames count from the start of the programme; `first` up to `first + count`. */
export interface EditEvent {
  readonly name: string
  readonly first: number
  readonly count: number
  /** Frames over which the event is dissolved or wiped in; 0 for a cut. */
  readonly transition: number
  /** The correction that came with the event. */
  readonly cdl?: CdlNumbers
}

/** An edit list that could not be read; line 0 means the list as a whole. */
export class EditListError extends FormatError {
  constructor(message: string, line = 0) {
    super(message, line)
    this.name = 'EditListError'
  }
}

export const editListLimits = { characters: 4_000_000, events: 20_000, line: 4000 } as const

export interface Range {
  readonly first: number
  readonly count: number
}

/**
 * The events as ranges of a clip of `frames` frames, with `handles` more frames on both sides where the clip has them.
 * Events that lie outside the clip are left out.
 */
export function eventRanges(
  events: readonly EditEvent[],
  frames: number,
  handles = 0,
): readonly (Range & Pick<EditEvent, 'name' | 'transition' | 'cdl'>)[] {
  return events.flatMap(({ name, first, count, transition, cdl }) => {
    const from = Math.max(0, first - handles)
    const to = Math.min(frames, first + count + handles)
    return first < frames && first + count > 0 && to > from
      ? [{ name, transition, first: from, count: to - from, ...(cdl ? { cdl } : {}) }]
      : []
  })
}
