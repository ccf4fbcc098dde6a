// The tour of the Bench: seven stops, to be left and taken up again.
import { useLocalStorage, usePreferredReducedMotion } from '@vueuse/core'
import { onScopeDispose, watch } from 'vue'
import type { Driver } from 'driver.js'
import { useView } from '../../stores/view'
import { tourText } from './tour-text'

const stepOf = (stored: number): number =>
  Number.isInteger(stored) && stored >= 0 && stored < tourText.steps.length ? stored : 0

/** `ready` says when the parts that it shows are there. */
export function useTour(ready: () => boolean): void {
  const view = useView()
  const motion = usePreferredReducedMotion()
  /** Where it was left; at the beginning once it was seen to its end. */
  const at = useLocalStorage('pale-tour', 0)
  let driver: Driver | null = null

  async function start(): Promise<void> {
    const [{ driver: make }] = await Promise.all([import('driver.js'), import('driver.js/dist/driver.css')])
    if (!view.touring || driver) return
    const last = tourText.steps.length - 1
    driver = make({
      steps: tourText.steps.map(({ at: element, title, words }) => ({
        element,
        popover: { title, description: words },
      })),
      animate: motion.value !== 'reduce',
      showProgress: true,
      progressText: tourText.progress,
      nextBtnText: tourText.next,
      prevBtnText: tourText.before,
      doneBtnText: tourText.done,
      popoverClass: 'tour',
      overlayColor: '#000',
      overlayOpacity: 0.45,
      stagePadding: 2,
      stageRadius: 2,
      // The package marks its box as a page of its own, and what it shows as a button.
      onPopoverRender: ({ title, footer }, { state }) => {
        title.setAttribute('role', 'presentation')
        footer.setAttribute('role', 'group')
        at.value = stepOf(state.activeIndex ?? 0)
      },
      // It marks them after this call, and before anything else runs.
      onHighlightStarted: (element) => {
        queueMicrotask(() => {
          for (const name of ['aria-expanded', 'aria-haspopup', 'aria-controls']) element?.removeAttribute(name)
        })
      },
      onDestroyed: () => {
        // Seen to its end, it begins anew.
        if (at.value >= last) at.value = 0
        driver = null
        view.touring = false
      },
    })
    driver.drive(stepOf(at.value))
  }
  watch(
    [() => view.touring, ready] as const,
    ([touring, is]) => {
      if (touring && is) void start()
      else if (!touring) driver?.destroy()
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    driver?.destroy()
    view.touring = false
  })
}
