// A scene as one thing: its shots in reel order, the frame each is looked at by, what they measure, and which two are
// held against each other. What is chosen stands in the address.
import { computed, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { jumpsOf, outlierOf, sceneLines } from '@core/continuity'
import type { ShotMoments, ShotSummary } from '@contracts/responses'
import { request } from '../../api/client'
import { useAttempt } from '../../composables/useAttempt'
import { useFindings } from '../../composables/useFindings'
import { useReel } from '../../stores/reel'
import { useStills } from '../../stores/stills'
import { stillInAddress, type Reference } from './held'
import { text } from './text'

export type FrameChoice = keyof typeof text.frames
export const frameChoices = Object.keys(text.frames) as readonly FrameChoice[]

export function useContinuity(projectId: () => string) {
  const reel = useReel()
  const stills = useStills()
  const route = useRoute()
  const router = useRouter()
  const { fault, attempt } = useAttempt()
  const set = (query: Record<string, string | undefined>): void =>
    void router.replace({ query: { ...route.query, ...query } })

  const current = computed(() => (reel.current?.project.id === projectId() ? reel.current : null))
  const scenes = computed(() => {
    const { scenes: named = [], shots: all = [] } = current.value ?? {}
    const filled = named.filter((s) => all.some((shot) => shot.sceneId === s.id))
    return [
      ...filled.map(({ id, name }) => ({ id, name })),
      ...(filled.length > 0 && all.some((s) => s.sceneId === null) ? [{ id: 'none', name: text.loose }] : []),
      { id: 'all', name: text.whole },
    ]
  })
  const scene = computed(
    () => scenes.value.find((s) => s.id === route.query['scene'])?.id ?? scenes.value[0]?.id ?? 'all',
  )
  const shots = computed<readonly ShotSummary[]>(() =>
    (current.value?.shots ?? []).filter((s) => scene.value === 'all' || (s.sceneId ?? 'none') === scene.value),
  )

  const at = computed(() => frameChoices.find((f) => f === route.query['at']) ?? 'lead')
  const moments = shallowRef<ReadonlyMap<string, ShotMoments>>(new Map())
  const frameOf = (shot: ShotSummary): number => {
    if (at.value === 'lead') return shot.leadFrame
    return moments.value.get(shot.id)?.[at.value] ?? shot.leadFrame
  }
  const load = (): Promise<void> =>
    attempt(async () => {
      const [, found] = await Promise.all([
        reel.load(projectId()),
        request<readonly ShotMoments[]>(`/projects/${encodeURIComponent(projectId())}/moments`),
        stills.load(projectId()),
      ])
      moments.value = new Map(found.map((m) => [m.shotId, m]))
    })
  watch(projectId, () => void load(), { immediate: true })

  /** Groups of shots that look like one set-up and are not linked as one; by their ids. */
  const setups = shallowRef<readonly (readonly string[])[]>([])
  watch(
    () => [projectId(), scene.value, ...shots.value.map((s) => `${s.id} ${s.leadFrame} ${s.setup?.id ?? ''}`)].join(),
    (_, __, onCleanup) => {
      let stale = false
      onCleanup(() => {
        stale = true
      })
      setups.value = []
      if (shots.value.length < 2) return
      request<readonly (readonly string[])[]>(
        `/projects/${encodeURIComponent(projectId())}/setups?scene=${encodeURIComponent(scene.value)}`,
      ).then(
        (found) => {
          if (!stale) setups.value = found
        },
        // It is an offer; without it the scene is all there.
        () => undefined,
      )
    },
    { immediate: true },
  )
  const findings = useFindings(() => shots.value, frameOf, true)
  const lines = computed(() => sceneLines(shots.value.map((s) => findings.value.get(s.id)?.findings ?? null)))
  const shotOf = (id: unknown): ShotSummary | null => current.value?.shots.find((s) => s.id === id) ?? null
  const chosen = computed(() => shots.value.find((s) => s.id === route.query['shot']) ?? null)
  const reference = computed<Reference | null>(() => {
    const { ref } = route.query
    const still = stills.all.find((s) => s.id === stillInAddress(ref))
    if (still) return { kind: 'still', still, of: shotOf(still.from?.shotId) }
    const shot = shotOf(ref)
    return shot && { kind: 'shot', shot, frame: frameOf(shot) }
  })

  return {
    fault,
    attempt,
    current,
    scenes,
    scene,
    shots,
    at,
    frameOf,
    lines,
    jumps: computed(() => jumpsOf(lines.value)),
    odd: computed(() => outlierOf(lines.value)),
    measured: computed(() => shots.value.filter((s) => findings.value.has(s.id)).length),
    setups,
    link: (ids: readonly string[]): Promise<void> => attempt(() => reel.linkShots(ids)),
    chosen,
    reference,
    set,
    load,
    choose: (id: string | undefined): void => set({ shot: id }),
    hold: (id: string | undefined): void => set({ ref: id }),
  }
}
export type Continuity = ReturnType<typeof useContinuity>
