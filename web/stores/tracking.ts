// Following a shape: what is asked of the worker, how far it is, why it stopped, and what is done about that.
import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import {
  lastTracked,
  noMotion,
  noMotionYet,
  settledAt,
  shapeAt,
  trackAt,
  trackKindById,
  trackNumbers,
  withKeyframe,
  type Motion,
  type ShapeSource,
  type Track,
  type TrackKind,
} from '@core/regions'
import { changeShapeSource, same } from '@core/grade'
import type { Medium } from '../workers/messages'
import { connect, Overtaken, type Calls } from '../workers/calls'
import type { Followed as FramesFollowed, TrackFunctions, TrackQuestion } from '../workers/track-worker'
import { useGrade } from './grade'
import { useRegions } from './regions'
import { useView } from './view'

export interface Clip {
  readonly medium: Medium
  readonly first: number
  readonly last: number
}
export type Direction = 'backward' | 'both' | 'forward'

export const useTracking = defineStore('tracking', () => {
  const grade = useGrade()
  const regions = useRegions()
  const view = useView()
  const kind = ref<TrackKind>('similarity')
  const running = ref(false)
  const share = ref(0)
  const framesPerSecond = ref(0)
  /** Where and why it ended before the clip did. */
  const stopped = shallowRef<{ readonly frame: number; readonly why: string } | null>(null)
  /** Painted parts of the picture that no point is taken from. */
  const excluded = shallowRef<readonly { readonly x: number; readonly y: number; readonly radius: number }[]>([])
  const painting = ref(false)
  const clip = shallowRef<Clip | null>(null)
  /** Started when something is first followed. */
  let calls: Calls<TrackFunctions> | null = null
  let following = new AbortController()

  interface Followed {
    readonly frames: Map<number, { readonly values: readonly number[]; readonly quality: readonly [number, number] }>
    readonly why: string
    readonly at: number
  }

  /** Follows through some frames; what was followed before it was cancelled counts. */
  async function follow(question: Omit<TrackQuestion, 'excluded'>, done: number, whole: number): Promise<Followed> {
    const frames: Followed['frames'] = new Map()
    calls ??= connect<TrackFunctions>(
      () => new Worker(new URL('../workers/track-worker.ts', import.meta.url), { type: 'module' }),
      'The tracking worker',
    )
    const onEvent = (more: FramesFollowed): void => {
      more.frames.forEach((frame, i) => {
        const values = more.values[i]
        const quality = more.quality[i]
        if (values && quality) frames.set(frame, { values, quality })
      })
      share.value = (done + frames.size) / Math.max(1, whole)
      framesPerSecond.value = more.framesPerSecond
    }
    const asked = { ...question, excluded: excluded.value }
    const { why } = await calls.ask('track', asked, { onEvent, signal: following.signal }).catch((error: Error) => ({
      why: error instanceof Overtaken ? '' : error.message,
    }))
    return { frames, why, at: question.frames[frames.size] ?? question.from }
  }

  /** Begins anew from this frame: the shape is where it should be here. */
  async function start(direction: Direction): Promise<void> {
    const { shape } = regions
    const { value: now } = clip
    if (!shape || !now?.medium.proxy || running.value) return
    const here = view.frame
    const still = settledAt(shape, here)
    const chosen = kind.value
    const base: ShapeSource = { kind: 'shape', shape: still.shape, inner: still.inner, outer: still.outer }
    await run(
      shape,
      base,
      { kind: chosen, reference: here, first: here, values: trackNumbers(chosen, noMotion), quality: [1, 0] },
      shape.motion,
      here,
      direction,
    )
  }
  /** Goes on from this frame, where the shape lies as it does now; frames between are bridged straight. */
  async function goOn(): Promise<void> {
    const { shape } = regions
    const track = shape?.motion?.track
    if (!shape || !track || running.value) return
    await run(shape, shape, track, shape.motion, Math.max(view.frame, lastTracked(track)), 'forward')
  }

  /** `was` is the shape as it stood when it began: what was changed meanwhile is not what was followed. */
  async function run(
    was: ShapeSource,
    base: ShapeSource,
    track: Track,
    before: Motion | undefined,
    from: number,
    direction: Direction,
  ): Promise<void> {
    const { value: now } = clip
    const { shotId } = grade
    const regionId = regions.region?.id
    const componentId = regions.component?.id
    const proxy = now?.medium.proxy
    if (!now || !proxy || shotId === null || regionId === undefined || componentId === undefined) return
    const medium = { ...now.medium, proxy: proxy }
    running.value = true
    following = new AbortController()
    stopped.value = null
    share.value = 0
    const ahead = direction === 'backward' ? [] : range(from + 1, now.last)
    const behind = direction === 'forward' ? [] : range(now.first, from - 1).toReversed()
    const whole = ahead.length + behind.length
    const shape = shapeAt(base, from)
    const motion = trackAt(track, from)
    const found: Followed[] = []
    for (const frames of [ahead, behind])
      if (frames.length > 0 && running.value)
        found.push(
          await follow(
            { medium, from, motion, shape, kind: track.kind, frames },
            found.reduce((n, f) => n + f.frames.size, 0),
            whole,
          ),
        )
    const kept = joined(track, from, new Map(found.flatMap((f) => [...f.frames])))
    const frames = kept.values.length / trackKindById(kept.kind).numbers
    const fresh = before ? { shown: before.shown, fadeFrames: before.fadeFrames, path: before.path } : {}
    let changed = false
    const tracked = (source: ShapeSource): ShapeSource => {
      changed = !same(source, was)
      return changed
        ? source
        : { ...base, motion: { ...(base.motion ?? { ...noMotionYet(regions.aspect), ...fresh }), track: kept } }
    }
    // It belongs to the component that was followed, whatever is open by now.
    grade.editShot(shotId, `Region: tracked ${frames} frames`, (g) =>
      changeShapeSource(g, regionId, componentId, tracked),
    )
    const lost = found.find((f) => f.why !== '')
    if (changed) stopped.value = { frame: from, why: 'the shape was changed meanwhile' }
    else stopped.value = lost ? { frame: lost.at, why: lost.why } : null
    running.value = false
  }

  function cancel(): void {
    running.value = false
    following.abort()
  }
  /** From here on by hand: a keyframe holds the shape where it lies now. */
  const byHand = (): void => {
    regions.editShape('taken over by hand', (source) => withKeyframe(source, view.frame, regions.aspect))
    stopped.value = null
  }
  /** The last frame that was followed and this one become keyframes: the shape goes from one to the other. */
  function bridge(): void {
    regions.editShape('bridged', (source) => {
      const track = source.motion?.track
      if (!track) return source
      const base = source.motion?.keys.some((k) => k.frame === track.reference)
        ? source
        : withKeyframe(source, track.reference, regions.aspect)
      return withKeyframe(withKeyframe(base, lastTracked(track), regions.aspect), view.frame, regions.aspect)
    })
    stopped.value = null
  }
  // A shot that is left is not followed any further.
  watch(
    () => grade.shotId,
    () => {
      if (running.value) cancel()
    },
    { flush: 'sync' },
  )
  watch(
    () => [view.regionId, view.componentId],
    () => {
      stopped.value = null
      excluded.value = []
      painting.value = false
    },
  )
  watch(
    () => view.station,
    () => {
      painting.value = false
    },
  )
  return {
    kind,
    running,
    share,
    framesPerSecond,
    stopped,
    excluded,
    painting,
    clip,
    start,
    goOn,
    cancel,
    byHand,
    bridge,
  }
})

const range = (from: number, to: number): readonly number[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i)

/**
 * A track with newly followed frames in it: those before and behind the old ones are kept, a gap is bridged straight.
 */
function joined(
  track: Track,
  from: number,
  fresh: ReadonlyMap<number, { readonly values: readonly number[]; readonly quality: readonly [number, number] }>,
): Track {
  const { numbers } = trackKindById(track.kind)
  const last = lastTracked(track)
  const known = (frame: number): readonly number[] | undefined =>
    fresh.get(frame)?.values ??
    (frame >= track.first && frame <= last
      ? track.values.slice((frame - track.first) * numbers, (frame - track.first + 1) * numbers)
      : undefined)
  const first = Math.min(track.first, ...fresh.keys())
  const end = Math.max(last, from, ...fresh.keys())
  const values: number[] = []
  const quality: number[] = []
  for (let frame = first; frame <= end; frame++) {
    const own = known(frame)
    values.push(...(own ?? trackNumbers(track.kind, trackAt(track, frame))))
    const measured =
      fresh.get(frame)?.quality ??
      (own ? track.quality.slice((frame - track.first) * 2, (frame - track.first) * 2 + 2) : [0, 0])
    quality.push(...measured)
  }
  return { ...track, first, values, quality }
}
