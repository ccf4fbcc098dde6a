// Picking in the picture for a curve: the curve says what a place begins and what a drag up and down does; the picture
// only points.
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { Side, StationId } from '@core/grade'
import type { PlaceColour } from '@core/instruments'
import type { ToneDistribution } from '../workers/messages'

export interface Picker {
  /** Whose picking this is: a second press of the same button ends it. */
  readonly id: string
  readonly station: StationId
  readonly side: Side
  readonly begin: (colour: PlaceColour) => void
  /** Upward is positive, in shares of the picture's height. */
  readonly drag: (up: number) => void
  readonly end: () => void
}

export const usePicking = defineStore('picking', () => {
  const picker = shallowRef<Picker | null>(null)
  /** What stands before the open station; the Bench keeps it up to date while it is wanted. */
  const wanted = shallowRef<{ readonly station: StationId; readonly side: Side } | null>(null)
  const distribution = shallowRef<ToneDistribution | null>(null)
  const toggle = (next: Picker): void => {
    picker.value = picker.value?.id === next.id ? null : next
  }
  const stop = (): void => {
    picker.value = null
  }
  return { picker, wanted, distribution, active: computed(() => picker.value?.id ?? null), toggle, stop }
})
