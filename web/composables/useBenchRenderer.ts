// Keeps the Bench's picture up to date: one request at a time, the latest wins, a finer one when the hand rests. And
// plays.
import { onScopeDispose, ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import { dragSize, restSize, type GradeDocument, type Side, type StationId } from '@core/grade'
import type { InstrumentId, TraceImage } from '@core/instruments'
import type { Area, Cast } from '@core/readings'
import type { KeySample, KeyTap } from '@core/regions'
import type {
  BenchAnswer,
  BenchRequest,
  Between,
  KeySampled,
  KeySpreadFound,
  Lit,
  LookTaken,
  MatteJudged,
  Measured,
  Picked,
  Probed,
  Referenced,
  RegionPlaced,
  Rendered,
  RenderRequest,
  RenderResult,
  SkinSampled,
  Spread,
} from '../workers/messages'
import type { PlayCounts, PlayPlan } from '../workers/player'

export type Wanted = Pick<RenderRequest, 'medium' | 'frameIndex' | 'grade' | 'asShot' | 'viewing'>

export interface Shown {
  readonly picture: TraceImage
  readonly frameIndex: number
}

export interface BenchRenderer {
  readonly result: ShallowRef<RenderResult | null>
  /** The newest picture. While playing it changes more often than what was measured. */
  readonly shown: ShallowRef<Shown | null>
  readonly fault: Ref<string>
  /** The picture on screen is the last one asked for, at its finest. */
  readonly settled: Ref<boolean>
  /**
   * Asks for a picture; an older request that has not started is forgotten. While playing, the look changes and the
   * frames go on.
   */
  readonly show: (wanted: Wanted) => void
  readonly playing: Ref<boolean>
  readonly counts: ShallowRef<PlayCounts | null>
  readonly play: (wanted: Wanted, plan: PlayPlan, onFrame: (index: number) => void) => void
  readonly pause: () => void
  readonly probe: (x: number, y: number) => Promise<Probed>
  readonly light: (instrument: InstrumentId, x: number, y: number) => Promise<Lit>
  readonly skin: (area: Area, cast: Pick<Cast, 'mired' | 'duv'> | null) => Promise<SkinSampled>
  readonly losses: (station: StationId) => Promise<Lit>
  readonly spread: (station: StationId, side: Side, bits: number) => Promise<Spread>
  readonly colour: (station: StationId, side: Side, x: number, y: number) => Promise<Picked>
  readonly lookFrom: (reference: TraceImage, skin: Area | null) => Promise<LookTaken>
  readonly between: (stepId: string) => Promise<Between>
  readonly keySample: (tap: KeyTap, mode: KeySample['mode'], area: Area) => Promise<KeySampled>
  readonly keySpread: (tap: KeyTap) => Promise<KeySpreadFound>
  readonly placeRegion: (
    regionId: string,
    from: Extract<BenchRequest, { ask: 'placeRegion' }>['from'],
  ) => Promise<RegionPlaced>
  readonly matteFacts: (regionId: string, then: GradeDocument | null) => Promise<MatteJudged>
  readonly reference: (of: Extract<BenchRequest, { ask: 'reference' }>['of']) => Promise<Referenced>
}

type Answer =
  | Probed
  | Lit
  | SkinSampled
  | Referenced
  | Spread
  | Picked
  | Between
  | LookTaken
  | KeySampled
  | KeySpreadFound
  | MatteJudged
  | RegionPlaced

const restMs = 140

export function useBenchRenderer(): BenchRenderer {
  const worker = new Worker(new URL('../workers/bench-worker.ts', import.meta.url), { type: 'module' })
  const tell = (request: BenchRequest): void =>
    worker.postMessage(request, 'back' in request && request.back ? [request.back] : [])
  /** Pixels of the picture before: nothing shows them any more. */
  let back: ArrayBuffer | undefined
  const takeBack = (): ArrayBuffer | undefined => {
    const taken = back
    back = undefined
    return taken
  }
  function onScreen(picture: Shown): void {
    back = shown.value?.picture.rgba.buffer as ArrayBuffer | undefined
    shown.value = picture
  }
  const result = shallowRef<RenderResult | null>(null)
  const shown = shallowRef<Shown | null>(null)
  const fault = ref('')
  const settled = ref(false)
  const playing = ref(false)
  const counts = shallowRef<PlayCounts | null>(null)
  let nextId = 1
  let inFlight: RenderRequest | null = null
  let waiting: Wanted | null = null
  let latest: Wanted | null = null
  let restTimer: ReturnType<typeof setTimeout> | undefined
  let played: { readonly id: number; readonly onFrame: (index: number) => void } | null = null

  function send(wanted: Wanted, size: typeof dragSize | typeof restSize): void {
    inFlight = { ...wanted, ask: 'render', id: nextId++, size }
    tell({ ...inFlight, back: takeBack() })
  }

  worker.onmessage = ({ data }: MessageEvent<BenchAnswer>) => {
    if ('played' in data) {
      if (data.id !== played?.id) return
      onScreen(data)
      if (data.measured)
        put(
          {
            size: dragSize,
            frameIndex: data.frameIndex,
            source: 'proxy',
            meridian: null,
            partMeridian: null,
            accuracy: null,
          },
          data.measured,
        )
      counts.value = data.counts
      played.onFrame(data.frameIndex)
      // Put on the canvas first, then asked for more.
      requestAnimationFrame(() => tell({ ask: 'shown', back: takeBack() }))
    } else if ('ended' in data) {
      if (data.id !== played?.id) return
      const { onFrame } = played
      played = null
      playing.value = false
      if (data.counts.shown > 0) counts.value = data.counts
      if (data.fault) {
        fault.value = data.fault
        return
      }
      // The last frame may have been dropped: what stands is told all the same.
      onFrame(data.frameIndex)
      if (latest) show({ ...latest, frameIndex: data.frameIndex })
    } else if ('ok' in data) {
      rendered(data)
    } else {
      asked.get(data.id)?.(data)
      asked.delete(data.id)
    }
  }
  /** Questions about the picture, by their number. */
  const asked = new Map<number, (answer: Answer) => void>()
  function ask<T extends Answer>(request: (id: number) => BenchRequest): Promise<T> {
    return new Promise((done) => {
      const id = nextId++
      asked.set(id, (answer) => done(answer as T))
      tell(request(id))
    })
  }
  /** The newest picture; what was not measured of it stays as it was. */
  function put(
    {
      size,
      frameIndex,
      source,
      meridian,
      partMeridian,
      accuracy,
    }: Omit<Rendered, 'id' | 'ok' | 'measured' | 'picture'>,
    measured: Measured | null,
  ): void {
    const before = result.value
    const now = measured ?? before
    if (now)
      result.value = {
        traces: now.traces,
        facts: now.facts,
        partFacts: now.partFacts,
        size,
        frameIndex,
        source,
        meridian: meridian ?? before?.meridian ?? null,
        partMeridian,
        accuracy,
      }
  }
  function rendered(data: Extract<BenchAnswer, { ok: boolean }>): void {
    if (data.id !== inFlight?.id) return
    inFlight = null
    if (data.ok) {
      if (!playing.value) {
        onScreen(data)
        put(data, data.measured)
      }
      fault.value = ''
    } else {
      fault.value = data.message
    }
    if (playing.value) return
    if (waiting) {
      const wanted = waiting
      waiting = null
      send(wanted, dragSize)
    } else if (data.ok && data.size === dragSize) {
      clearTimeout(restTimer)
      restTimer = setTimeout(() => {
        if (latest && !inFlight && !playing.value) send(latest, restSize)
      }, restMs)
    } else if (data.ok) {
      settled.value = true
    }
  }
  worker.onerror = (event) => {
    event.preventDefault()
    inFlight = null
    playing.value = false
    fault.value = 'The picture worker stopped. Reload the page.'
  }

  function show(wanted: Wanted): void {
    clearTimeout(restTimer)
    const before = latest
    latest = wanted
    settled.value = false
    if (playing.value) {
      // Frames move by themselves; only another look is told.
      if (before?.grade !== wanted.grade || before.asShot !== wanted.asShot || before.viewing !== wanted.viewing)
        tell({ ask: 'regrade', grade: wanted.grade, asShot: wanted.asShot, viewing: wanted.viewing })
      return
    }
    // A finer picture of another frame is not waited for: the worker drops it when it is overtaken.
    if (inFlight && !(inFlight.size === restSize && inFlight.frameIndex !== wanted.frameIndex)) waiting = wanted
    else send(wanted, dragSize)
  }

  function play(wanted: Wanted, plan: PlayPlan, onFrame: (index: number) => void): void {
    clearTimeout(restTimer)
    waiting = null
    latest = wanted
    settled.value = false
    playing.value = true
    counts.value = null
    fault.value = ''
    played = { id: nextId++, onFrame }
    tell({
      ask: 'play',
      id: played.id,
      medium: wanted.medium,
      grade: wanted.grade,
      asShot: wanted.asShot,
      viewing: wanted.viewing,
      plan,
    })
  }

  onScopeDispose(() => {
    clearTimeout(restTimer)
    worker.terminate()
  })
  return {
    result,
    shown,
    fault,
    settled,
    show,
    playing,
    counts,
    play,
    pause: () => tell({ ask: 'pause' }),
    probe: (x, y) => ask<Probed>((id) => ({ ask: 'probe', id, x, y })),
    light: (instrument, x, y) => ask<Lit>((id) => ({ ask: 'light', id, instrument, x, y })),
    skin: (area, cast) => ask<SkinSampled>((id) => ({ ask: 'skin', id, area, cast })),
    spread: (station, side, bits) => ask<Spread>((id) => ({ ask: 'spread', id, station, side, bits })),
    lookFrom: (reference, skin) => ask<LookTaken>((id) => ({ ask: 'lookFrom', id, reference, skin })),
    keySample: (tap, mode, area) => ask<KeySampled>((id) => ({ ask: 'keySample', id, tap, mode, area })),
    keySpread: (tap) => ask<KeySpreadFound>((id) => ({ ask: 'keySpread', id, tap })),
    placeRegion: (regionId, from) => ask<RegionPlaced>((id) => ({ ask: 'placeRegion', id, regionId, from })),
    matteFacts: (regionId, then) => ask<MatteJudged>((id) => ({ ask: 'matteFacts', id, regionId, then })),
    between: (stepId) => ask<Between>((id) => ({ ask: 'between', id, stepId })),
    colour: (station, side, x, y) => ask<Picked>((id) => ({ ask: 'colour', id, station, side, x, y })),
    losses: (station) => ask<Lit>((id) => ({ ask: 'losses', id, station })),
    reference: (of) => ask<Referenced>((id) => ({ ask: 'reference', id, of })),
  }
}
