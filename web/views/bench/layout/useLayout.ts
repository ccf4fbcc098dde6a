// The room on the Bench: how wide the picture is, how high the Meridian stands, and the picture on the whole screen.
import { useEventListener } from '@vueuse/core'
import { computed, onScopeDispose, watch, type ComputedRef } from 'vue'
import { useEscape } from '../../../composables/useEscape'
import type { BenchLayout } from '../../../stores/kept-settings'
import { useView } from '../../../stores/view'

/** Heights of the Meridian, in pixels. */
const meridianPx: Readonly<Record<BenchLayout['meridian'], number>> = { folded: 26, usual: 116, tall: 264 }
/** What stands over and under the picture beside the Meridian: header, transport, the station's controls. */
const otherRowsPx = 352
/** What is left to the instruments at least. */
const besidePx: Readonly<Record<BenchLayout['arrangement'], string>> = {
  balanced: 'var(--beside)',
  picture: '300px',
  instruments: '64vw',
}

/** The properties that the Bench's style reads: `--meridian` and `--picture`. */
export function useLayout(): ComputedRef<Readonly<Record<string, string>>> {
  const view = useView()
  return computed(() => {
    const { arrangement, meridian, pictureShare } = view.layout
    const fitting =
      `min(calc(100vw - ${besidePx[arrangement]}), ` +
      `calc((100vh - ${otherRowsPx + meridianPx[meridian]}px) * 16 / 9))`
    return {
      '--meridian': `${meridianPx[meridian]}px`,
      '--picture': pictureShare === null ? fitting : `${(pictureShare * 100).toFixed(2)}vw`,
    }
  })
}

/**
 * Puts the page on the whole screen while the picture is to stand alone. Where the system does not give the screen, the
 * picture fills the window.
 */
export function usePictureAlone(): void {
  const view = useView()
  const leave = (): void => {
    view.pictureAlone = false
  }
  useEscape(() => view.pictureAlone, leave)
  // Whoever leaves the whole screen by the system's own key wants the Bench back.
  useEventListener(document, 'fullscreenchange', () => {
    if (!document.fullscreenElement) leave()
  })
  watch(
    () => view.pictureAlone,
    (alone) => {
      if (alone) void document.documentElement.requestFullscreen().catch(() => undefined)
      else if (document.fullscreenElement) void document.exitFullscreen().catch(() => undefined)
    },
  )
  onScopeDispose(leave)
}
