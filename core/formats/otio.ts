// OpenTimelineIO JSON: the clips of the first picture track as events of the programme.
import { neutralCdl, type CdlNumbers } from '../grade'
import { editListLimits, EditListError, type EditEvent } from './edit-list'

interface RationalTime {
  value: number
  rate: number
}
interface Item {
  OTIO_SCHEMA?: unknown
  name?: unknown
  source_range?: unknown
  in_offset?: unknown
  out_offset?: unknown
  kind?: unknown
  children?: unknown
  media_reference?: unknown
  metadata?: unknown
  tracks?: unknown
  media_references?: unknown
  active_media_reference_key?: unknown
}

const schemaOf = (item: Item): string =>
  typeof item.OTIO_SCHEMA === 'string' ? item.OTIO_SCHEMA.replace(/\.\d+$/, '') : ''
const isItem = (value: unknown): value is Item => typeof value === 'object' && value !== null && !Array.isArray(value)

/**
 * The events of an OpenTimelineIO timeline in frames of `framesPerSecond`. Nested stacks count as one event. Throws
 * EditListError.
 */
export function parseOtio(text: string, framesPerSecond: number): readonly EditEvent[] {
  if (text.length > editListLimits.characters)
    throw new EditListError(`The timeline is larger than ${editListLimits.characters} characters.`)
  let document: unknown
  try {
    document = JSON.parse(text)
  } catch {
    throw new EditListError('This is not JSON, so it is no OpenTimelineIO timeline.')
  }
  const track = pictureTrack(document)
  const events: EditEvent[] = []
  let at = 0
  let comingIn = 0
  for (const [i, child] of track.entries()) {
    if (!isItem(child)) throw new EditListError(`Item ${i + 1} of the picture track is not an object.`)
    const schema = schemaOf(child)
    if (schema === 'Transition') {
      comingIn = Math.round(
        framesOf(child.in_offset, framesPerSecond, i) + framesOf(child.out_offset, framesPerSecond, i),
      )
      continue
    }
    const length = durationOf(child, framesPerSecond, i)
    // Whole frames by the running sum, so that rounding does not add up.
    const first = Math.round(at)
    const end = Math.round(at + length)
    at += length
    if (schema !== 'Gap' && end > first) {
      if (events.length >= editListLimits.events)
        throw new EditListError(`There are more than ${editListLimits.events} clips.`)
      const cdl = cdlIn(child.metadata, i)
      events.push({
        ...(cdl ? { cdl } : {}),
        name: typeof child.name === 'string' && child.name.trim() ? child.name.trim() : `Clip ${events.length + 1}`,
        first,
        count: end - first,
        transition: comingIn,
      })
    }
    comingIn = 0
  }
  if (events.length === 0) throw new EditListError('There is no clip on the picture track.')
  return events
}

/** The correction in a clip's metadata: cdl.asc_sop with slope, offset and power, and cdl.asc_sat. */
function cdlIn(metadata: unknown, index: number): CdlNumbers | undefined {
  const cdl = (isItem(metadata) ? metadata : {}) as { cdl?: unknown }
  if (!isItem(cdl.cdl)) return undefined
  const { asc_sop: sop, asc_sat: saturation = 1 } = cdl.cdl as { asc_sop?: unknown; asc_sat?: unknown }
  const parts = (isItem(sop) ? sop : {}) as { slope?: unknown; offset?: unknown; power?: unknown }
  const triple = (value: unknown, usual: readonly [number, number, number], least: number) => {
    if (value === undefined) return usual
    const ok =
      Array.isArray(value) &&
      value.length === 3 &&
      value.every((n) => typeof n === 'number' && Number.isFinite(n) && n >= least)
    if (!ok)
      throw new EditListError(`Item ${index + 1} of the picture track has a correction that is no three numbers.`)
    return value as unknown as readonly [number, number, number]
  }
  if (typeof saturation !== 'number' || !Number.isFinite(saturation) || saturation < 0)
    throw new EditListError(`Item ${index + 1} of the picture track has a saturation that is no number from 0 on.`)
  return {
    slope: triple(parts.slope, neutralCdl.slope, 0),
    offset: triple(parts.offset, neutralCdl.offset, -Infinity),
    power: triple(parts.power, neutralCdl.power, 0),
    saturation,
  }
}

/** Writes events as a timeline of one picture track, their corrections in the clips' metadata. */
export function printOtio(title: string, events: readonly EditEvent[], framesPerSecond: number): string {
  const time = (value: number): object => ({ OTIO_SCHEMA: 'RationalTime.1', rate: framesPerSecond, value })
  const range = (start: number, duration: number): object => ({
    OTIO_SCHEMA: 'TimeRange.1',
    start_time: time(start),
    duration: time(duration),
  })
  const children: object[] = []
  let at = 0
  for (const { name, first, count, transition, cdl } of events) {
    if (first > at) children.push({ OTIO_SCHEMA: 'Gap.1', source_range: range(0, first - at) })
    if (transition > 0)
      children.push({
        OTIO_SCHEMA: 'Transition.1',
        transition_type: 'SMPTE_Dissolve',
        in_offset: time(0),
        out_offset: time(transition),
      })
    children.push({
      OTIO_SCHEMA: 'Clip.2',
      name,
      source_range: range(0, count),
      metadata: cdl
        ? { cdl: { asc_sop: { slope: cdl.slope, offset: cdl.offset, power: cdl.power }, asc_sat: cdl.saturation } }
        : {},
    })
    at = first + count
  }
  const track = { OTIO_SCHEMA: 'Track.1', name: 'Picture', kind: 'Video', children }
  return `${JSON.stringify(
    { OTIO_SCHEMA: 'Timeline.1', name: title, tracks: { OTIO_SCHEMA: 'Stack.1', children: [track] } },
    null,
    2,
  )}\n`
}

function pictureTrack(document: unknown): readonly unknown[] {
  if (!isItem(document) || schemaOf(document) !== 'Timeline')
    throw new EditListError('This is not an OpenTimelineIO timeline (OTIO_SCHEMA "Timeline.1" is expected).')
  const stack = document.tracks
  const tracks = isItem(stack) && Array.isArray(stack.children) ? stack.children.filter(isItem) : []
  const picture = tracks.find((t) => t.kind === 'Video' || t.kind === undefined)
  if (!picture || !Array.isArray(picture.children)) throw new EditListError('The timeline holds no picture track.')
  return picture.children as unknown[]
}

/** The medium that an item stands on, of one or of several to choose from. */
function referenceOf(item: Item): unknown {
  if (isItem(item.media_reference)) return item.media_reference
  if (!isItem(item.media_references)) return undefined
  const active = String(item.active_media_reference_key ?? 'DEFAULT_MEDIA')
  return (item.media_references as Record<string, unknown>)[active]
}

function durationOf(item: Item, framesPerSecond: number, index: number): number {
  const reference = referenceOf(item)
  const range =
    item.source_range ?? (isItem(reference) ? (reference as { available_range?: unknown }).available_range : undefined)
  if (!isItem(range))
    throw new EditListError(`Item ${index + 1} of the picture track has neither a source_range nor an available_range.`)
  return framesOf((range as { duration?: unknown }).duration, framesPerSecond, index)
}

function framesOf(time: unknown, framesPerSecond: number, index: number): number {
  const { value, rate } = (time ?? {}) as Partial<RationalTime>
  if (
    typeof value !== 'number' ||
    typeof rate !== 'number' ||
    !Number.isFinite(value) ||
    !Number.isFinite(rate) ||
    rate <= 0 ||
    value < 0 ||
    value / rate > 360_000
  )
    throw new EditListError(`Item ${index + 1} of the picture track has a length that is no time.`)
  return (value / rate) * framesPerSecond
}
