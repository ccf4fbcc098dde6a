// View state: what this person looks at right now. The route carries frame and station; the rest lives only here.
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { StationId } from '@core/index'

export type Surround = 'dark' | 'black' | 'grey' | 'white'
export type InstrumentId = 'waveform' | 'parade' | 'vectorscope'

export const useView = defineStore('view', () => {
  const frame = ref(0)
  const station = shallowRef<StationId>('level')
  const asShot = ref(false)
  const regionId = shallowRef<string | null>(null)
  const surround = shallowRef<Surround>('dark')
  /** The instrument that fills the column, if one does. */
  const filling = shallowRef<InstrumentId | null>(null)
  const showKeys = ref(false)
  return { frame, station, asShot, regionId, surround, filling, showKeys }
})
