// Edit decision lists of the CMX3600 kind: events on lines, times as timecode.
import { countingRate, framesOfTimecode, timecodeOfFrames, type FrameRate } from '../footage/timecode'
import { neutralCdl, type CdlNumbers } from '../grade'
import { editListLimits, EditListError, type EditEvent } from './edit-list'

interface EventLine {
  readonly number: string
  readonly reel: string
  readonly track: string
  readonly kind: string
  readonly length: number
  readonly recordIn: string
  readonly recordOut: string
}

/**
 * A line of an event by its words, from both ends: the name of the reel between may hold spaces. Undefined where it is
 * none.
 */
function eventOf(line: string): EventLine | undefined {
  const words = line.split(/\s+/)
  const times = words.splice(-4)
  const length = /^\d{1,4}$/.test(words.at(-1) ?? '') && words.length > 4 ? Number(words.pop()) : 0
  const kind = words.pop() ?? ''
  const track = words.pop() ?? ''
  const [number = '', ...reel] = words
  const [, , recordIn = '', recordOut = ''] = times
  if (times.length < 4 || reel.length === 0 || !/^\d{1,6}$/.test(number) || !/^(C|D|W\d{1,3}|K[BO]?)$/.test(kind))
    return undefined
  return { number, reel: reel.join(' '), track, kind, length, recordIn, recordOut }
}

/** The numbers of a comment such as "* ASC_SOP (1 1 1)(0 0 0)(1 1 1)" or "* ASC_SAT 0.9". */
function cdlOfComment(line: string, line1: number): Partial<CdlNumbers> | undefined {
  const word = /^\*\s*(ASC_SOP|ASC_SAT)\b:?/i.exec(line)
  if (!word) return undefined
  const numbers = line
    .slice(word[0].length)
    .split(/[\s(),]+/)
    .filter((w) => w !== '')
    .map(Number)
  const sop = word[1]?.toUpperCase() === 'ASC_SOP'
  const [a = 1, b = 1, c = 1, d = 0, e = 0, f = 0, g = 1, h = 1, i = 1] = numbers
  if (
    numbers.length !== (sop ? 9 : 1) ||
    numbers.some((n) => !Number.isFinite(n)) ||
    [a, b, c, g, h, i].some((n) => n < 0)
  )
    throw new EditListError(
      sop ? 'ASC_SOP needs three slopes, three offsets and three powers.' : 'ASC_SAT needs one number from 0 on.',
      line1,
    )
  return sop ? { slope: [a, b, c], offset: [d, e, f], power: [g, h, i] } : { saturation: a }
}

/**
 * The picture events of an edit decision list, in programme time. Frames count from `start` (a timecode), or from the
 * first event's record in when none is given. Throws EditListError with the line.
 */
export function parseEdl(text: string, rate: FrameRate, start: string | null = null): readonly EditEvent[] {
  if (text.length > editListLimits.characters)
    throw new EditListError(`The list is larger than ${editListLimits.characters} characters.`)
  const events: {
    reel: string
    name: string
    in: number
    out: number
    transition: number
    cdl?: CdlNumbers
  }[] = []
  let dropFrame = false
  text.split(/\r\n|[\n\r\u2028\u2029]/).forEach((raw, i) => {
    const line = raw.replace(/^\uFEFF/, '').trim()
    if (line.length > editListLimits.line)
      throw new EditListError(`The line is longer than ${editListLimits.line} characters.`, i + 1)
    const mode = /^FCM:(.+)$/i.exec(line)
    if (mode) dropFrame = /^\s*drop/i.test(mode[1] ?? '')
    const named = /^\*\s*(?:FROM|TO) CLIP NAME:(.+)$/i.exec(line)
    const last = events.at(-1)
    // Of a dissolve the list names both clips; the one that comes is the event's own.
    if (named && last && (/^\*\s*TO/i.test(line) || last.name === last.reel)) last.name = (named[1] ?? '').trim()
    const cdl = last && cdlOfComment(line, i + 1)
    if (cdl) last.cdl = { ...neutralCdl, ...last.cdl, ...cdl }
    if (!/^\d/.test(line)) return
    const event = eventOf(line)
    if (!event)
      throw new EditListError(
        'This is not an event: number, reel, track, kind, and four timecodes are expected.',
        i + 1,
      )
    const { reel, track, kind, length, recordIn, recordOut } = event
    if (!/^(V\d*|B|AA\/V|A\d*\/V|NONE)$/i.test(track)) return
    const at = (time: string): number => frameOf(time, rate, dropFrame, i + 1)
    const first = at(recordIn)
    const end = at(recordOut)
    if (end < first) throw new EditListError(`The event ends (${recordOut}) before it begins (${recordIn}).`, i + 1)
    if (events.length >= editListLimits.events)
      throw new EditListError(`There are more than ${editListLimits.events} events.`, i + 1)
    // The first line of a dissolve is its outgoing side, without length.
    if (end > first) events.push({ reel, name: reel, in: first, out: end, transition: kind === 'C' ? 0 : length })
  })
  if (events.length === 0) throw new EditListError('There is no picture event in the list.')
  const origin = start === null ? Math.min(...events.map((e) => e.in)) : frameOf(start, rate, dropFrame, 0)
  return events.map(({ name, in: first, out, transition, cdl }) => ({
    name,
    first: first - origin,
    count: out - first,
    transition,
    ...(cdl ? { cdl } : {}),
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
  events.forEach(({ name, first, count, transition, cdl }, i) => {
    const kind = transition > 0 ? `D    ${String(transition).padStart(3, '0')}` : 'C       '
    lines.push(
      `${String(i + 1).padStart(3, '0')}  AX       V     ${kind} ${time(0)} ${time(count)} ` +
        `${time(start + first)} ${time(start + first + count)}`,
    )
    lines.push(`* ${transition > 0 ? 'TO' : 'FROM'} CLIP NAME: ${name.replace(/\s+/g, ' ')}`)
    if (cdl) {
      const row = (numbers: readonly number[]): string => `(${numbers.map((n) => n.toFixed(6)).join(' ')})`
      lines.push(`* ASC_SOP ${row(cdl.slope)}${row(cdl.offset)}${row(cdl.power)}`)
      lines.push(`* ASC_SAT ${cdl.saturation.toFixed(6)}`)
    }
  })
  return `${lines.join('\n')}\n`
}
