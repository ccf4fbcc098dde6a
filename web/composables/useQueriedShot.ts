// The shot and frame that an address asks for, where a view is about more than one shot: ?shot=…&frame=….
import { computed, watch, type ComputedRef } from 'vue'
import { useRoute } from 'vue-router'
import type { ShotDetail } from '@contracts/responses'
import { sentenceOf } from '../api/client'
import { useOpenShot } from '../stores/open-shot'

/**
 * Opens the shot when the address names another; null until it is there. The frame is held to the shot, and is its lead
 * frame where none is named.
 */
export function useQueriedShot(failed: (sentence: string) => void): {
  readonly shot: ComputedRef<ShotDetail | null>
  readonly frame: ComputedRef<number>
} {
  const openShot = useOpenShot()
  const route = useRoute()
  const shotId = computed(() => (typeof route.query['shot'] === 'string' ? route.query['shot'] : null))
  const shot = computed(() => (openShot.shot?.id === shotId.value ? openShot.shot : null))
  const frame = computed(() => {
    const open = shot.value
    const asked = Number(route.query['frame'] ?? NaN)
    return open && Number.isInteger(asked) && asked >= open.firstFrame && asked < open.firstFrame + open.frameCount
      ? asked
      : (open?.leadFrame ?? 0)
  })
  watch(
    shotId,
    async (id) => {
      if (id === null || openShot.shot?.id === id) return
      try {
        await openShot.open(id)
      } catch (error) {
        failed(sentenceOf(error))
      }
    },
    { immediate: true },
  )
  return { shot, frame }
}
