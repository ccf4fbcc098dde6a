// Keeps the Bench's picture up to date: one request at a time, the latest wins, a finer one when the hand rests. And
// plays. Questions about the picture are asked of the worker by their names.
import { onScopeDispose, ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import { dragSize, restSize, type LatticeSize } from '@core/grade'
import type { TraceImage } from '@core/instruments'
import { benchWorker, prepareBenchWorker } from '../workers/prepared'
import type { BenchFunctions } from '../workers/bench-worker'
import { connect, Overtaken, type Calls } from '../workers/calls'
import type {
  Look,
  Measured,
  PlayedFrame,
  PlayRequest,
  Rendered,
  RenderRequest,
  RenderResult,
  Viewed,
} from '../workers/messages'
import type { PlayCounts, PlayPlan } from '../workers/player'

export type Wanted = Viewed & Pick<RenderRequest, 'frameIndex'>

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
   * Asks for a picture; an older request that has not started is forgotten. While playing, the way of looking changes
   * and the frames go on.
   */
  readonly show: (wanted: Wanted) => void
  readonly playing: Ref<boolean>
  readonly counts: ShallowRef<PlayCounts | null>
  readonly play: (wanted: Wanted, plan: PlayPlan, onFrame: (index: number) => void) => void
  /** Plays clips one after another; the plan counts through all of them. Stays at the last picture. */
  readonly playClips: (request: PlayRequest, onFrame: (place: number) => void) => void
  /** Another way of looking at clips that play. */
  readonly lookAt: (look: Look) => void
  readonly pause: () => void
  /** A question about the last picture. */
  readonly ask: Calls<BenchFunctions>['ask']
}

const restMs = 140

export function useBenchRenderer(): BenchRenderer {
  const { ask, tell, close } = connect<BenchFunctions>(benchWorker, 'The picture worker')
  prepareBenchWorker()
  /** Pixels of the picture before: nothing shows them any more. */
  let back: ArrayBuffer | undefined
  const takeBack = (): { readonly back: ArrayBuffer | undefined; readonly transfer: Transferable[] } => {
    const taken = back
    back = undefined
    return { back: taken, transfer: taken ? [taken] : [] }
  }
  function putOnScreen(picture: Shown): void {
    back = shown.value?.picture.rgba.buffer as ArrayBuffer | undefined
    shown.value = picture
  }
  const result = shallowRef<RenderResult | null>(null)
  const shown = shallowRef<Shown | null>(null)
  const fault = ref('')
  const settled = ref(false)
  const playing = ref(false)
  const counts = shallowRef<PlayCounts | null>(null)
  let inFlight: RenderRequest | null = null
  let waiting: Wanted | null = null
  let latest: Wanted | null = null
  let restTimer: ReturnType<typeof setTimeout> | undefined

  function send(wanted: Wanted, size: LatticeSize): void {
    const { back: returned, transfer } = takeBack()
    const request: RenderRequest = { ...wanted, size, back: returned }
    inFlight = request
    ask('render', request, { transfer }).then(
      (rendered) => answered(request, () => draw(rendered), rendered),
      (error: Error) =>
        answered(request, () => {
          fault.value = error.message
        }),
    )
  }
  function draw(rendered: Rendered): void {
    fault.value = ''
    if (playing.value) return
    putOnScreen(rendered)
    put(rendered, rendered.measured)
  }
  /** The newest picture; what was not measured of it stays as it was. */
  function put({ picture: _, measured: __, ...facts }: Rendered, measured: Measured | null): void {
    const before = result.value
    const now = measured ?? before
    if (!now) return
    const { traces, facts: pictureFacts, partFacts } = now
    result.value = {
      traces,
      facts: pictureFacts,
      partFacts,
      ...facts,
      meridian: facts.meridian ?? before?.meridian ?? null,
    }
  }
  /** What comes after an answer. An overtaken request's own answer changes nothing. */
  function answered(request: RenderRequest, take: () => void, rendered?: Rendered): void {
    if (request !== inFlight) return
    inFlight = null
    take()
    if (playing.value) return
    if (waiting) {
      const wanted = waiting
      waiting = null
      send(wanted, dragSize)
    } else if (rendered?.size === dragSize) {
      clearTimeout(restTimer)
      restTimer = setTimeout(() => {
        if (latest && !inFlight && !playing.value) send(latest, restSize)
      }, restMs)
    } else if (rendered) {
      settled.value = true
    }
  }

  function show(wanted: Wanted): void {
    clearTimeout(restTimer)
    const before = latest
    latest = wanted
    settled.value = false
    if (playing.value) {
      // Frames move by themselves; only another look is told.
      const { grade, asShot, viewing } = wanted
      if (before?.grade !== grade || before.asShot !== asShot || before.viewing !== viewing)
        tell('changeLook', { grade, asShot, viewing })
      return
    }
    // A finer picture of another frame is not waited for: the worker drops it when it is overtaken.
    if (inFlight && !(inFlight.size === restSize && inFlight.frameIndex !== wanted.frameIndex)) waiting = wanted
    else send(wanted, dragSize)
  }

  let plays = 0
  function play(wanted: Wanted, plan: PlayPlan, onFrame: (index: number) => void): void {
    const { medium, grade, asShot, viewing } = wanted
    const { first, last } = medium.span
    const clip = { medium, grade, first, count: last - first + 1, at: first }
    run(wanted, { clips: [clip], asShot, viewing, plan }, onFrame)
  }
  function run(wanted: Wanted | null, request: PlayRequest, onFrame: (place: number) => void): void {
    clearTimeout(restTimer)
    waiting = null
    latest = wanted
    settled.value = false
    playing.value = true
    counts.value = null
    fault.value = ''
    const mine = ++plays
    function onEvent(played: PlayedFrame): void {
      if (mine !== plays) return
      putOnScreen(played)
      const facts = { size: dragSize, source: 'proxy', meridian: null, partMeridian: null, accuracy: null } as const
      if (played.measured) put({ ...played, ...facts }, played.measured)
      counts.value = played.counts
      onFrame(played.frameIndex)
      // Put on the canvas first, then asked for more.
      requestAnimationFrame(() => {
        const { back: returned, transfer } = takeBack()
        tell('pictureIsOnScreen', { back: returned }, transfer)
      })
    }
    ask('play', request, { onEvent }).then(
      ({ frameIndex, counts: played }) => {
        if (mine !== plays) return
        playing.value = false
        if (played.shown > 0) counts.value = played
        // The last frame may have been dropped: what stands is told all the same.
        onFrame(frameIndex)
        if (latest) show({ ...latest, frameIndex })
      },
      (error: Error) => {
        if (mine !== plays || error instanceof Overtaken) return
        playing.value = false
        fault.value = error.message
      },
    )
  }

  onScopeDispose(() => {
    clearTimeout(restTimer)
    close()
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
    playClips: (request, onFrame) => run(null, request, onFrame),
    lookAt: (look) => {
      if (playing.value) tell('changeLook', look)
    },
    pause: () => tell('pause', undefined),
    ask,
  }
}
