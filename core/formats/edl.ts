// Edit decision lists of the CMX3600 kind: events on lines, times as timecode.
import { countingRate, framesOfTimecode, timecodeOfFrames, type FrameRate } from '../footage/timecode'
import { editListLimits, EditListError, type EditEvent } from './edit-list'

const eventLine =
  /^(\d{1,6})\s+(\S+)\s+(\S+)\s+(C|D|W\d{1,3}|K[BO]?)(?:\s+(\d{1,4}))?\s+(\S+)\s+(\S+)\s+(\S+)\s+(\S+)\s*$/

/**
 * The picture events of an edit decision list, in programme time. Frames count from `start` (a timecode), or from the
 * first event's record in when none is given. Throws EditListError with the line.
 */
export function parseEdl(text: string, rate: FrameRate, start: string | null = null): readonly EditEvent[] {
  if (text.length > editListLimits.characters)
    throw new EditListError(`The list is larger than ${editListLimits.characters} characters.`)
  const events: { number: string; reel: string; name: string; in: number; out: number; transition: number }[] = []
  let dropFrame = false
  text.split(/\r\n|\n|\r/).forEach((raw, i) => {
    const line = raw.replace(/^\uFEFF/, '').trim()
    const mode = /^FCM:\s*(.+)$/i.exec(line)
    if (mode) dropFrame = /^drop/i.test(mode[1] ?? '')
    const named = /^\*\s*(?:FROM|TO) CLIP NAME:\s*(.+)$/i.exec(line)
    const last = events.at(-1)
    // Of a dissolve the list names both clips; the one that comes is the event's own.
    if (named && last && (/^\*\s*TO/i.test(line) || last.name === last.reel)) last.name = (named[1] ?? '').trim()
    if (!/^\d/.test(line)) return
    const match = eventLine.exec(line)
    if (!match)
      throw new EditListError(
        'This is not an event: number, reel, track, kind, and four timecodes are expected.',
        i + 1,
      )
    const [, number = '', reel = '', track = '', kind = '', length, , , recordIn = '', recordOut = ''] = match
    if (!/^(V\d*|B|AA\/V|A\d*\/V|NONE)$/i.test(track)) return
    const at = (time: string): number => frameOf(time, rate, dropFrame, i + 1)
    const first = at(recordIn)
    const end = at(recordOut)
    if (end < first) throw new EditListError(`The event ends (${recordOut}) before it begins (${recordIn}).`, i + 1)
    if (events.length >= editListLimits.events)
      throw new EditListError(`There are more than ${editListLimits.events} events.`, i + 1)
    // The first line of a dissolve is its outgoing side, without length.
    if (end > first)
      events.push({ number, reel, name: reel, in: first, out: end, transition: kind === 'C' ? 0 : Number(length ?? 0) })
  })
  if (events.length === 0) throw new EditListError('There is no picture event in the list.')
  const origin = start === null ? Math.min(...events.map((e) => e.in)) : frameOf(start, rate, dropFrame, 0)
  return events.map(({ name, in: first, out, transition }) => ({
    name,
    first: first - origin,
    count: out - first,
    transition,
  }))
}

function frameOf(time: string, rate: FrameRate, dropFrame: boolean, line: number): number {
  try {
    return framesOfTimecode(dropFrame && !time.includes(';') ? time.replace(/:(\d{2})$/, ';$1') : time, rate)
  } catch (error) {
    throw new EditListError((error as Error).message, line)
  }
}

/** Writes events as a list that starts at `start` frames of timecode. */
export function printEdl(
  title: string,
  events: readonly EditEvent[],
  rate: FrameRate,
  start = countingRate(rate) * 3600,
): string {
  const lines = [`TITLE: ${title.replace(/[^\x20-\x7e]/g, '_')}`, 'FCM: NON-DROP FRAME', '']
  const time = (frame: number): string => timecodeOfFrames(frame, rate)
  events.forEach(({ name, first, count, transition }, i) => {
    const kind = transition > 0 ? `D    ${String(transition).padStart(3, '0')}` : 'C       '
    lines.push(
      `${String(i + 1).padStart(3, '0')}  AX       V     ${kind} ${time(0)} ${time(count)} ` +
        `${time(start + first)} ${time(start + first + count)}`,
    )
    lines.push(`* ${transition > 0 ? 'TO' : 'FROM'} CLIP NAME: ${name}`)
  })
  return `${lines.join('\n')}\n`
}
