// Which pixels are lit on the picture and why: those that a station lost, or those behind a reading.
import { ref, watch, type ComputedRef } from 'vue'
import { stations, type StationId } from '@core/grade'
import { hasPixels, readingKey, type Reading } from '@core/readings'
import type { BenchRenderer, Wanted } from '../../../composables/useBenchRenderer'
import type { FrameReadings } from '../../../composables/useReadings'
import { text } from '../text'
import type { Marking } from '../useMarking'
import type { Probing } from '../useProbing'

export function useLitPixels(
  renderer: BenchRenderer,
  readings: FrameReadings,
  marking: Marking,
  probing: Probing,
  wanted: ComputedRef<Wanted | null>,
) {
  /** The key of the reading whose pixels are lit; empty where none are. */
  const litReading = ref('')
  function showLosses(id: StationId | null): void {
    marking.losses.value = id
    litReading.value = ''
    const name = stations.find((s) => s.id === id)?.name ?? ''
    probing.showPixels(id && renderer.ask('losses', { station: id }), (share) => text.litLosses(name, share))
  }
  /** A second click puts the light out again. */
  function showReading(reading: Reading): void {
    const key = readingKey(reading)
    const out = litReading.value === key
    showLosses(null)
    if (out) return
    marking.showReading(reading)
    if (!hasPixels(reading.id)) return
    litReading.value = key
    probing.showPixels(readings.pixelsOf(reading.id), (share) => text.litReading(reading.name, share))
  }
  // What was lit was lit in another picture.
  watch(wanted, (now, before) => {
    const lit = marking.losses.value || litReading.value
    if (lit && (now?.grade !== before?.grade || now?.frameIndex !== before?.frameIndex)) showLosses(null)
  })
  return { litReading, showLosses, showReading }
}
