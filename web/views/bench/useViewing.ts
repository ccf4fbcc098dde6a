// How the picture is looked at, as the worker needs it: which instruments, limited to what, with which marks; and the
// reference trace.
import { computed, shallowRef, type ComputedRef } from 'vue'
import type { ShotDetail } from '@contracts/responses'
import type { InstrumentId, Part } from '@core/instruments'
import type { Area } from '@core/readings'
import { request, sentenceOf } from '../../api/client'
import type { BenchRenderer } from '../../composables/useBenchRenderer'
import { useOpenShot } from '../../stores/open-shot'
import { useView } from '../../stores/view'
import { mediumOf } from '../../workers/medium'
import type { Viewed, Viewing } from '../../workers/messages'

export interface BenchViewing {
  readonly viewing: ComputedRef<Viewing>
  readonly setVisible: (ids: readonly InstrumentId[]) => void
  /**
   * Holds the present trace, that of another shot's lead frame (by its id), or none. Holding again what is held lets it
   * go.
   */
  readonly toggleReference: (of: 'this' | string | null) => Promise<void>
}

export function useViewing(
  renderer: Pick<BenchRenderer, 'ask'>,
  detached: () => readonly InstrumentId[],
  subject: () => Area | null,
  onFault: (sentence: string) => void,
): BenchViewing {
  const view = useView()
  const openShot = useOpenShot()
  // A worker that has just started holds no trace.
  view.reference = false
  const inColumn = shallowRef<readonly InstrumentId[]>([])
  const revision = shallowRef(0)
  const followed = computed<Part | null>(() => {
    const area = subject()
    return area && { kind: 'box', ...area }
  })
  const viewing = computed<Viewing>(() => {
    // A newly held trace is another way of looking, though nothing else changed.
    void revision.value
    return {
      instruments: view.instruments,
      visible: [...new Set([...inColumn.value, ...detached()])],
      tap: view.tap,
      part: view.part,
      follow: view.part ?? followed.value,
      overlay: view.overlay,
      matte:
        view.matteView && view.regionId !== null && view.station === 'regions'
          ? { regionId: view.regionId, view: view.matteView }
          : null,
      reference: view.reference,
    }
  })
  async function toggleReference(of: 'this' | string | null): Promise<void> {
    const wanted = of === 'this' && view.reference ? null : of
    try {
      let what: 'this' | (Viewed & { readonly frameIndex: number }) | null = null
      if (wanted === 'this') what = 'this'
      else if (wanted) {
        const other =
          openShot.shot?.id === wanted
            ? openShot.shot
            : await request<ShotDetail>(`/shots/${encodeURIComponent(wanted)}`)
        what = {
          medium: mediumOf(other),
          frameIndex: other.leadFrame,
          grade: other.revision.grade,
          asShot: false,
          viewing: viewing.value,
        }
      }
      view.reference = await renderer.ask('reference', { of: what })
      revision.value++
    } catch (error) {
      onFault(sentenceOf(error))
    }
  }
  return {
    viewing,
    setVisible: (ids) => {
      inColumn.value = ids
    },
    toggleReference,
  }
}
