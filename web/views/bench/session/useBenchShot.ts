// The shot on the Bench: opening it, its footage, the frame that is looked at, and the address that says both.
import { useIntervalFn, watchDebounced } from '@vueuse/core'
import { computed, watch, type Ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { clamp } from '@core/numbers'
import { stations } from '@core/grade'
import { sentenceOf } from '../../../api/client'
import { useOpenShot } from '../../../stores/open-shot'
import { useReel } from '../../../stores/reel'
import { useView } from '../../../stores/view'
import { mediumOf, shownAspect } from '../../../workers/medium'
import type { Medium } from '../../../workers/messages'

const addressRestMs = 250
const proxyPollMs = 2000

export function useBenchShot(shotId: () => string, fault: Ref<string>, playing: Ref<boolean>) {
  const openShot = useOpenShot()
  const reel = useReel()
  const view = useView()
  const route = useRoute()
  const router = useRouter()

  const shot = computed(() => (openShot.shot?.id === shotId() ? openShot.shot : null))
  const first = computed(() => shot.value?.firstFrame ?? 0)
  const last = computed(() => first.value + (shot.value?.frameCount ?? 1) - 1)
  const medium = computed<Medium | null>(() => shot.value && mediumOf(shot.value))
  /** Width / height as the picture is seen. */
  const aspect = computed(() => (shot.value ? shownAspect(shot.value) : 16 / 9))
  /** Conformed footage plays at the rate it was set to. */
  const framesPerSecond = computed(() => {
    const rate = shot.value?.played ?? medium.value?.rate
    return rate ? rate.numerator / rate.denominator : 24
  })

  async function open(id: string): Promise<void> {
    fault.value = ''
    const before = openShot.shot?.id
    try {
      // The frame is chosen before the shot is there: else another is fetched first, in vain.
      const found = await openShot.open(id, ({ firstFrame, frameCount, leadFrame }) => {
        const wanted = Number(route.query['frame'])
        const inShot = wanted >= firstFrame && wanted < firstFrame + frameCount
        view.frame = Number.isInteger(wanted) && inShot ? wanted : leadFrame
      })
      if (!found) return
      const station = stations.find((s) => s.id === route.query['station'])
      if (station) view.station = station.id
      // What was drawn was drawn on another shot.
      if (before !== found.id) view.part = null
      if (reel.current?.project.id !== found.projectId) await reel.load(found.projectId).catch(() => undefined)
    } catch (error) {
      fault.value = sentenceOf(error)
    }
  }
  watch(shotId, (id) => void open(id), { immediate: true })

  // The address follows once the hand rests: a scrub is not a hundred places.
  watchDebounced(
    [() => view.frame, () => view.station, playing],
    () => {
      if (!playing.value && route.name === 'bench' && route.params['shotId'] === shotId())
        void router.replace({ query: { ...route.query, frame: view.frame, station: view.station } })
    },
    { debounce: addressRestMs },
  )
  useIntervalFn(() => {
    if (shot.value && !shot.value.proxy) void openShot.refresh().catch(() => undefined)
  }, proxyPollMs)

  async function makeLead(): Promise<void> {
    try {
      await openShot.setLeadFrame(view.frame)
    } catch (error) {
      fault.value = sentenceOf(error)
    }
  }
  function neighbour(direction: -1 | 1): void {
    const id = direction < 0 ? shot.value?.previousShotId : shot.value?.nextShotId
    if (id) void router.push({ name: 'bench', params: { shotId: id }, query: { station: view.station } })
  }
  return {
    shot,
    first,
    last,
    medium,
    aspect,
    framesPerSecond,
    project: computed(() => (shot.value ? { id: shot.value.projectId, name: shot.value.projectName } : undefined)),
    /** Other shots whose trace may be held as a reference. */
    shotsOfReel: computed(() => {
      const { current } = reel
      return current?.project.id === shot.value?.projectId ? (current?.shots ?? []) : []
    }),
    clampFrame: (frame: number): number => clamp(frame, first.value, last.value),
    makeLead,
    neighbour,
  }
}
export type BenchShot = ReturnType<typeof useBenchShot>
