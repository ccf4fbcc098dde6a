// What an estimate rests on: tones pointed out, the clip's own noise, and other shots of the same scene; and the curve
// that they make.
import { computed, ref, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'
import { encodingById, encodingFromDefinition, middleGrey } from '@core/colour'
import { matchedTones, type CurveEstimate, type Fact, type Patch } from '@core/measure'
import type { ShotDetail, ShotSummary } from '@contracts/responses'
import { sentenceOf } from '../../api/client'
import { useCameraWorker } from '../../composables/useCameraWorker'
import { useReel } from '../../stores/reel'
import { Overtaken } from '../../workers/calls'
import type { ClipTones, CodedClip } from '../../workers/camera-worker'
import { text } from './text'

/** The choice of no other shot. */
export const none = 'none'

export interface Estimating {
  readonly patches: ShallowRef<readonly Patch[]>
  /** What the clip shows of itself; null while it is measured. */
  readonly ours: Readonly<ShallowRef<ClipTones | null>>
  /** Shots of the same scene: by a known camera, and exposed otherwise by so many stops. */
  readonly known: Ref<string>
  readonly exposed: Ref<string>
  readonly byStops: Ref<number>
  readonly others: ComputedRef<readonly { id: string; name: string }[]>
  readonly estimate: Readonly<ShallowRef<CurveEstimate | null>>
  readonly fault: Ref<string>
  readonly say: (error: unknown) => void
}

export const stopsOf = (light: number): number => Math.log2(Math.max(light, 1e-5) / middleGrey)

const clipOf = ({ media }: ShotSummary, frameIndex: number): CodedClip => ({
  mediaHash: media.hash,
  frameIndex,
  range: media.range,
  width: media.width,
  height: media.height,
  frameCount: media.frameCount,
})
/** How sure facts are, in stops: a patch that was drawn over; a scene seen by another camera; one surface twice. */
const unsure = { patch: 0.1, known: 0.3, exposed: 0.12 } as const

export function useEstimate(shot: () => ShotDetail | null, frame: () => number): Estimating {
  const worker = useCameraWorker()
  const reelStore = useReel()
  const patches = shallowRef<readonly Patch[]>([])
  const ours = shallowRef<ClipTones | null>(null)
  const known = ref(none)
  const exposed = ref(none)
  const byStops = ref(1)
  const knownTones = shallowRef<readonly number[]>([])
  const exposedTones = shallowRef<readonly number[]>([])
  const estimate = shallowRef<CurveEstimate | null>(null)
  const fault = ref('')
  const others = computed(() => [
    { id: none, name: text.estimate.none },
    ...(reelStore.current?.shots ?? []).filter((s) => s.id !== shot()?.id).map(({ id, name }) => ({ id, name })),
  ])
  const say = (error: unknown): void => {
    if (!(error instanceof Overtaken)) fault.value = sentenceOf(error)
  }
  watch(
    [() => shot()?.id, frame],
    async ([id], before) => {
      const open = shot()
      if (id !== before[0]) {
        known.value = exposed.value = none
        ours.value = null
      }
      if (!open) return
      try {
        if (reelStore.current?.project.id !== open.projectId) await reelStore.load(open.projectId)
        const tones = await worker.ask('tones', clipOf(open, frame()))
        if (shot()?.id === id) ours.value = tones
      } catch (error) {
        say(error)
      }
    },
    { immediate: true },
  )
  const other = (id: string): ShotSummary | undefined => reelStore.current?.shots.find((s) => s.id === id)
  async function tonesOfShot(id: string): Promise<readonly number[]> {
    const its = other(id)
    return its ? (await worker.ask('tones', clipOf(its, its.leadFrame))).tones : []
  }
  watch(known, async (id) => {
    knownTones.value = []
    const tones = await tonesOfShot(id).catch((error: unknown) => (say(error), []))
    if (known.value === id) knownTones.value = tones
  })
  watch(exposed, async (id) => {
    exposedTones.value = []
    const tones = await tonesOfShot(id).catch((error: unknown) => (say(error), []))
    if (exposed.value === id) exposedTones.value = tones
  })

  const facts = computed<readonly Fact[]>(() => {
    const tones = ours.value?.tones ?? []
    const read = other(known.value)?.read
    const { decode } = read?.own
      ? encodingFromDefinition(read.own).curve
      : encodingById(read?.encodingId ?? 'srgb').curve
    return [
      ...patches.value
        .filter((p) => p.linear > 0)
        .map(({ code, linear }): Fact => ({ kind: 'tone', code, stops: stopsOf(linear), unsure: unsure.patch })),
      ...(knownTones.value.length === tones.length ? matchedTones(tones, knownTones.value) : []).map(
        ({ ours: code, theirs }): Fact => ({
          kind: 'tone',
          code,
          stops: stopsOf(decode(theirs)),
          unsure: unsure.known,
        }),
      ),
      ...(exposedTones.value.length === tones.length ? matchedTones(tones, exposedTones.value) : []).map(
        ({ ours: from, theirs: to }): Fact => ({
          kind: 'apart',
          from,
          to,
          stops: byStops.value,
          unsure: unsure.exposed,
        }),
      ),
    ]
  })
  watch([facts, ours], async () => {
    const tones = ours.value
    if (!tones) {
      estimate.value = null
      return
    }
    try {
      estimate.value = await worker.ask('estimate', { facts: facts.value, noise: tones.noise })
    } catch (error) {
      say(error)
    }
  })
  return { patches, ours, known, exposed, byStops, others, estimate, fault, say }
}
