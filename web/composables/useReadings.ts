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
  type Reading,
  type ReadingId,
} from '@core/readings'
import type { MarkedAnswer, ReadingsAnswer, ReadingsRequest } from '../workers/readings-messages'

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
  readonly pixelsOf: (id: ReadingId) => Promise<Pick<MarkedAnswer, 'lit' | 'share'>>
}

/** A hand that moves on at once finds both cores free. */
const restMs = 350
/** The clip is looked through only when nobody does anything for a while. */
const idleMs = 2500

/**
 * `subject` is null while the picture moves. `clip` is the piece of footage to look through: every frame of it,
 * coarsely first.
 */
export function useReadings(
  subject: () => Omit<ReadingsRequest, 'id'> | null,
  standard: () => HouseStandard,
  clip: () => { readonly first: number; readonly last: number },
): FrameReadings {
  const worker = new Worker(new URL('../workers/readings-worker.ts', import.meta.url), { type: 'module' })
  const findings = shallowRef<readonly Finding[]>([])
  const seen = ref(0)
  let overClip: { readonly frame: number; readonly findings: readonly Finding[] }[] = []
  let order: readonly number[] = []
  const fresh = ref(false)
  const fault = ref('')
  let id = 0
  let coming: Finding[] = []
  let timer: ReturnType<typeof setTimeout> | undefined
  let marked: ((answer: MarkedAnswer) => void) | null = null
  let clipFrame: number | null = null
  let clipOf: { readonly mediaHash: string; readonly grade: object } | null = null

  function ask(request: Omit<ReadingsRequest, 'id'>): void {
    id++
    coming = []
    worker.postMessage({ ...request, id } satisfies ReadingsRequest)
  }
  /** The next frame of the clip that was not looked at yet. */
  function goOn(): void {
    const now = subject()
    const next = order[overClip.length]
    if (!now || next === undefined) return
    clipFrame = next
    ask({ ...now, frameIndex: next, pointed: nothingPointed })
  }
  worker.onmessage = ({ data }: MessageEvent<ReadingsAnswer | MarkedAnswer>) => {
    if (data.id !== id) return
    if ('lit' in data) {
      marked?.(data)
      marked = null
      const now = subject()
      if (now)
        timer = setTimeout(
          () => {
            if (fresh.value) goOn()
            else ask(now)
          },
          fresh.value ? idleMs : 0,
        )
      return
    }
    coming.push(...data.findings)
    if (!data.done) return
    if (clipFrame !== null) {
      // A frame that cannot be had is passed over.
      overClip.push({ frame: clipFrame, findings: coming })
      seen.value = overClip.length
      goOn()
      return
    }
    fault.value = data.fault
    // All at once, so that rows do not jump while the parts come in.
    findings.value = coming
    fresh.value = data.fault === ''
    timer = setTimeout(goOn, idleMs)
  }
  worker.onerror = (event) => {
    event.preventDefault()
    fault.value = 'The readings stopped. Reload the page.'
  }
  /** What is under way counts no more. */
  function leave(): void {
    id++
    clipFrame = null
    clearTimeout(timer)
    marked?.({ id, lit: null, share: 0 })
    marked = null
  }
  function pixelsOf(of: ReadingId): Promise<MarkedAnswer> {
    const now = subject()
    leave()
    if (!now) return Promise.resolve({ id, lit: null, share: 0 })
    ask({ ...now, marks: of })
    return new Promise((done) => {
      marked = done
    })
  }
  watch(
    subject,
    (now) => {
      fresh.value = false
      leave()
      // A measurement under way stops at its next part.
      worker.postMessage(null)
      if (!now) return
      if (clipOf?.mediaHash !== now.mediaHash || clipOf.grade !== now.grade) {
        const { first, last } = clip()
        clipOf = now
        overClip = []
        order = coarseToFine(last - first + 1).map((i) => first + i)
        seen.value = 0
      }
      timer = setTimeout(() => ask(now), restMs)
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    clearTimeout(timer)
    worker.terminate()
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
