// Windows of the Bench's own, for a second display: instruments, and the picture. They are sent what the Bench shows.
import type { ComputedRef, ShallowRef } from 'vue'
import { useRouter } from 'vue-router'
import type { GradeDocument } from '@core/grade'
import type { InstrumentId } from '@core/instruments'
import type { ShotDetail } from '@contracts/responses'
import type { BenchRenderer } from '../../../composables/useBenchRenderer'
import { useDetachedSender, type DetachedId } from '../../../composables/useDetached'
import { useView } from '../../../stores/view'
import { figuresOf } from '../figures'

interface Sent {
  readonly renderer: Pick<BenchRenderer, 'result' | 'shown'>
  readonly shot: Readonly<ShallowRef<ShotDetail | null>> | ComputedRef<ShotDetail | null>
  readonly document: ComputedRef<GradeDocument | null>
  /** Width by height as the picture is seen. */
  readonly aspect: () => number
  /** Raises the signal to this power for the look alone. */
  readonly exponent: () => number
}

export interface DetachedWindows {
  /** Instruments that stand in windows. */
  readonly detached: ComputedRef<readonly InstrumentId[]>
  /** Opens a window; one that is open comes to the front. */
  readonly detach: (id: DetachedId) => void
}

export function useDetachedWindows({ renderer, shot, document, aspect, exponent }: Sent): DetachedWindows {
  const view = useView()
  const router = useRouter()
  const { bench, detached } = useDetachedSender(
    () => {
      const { value: now } = renderer.result
      if (!now || !shot.value || !document.value) return null
      return {
        kind: 'measure',
        traces: now.traces,
        figures: figuresOf(now.partFacts ?? now.facts),
        settings: view.instruments,
        graticules: view.graticules,
        displayId: document.value.show.displayId,
        tap: view.tap,
        shot: shot.value.name,
      }
    },
    () => {
      const { value: now } = renderer.shown
      if (!now || !shot.value) return null
      return {
        kind: 'picture',
        image: now.picture,
        aspect: aspect(),
        exponent: exponent(),
        shot: shot.value.name,
        label: `${shot.value.name}, frame ${now.frameIndex}`,
      }
    },
  )
  return {
    detached,
    detach: (id) => {
      const query = { bench: bench.value }
      const { href } = router.resolve(
        id === 'picture' ? { name: 'picture', query } : { name: 'instrument', params: { instrument: id }, query },
      )
      const size = id === 'picture' ? 'width=1280,height=720' : 'width=720,height=520'
      window.open(href, `pale-${bench.value}-${id}`, `popup,${size}`)
    },
  }
}
