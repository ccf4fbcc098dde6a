// View state: what this person looks at right now. The route carries frame and station; how the instruments are set stays in this browser.
import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { defaultInstruments, instrumentIds, type InstrumentId, type InstrumentSettings, type OverlaySettings, type Part, type StationId } from '@core/index'

export type Surround = 'dark' | 'black' | 'grey' | 'white'

/** How the instruments are drawn, beyond what is counted. */
export interface Graticules {
  readonly scale: 'percent' | 'codes' | 'light'
  /** 0..1 of the lines and labels. */
  readonly brightness: number
  /** Share of the earlier trace that stays from picture to picture while playing, 0..0.95. */
  readonly persistence: number
  readonly skinDegrees: number
  readonly targets: 75 | 100
}
const defaultGraticules: Graticules = { scale: 'percent', brightness: 0.55, persistence: 0, skinDegrees: 123, targets: 75 }
const defaultSlots: readonly InstrumentId[] = ['waveform', 'parade', 'vectorscope']
const allowed = {
  waveform: ['luma', 'rgb', 'chroma'], parade: ['rgb', 'ycbcr'], histogram: ['luma', 'rgb'], histogramScale: ['linear', 'log'], vectorZoom: [1, 2, 4, 8], vectorColoured: [true, false],
} as const

/** What was stored may be old, or anything at all: only what still makes sense is taken. */
export function soundInstruments(stored: unknown): InstrumentSettings {
  const from = (typeof stored === 'object' && stored !== null ? stored : {}) as Record<string, unknown>
  const kept = Object.entries(allowed).filter(([key, values]) => (values as readonly unknown[]).includes(from[key])).map(([key]) => [key, from[key]])
  const gain = typeof from['gain'] === 'number' && from['gain'] >= 0.25 && from['gain'] <= 4 ? from['gain'] : defaultInstruments.gain
  return { ...defaultInstruments, ...(Object.fromEntries(kept) as Partial<InstrumentSettings>), gain }
}
export function soundSlots(stored: unknown): readonly InstrumentId[] {
  return defaultSlots.map((own, i) => { const id = Array.isArray(stored) ? (stored[i] as unknown) : null; return instrumentIds.includes(id as InstrumentId) ? (id as InstrumentId) : own })
}
function soundGraticules(stored: unknown): Graticules {
  const from = (typeof stored === 'object' && stored !== null ? stored : {}) as Partial<Record<keyof Graticules, unknown>>
  const number = (key: 'brightness' | 'persistence' | 'skinDegrees', low: number, high: number): number => { const v = from[key]; return typeof v === 'number' && v >= low && v <= high ? v : defaultGraticules[key] }
  return {
    scale: from.scale === 'codes' || from.scale === 'light' ? from.scale : 'percent', targets: from.targets === 100 ? 100 : 75,
    brightness: number('brightness', 0.1, 1), persistence: number('persistence', 0, 0.95), skinDegrees: number('skinDegrees', 90, 150),
  }
}

/** A setting in this browser's storage that is checked when it is read. */
function kept<T>(key: string, initial: T, sound: (stored: unknown) => T) {
  return useLocalStorage<T>(key, initial, {
    shallow: true,
    serializer: {
      read: (text) => {
        try {
          return sound(JSON.parse(text))
        } catch {
          return initial
        }
      },
      write: (value) => JSON.stringify(value),
    },
  })
}

export const useView = defineStore('view', () => {
  const frame = ref(0)
  const station = shallowRef<StationId>('level')
  const asShot = ref(false)
  const regionId = shallowRef<string | null>(null)
  const surround = shallowRef<Surround>('dark')
  /** Which instruments stand in the column's places, and the one that fills it, if one does. */
  const slots = kept<readonly InstrumentId[]>('pale-instrument-places', defaultSlots, soundSlots)
  const filling = shallowRef<InstrumentId | null>(null)
  const instruments = kept('pale-instruments', defaultInstruments, soundInstruments)
  const graticules = kept('pale-graticules', defaultGraticules, soundGraticules)
  /** Shown in windows of their own. */
  const detached = shallowRef<readonly InstrumentId[]>([])
  const tap = shallowRef<StationId>('finish')
  const part = shallowRef<Part | null>(null)
  const overlay = shallowRef<OverlaySettings | null>(null)
  const zebra = shallowRef({ low: 0.65, high: 0.75 })
  const reference = ref(false)
  /** A station that is left out while its button is held. */
  const bypassed = shallowRef<StationId | null>(null)
  const showKeys = ref(false)
  return { frame, station, asShot, regionId, surround, slots, filling, instruments, graticules, detached, tap, part, overlay, zebra, reference, bypassed, showKeys }
})
