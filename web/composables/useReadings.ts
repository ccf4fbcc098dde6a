// The readings of the frame that is looked at, asked for when the picture rests; and, while nothing else is wanted, of
// frames spread over the clip. They are held against the standard here, so that another standard counts at once.
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'
import { coarseToFine } from '@core/instruments'
import {
  judge,
  knownCast,
  nothingPointed,
  readingKey,
  type Cast,
  type Finding,
  type HouseStandard,
  type Pointed,
  type Reading,
  type ReadingId,
} from '@core/readings'
import { connect, Overtaken } from '../workers/calls'
import type { Lit } from '../workers/messages'
import type { ReadingsFunctions, ReadPicture } from '../workers/readings-worker'

/** A reading where it lies furthest outside, over the frames of the clip that were looked at. */
export interface ClipWorst {
  readonly reading: Reading
  readonly frame: number
}
export interface OverClip {
  readonly worst: ReadonlyMap<string, ClipWorst>
  /** Frames looked at, and all of them. */ readonly seen: number
  readonly all: number
}

export interface FrameReadings {
  readonly readings: ComputedRef<readonly Reading[]>
  /** What they rest on, before any standard. */
  readonly findings: Readonly<ShallowRef<readonly Finding[]>>
  /** By the key of a reading; only those that lie outside somewhere. */
  readonly clip: ComputedRef<OverClip>
  /** The cast of the light, as far as it is known. */
  readonly cast: ComputedRef<Pick<Cast, 'mired' | 'duv'> | null>
  /** False while the numbers are of an earlier picture, or not all there yet. */
  readonly fresh: Ref<boolean>
  readonly fault: Ref<string>
  /** The pixels behind a reading of the frame that is looked at, to lay over the picture. */
  readonly pixelsOf: (id: ReadingId) => Promise<Lit>
}

/** A hand that moves on at once finds both cores free. */
const restMs = 350
/** The clip is looked through only when nobody does anything for a while. */
const idleMs = 2500

/** What the readings are of: a picture, and what was pointed out in it. */
export type ReadingsSubject = ReadPicture & { readonly pointed: Pointed }

/**
 * `subject` is null while the picture moves. `clip` is the range of frames to look through: all of them,
 * coarsely first.
 */
export function useReadings(
  subject: () => ReadingsSubject | null,
  standard: () => HouseStandard,
  clip: () => { readonly first: number; readonly last: number },
): FrameReadings {
  const calls = connect<ReadingsFunctions>(
    () => new Worker(new URL('../workers/readings-worker.ts', import.meta.url), { type: 'module' }),
    'The readings',
  )
  const findings = shallowRef<readonly Finding[]>([])
  const seen = ref(0)
  const fresh = ref(false)
  const fault = ref('')
  let overClip: { readonly frame: number; readonly findings: readonly Finding[] }[] = []
  let order: readonly number[] = []
  let clipOf: { readonly hash: string; readonly grade: object } | null = null
  let timer: ReturnType<typeof setTimeout> | undefined
  /** What is under way; a change of the picture overtakes it. */
  let running = new AbortController()

  function overtake(): AbortSignal {
    clearTimeout(timer)
    running.abort()
    running = new AbortController()
    return running.signal
  }
  /** Measures the frame that is looked at; then, while nothing else is wanted, the clip. */
  async function measure(now: ReadingsSubject, signal: AbortSignal): Promise<void> {
    try {
      // All at once, so that rows do not jump while the parts come in.
      findings.value = await calls.ask('measure', now, { signal })
      fault.value = ''
      fresh.value = true
    } catch (error) {
      if (error instanceof Overtaken) return
      fault.value = error instanceof Error ? error.message : String(error)
    }
    if (!signal.aborted) timer = setTimeout(() => void analyseFrames(now, signal), idleMs)
  }
  async function analyseFrames(now: ReadingsSubject, signal: AbortSignal): Promise<void> {
    for (const frameIndex of order.slice(overClip.length)) {
      const found = await calls
        .ask('measure', { ...now, frameIndex, pointed: nothingPointed }, { signal })
        // A frame that cannot be had is passed over.
        .catch(() => [])
      if (signal.aborted) return
      overClip.push({ frame: frameIndex, findings: found })
      seen.value = overClip.length
    }
  }
  async function pixelsOf(of: ReadingId): Promise<Lit> {
    const now = subject()
    const signal = overtake()
    const none = { lit: null, share: 0 }
    if (!now) return none
    // The picture itself says what is wrong.
    const lit = await calls.ask('pixels', { ...now, of }, { signal }).catch(() => none)
    if (!signal.aborted)
      timer = setTimeout(() => void (fresh.value ? analyseFrames : measure)(now, signal), fresh.value ? idleMs : 0)
    return lit
  }
  watch(
    subject,
    (now) => {
      fresh.value = false
      const signal = overtake()
      if (!now) return
      if (clipOf?.hash !== now.medium.hash || clipOf.grade !== now.grade) {
        const { first, last } = clip()
        clipOf = { hash: now.medium.hash, grade: now.grade }
        overClip = []
        order = coarseToFine(last - first + 1).map((i) => first + i)
        seen.value = 0
      }
      timer = setTimeout(() => void measure(now, signal), restMs)
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    overtake()
    calls.close()
  })

  const readings = computed(() => judge(findings.value, standard()))
  // Frame by frame, so that a long clip is not judged anew at each; anew only when the standard or the clip is another
  // one.
  let worst = new Map<string, ClipWorst>()
  let judged = 0
  let judgedOf: { readonly standard: HouseStandard; readonly frames: object } | null = null
  const clipWorst = computed(() => {
    const held = standard()
    if (judgedOf?.standard !== held || judgedOf.frames !== overClip) {
      judgedOf = { standard: held, frames: overClip }
      worst = new Map()
      judged = 0
    }
    for (const { frame, findings: found } of overClip.slice(judged, seen.value)) {
      judged++
      for (const reading of judge(found, held)) {
        const key = readingKey(reading)
        if (reading.weight > (worst.get(key)?.reading.weight ?? 0)) worst.set(key, { reading, frame })
      }
    }
    return { worst, seen: seen.value, all: order.length }
  })
  return {
    readings,
    findings,
    clip: clipWorst,
    pixelsOf,
    cast: computed(() => knownCast(findings.value)),
    fresh,
    fault,
  }
}
