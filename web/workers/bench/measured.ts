// From counts to what the Bench shows: instrument pictures and facts. Keeps the reference trace.
import {
  compileTap,
  dragSize,
  type CodeSpan,
  type GradeDocument,
  type LutFinder,
  type PlanCache,
  type Tap,
  type TapId,
} from '@core/grade'
import {
  copiedCounts,
  instrumentImage,
  overlayById,
  type Counted,
  type InstrumentId,
  type TraceImage,
} from '@core/instruments'
import { factsOf } from '../facts'
import type { Measured, Viewing } from '../messages'
import type { Counting, TileCounts, TileJob } from '../tile'

let held: Counted | null = null
let last: Counted | null = null

/** The last picture's trace becomes the reference. False when nothing was measured yet. */
export function holdLast(): boolean {
  holdCounted(last)
  return held !== null
}
/** Counts lie in memory that the next picture uses again: what is held is a copy. */
export function holdCounted(counted: Counted | null): void {
  held = counted && { ...counted, scopes: copiedCounts(counted.scopes) }
}

export function measuredOf({ end, tap, part }: TileCounts, { instruments, visible, reference }: Viewing): Measured {
  const whole = tap ?? end
  last = whole
  const layers = { whole, part, reference: reference ? held : null }
  const traces: Partial<Record<InstrumentId, TraceImage>> = {}
  for (const id of visible) traces[id] = instrumentImage(id, layers, instruments)
  return {
    traces,
    facts: factsOf(end.scopes),
    partFacts: part && !tap && part.scopes.pixels > 0 ? factsOf(part.scopes) : null,
  }
}

/** What is to be counted for a way of looking. */
export function countingFor(viewing: Viewing, tapped: (tap: TapId) => Tap | null): Counting {
  const { instruments, visible, tap, part } = viewing
  return {
    wishes: {
      chroma:
        (visible.includes('waveform') && instruments.waveform === 'chroma') ||
        (visible.includes('parade') && instruments.parade === 'ycbcr'),
      zoom: visible.includes('vectorscope') ? instruments.vectorZoom : 1,
    },
    chromaticity: visible.includes('chromaticity'),
    tap: tap === 'finish' ? null : tapped(tap),
    part,
  }
}

export function overlayFor({ overlay }: Viewing, tapped: (tap: TapId) => Tap | null): TileJob['overlay'] {
  if (!overlay) return null
  const { tap } = overlayById(overlay.id)
  return { settings: overlay, tap: tap ? tapped(tap) : null }
}

// Stages that did not change are kept from picture to picture, tap by tap.
const caches = new Map<TapId, PlanCache>()

/** A function that makes the taps of a grade. */
export function tapsOf(grade: GradeDocument, lut: LutFinder, span: CodeSpan): (tap: TapId) => Tap | null {
  return (tap) => {
    const cache: PlanCache = caches.get(tap) ?? new Map()
    caches.set(tap, cache)
    return compileTap(grade, lut, span, dragSize, tap, cache)
  }
}
