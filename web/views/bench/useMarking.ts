// Marks and parts on the picture, stations as a whole: what is laid over the picture, what is measured, what is left
// out.
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import {
  setStationStrength,
  setStep,
  stations,
  stationStrength,
  withoutStation,
  type GradeDocument,
  type StationId,
} from '@core/grade'
import { overlayById, overlays, type DrawnPart, type OverlayId } from '@core/instruments'
import type { Reading } from '@core/readings'
import type { Region } from '@core/regions'
import { sameWhileEqual } from '../../composables/sameWhileEqual'
import { useGrade } from '../../stores/grade'
import { useView } from '../../stores/view'

export interface Marking {
  readonly setOverlay: (id: OverlayId | '') => void
  readonly nextOverlay: () => void
  readonly setZebra: (band: { readonly low: number; readonly high: number }) => void
  readonly drawnPart: ComputedRef<DrawnPart | null>
  readonly setPart: (part: DrawnPart | null) => void
  /** A box in the middle to begin with, for those who work by keys; the open region in Regions. */
  readonly togglePart: () => void
  /** Marks the pixels a reading counts, where there are marks for it; limits the instruments to where it rests. */
  readonly showReading: (reading: Reading) => void
  /** Of the stations that do something. */
  readonly strengths: ComputedRef<Readonly<Partial<Record<StationId, number>>>>
  readonly setStrength: (id: StationId, value: number) => void
  /** Leaves a station out for a look; one that does nothing cannot be left out. */
  readonly bypass: (id: StationId | null) => void
  /** While the key is down: the step of the control that has the focus is left out, else the open station. */
  readonly bypassByKey: (down: boolean) => void
  /** The grade as it is looked at: without the station that is left out. */
  readonly seenGrade: ComputedRef<GradeDocument | null>
  readonly losses: Ref<StationId | null>
}

const stationName = (id: StationId): string => stations.find((s) => s.id === id)?.name ?? id

export function useMarking(region: () => Region | null): Marking {
  const view = useView()
  const grade = useGrade()
  const losses = ref<StationId | null>(null)
  const setOverlay = (id: OverlayId | ''): void => {
    view.overlay = id === '' ? null : { id, zebra: view.zebra }
  }
  function setZebra(zebra: { readonly low: number; readonly high: number }): void {
    view.zebra = zebra
    if (view.overlay) view.overlay = { ...view.overlay, zebra }
  }
  const strengths = sameWhileEqual(
    () =>
      Object.fromEntries(
        stations.flatMap(({ id }) => {
          const s = grade.document && stationStrength(grade.document, id)
          return s === null ? [] : [[id, s]]
        }),
      ) as Partial<Record<StationId, number>>,
  )
  watch(
    () => region()?.id,
    (now) => {
      if (view.part?.kind === 'region') view.part = now === undefined ? null : { kind: 'region', regionId: now }
    },
  )
  const bypass = (id: StationId | null): void => {
    view.bypassed = id !== null && strengths.value[id] !== undefined ? id : null
  }
  return {
    setOverlay,
    setZebra,
    strengths,
    losses,
    bypass,
    bypassByKey: (down) => {
      const step = window.document.activeElement?.closest<HTMLElement>('[data-step]')?.dataset['step'] ?? null
      view.withoutStep = down ? step : null
      bypass(down && step === null ? view.station : null)
    },
    nextOverlay: () => {
      const at = view.overlay ? overlays.indexOf(overlayById(view.overlay.id)) : -1
      setOverlay(overlays[at + 1]?.id ?? '')
    },
    drawnPart: computed(() => (view.part && view.part.kind !== 'region' ? view.part : null)),
    setPart: (part) => {
      view.part = part
    },
    togglePart: () => {
      const open = view.station === 'regions' ? region() : null
      if (view.part) view.part = null
      else if (open) view.part = { kind: 'region', regionId: open.id }
      else view.part = { kind: 'box', left: 0.4, top: 0.4, right: 0.6, bottom: 0.6 }
    },
    showReading: ({ id, area }) => {
      const marks = overlays.find((o) => o.id === id)
      if (marks) setOverlay(marks.id)
      if (area) view.part = { kind: 'box', ...area }
    },
    setStrength: (id, value) =>
      grade.edit(`${stationName(id)} at ${Math.round(value * 100)} %`, (g) => setStationStrength(g, id, value)),
    seenGrade: computed(() => {
      const { document } = grade
      if (document && view.withoutStep !== null && document.steps.some((s) => s.id === view.withoutStep))
        return setStep(document, view.withoutStep, { enabled: false })
      if (document && view.soloId !== null && document.regions.some((r) => r.id === view.soloId))
        return { ...document, regions: document.regions.map((r) => ({ ...r, enabled: r.id === view.soloId })) }
      return document && view.bypassed ? withoutStation(document, view.bypassed) : document
    }),
  }
}
