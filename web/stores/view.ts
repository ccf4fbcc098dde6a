// View state: what this person looks at right now. The route carries frame and station; how the instruments are set
// stays in this browser.
import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { StationId } from '@core/grade'
import {
  defaultInstruments,
  type InstrumentId,
  type OverlaySettings,
  type Part,
  type TraceImage,
} from '@core/instruments'
import type { MatteViewId } from '@core/regions'
import {
  defaultGraticules,
  defaultLayout,
  defaultSlots,
  parseGraticules,
  parseInstrumentSettings,
  parseLayout,
  parseSlots,
} from './kept-settings'

export type CompareMode = 'off' | 'wipe' | 'side' | 'blink'
/** A line across the picture: where it crosses the middle (share of the width), and its turn from upright. */
export interface Wipe {
  readonly position: number
  readonly degrees: number
}
/** Screen pixels for one pixel of the picture, 0 as it fits; and the place in its middle, in shares of the picture. */
export interface Zoom {
  readonly level: number
  readonly x: number
  readonly y: number
}
export type Surround = 'dark' | 'black' | 'grey' | 'white'

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
  const zoom = shallowRef<Zoom>({ level: 0, x: 0.5, y: 0.5 })
  const regionId = shallowRef<string | null>(null)
  const componentId = shallowRef<string | null>(null)
  /** How the open region's matte is looked at; null: the picture as it is. */
  const matteView = shallowRef<MatteViewId | null>(null)
  /** The one region that acts while it is looked at alone, by its id. */
  const soloId = shallowRef<string | null>(null)
  const surround = shallowRef<Surround>('dark')
  /** The picture is looked at as at the other usual display gamma. */
  const otherGamma = ref(false)
  /** Which instruments stand in the column's places, and the one that fills it, if one does. */
  const slots = kept<readonly InstrumentId[]>('pale-instrument-places', defaultSlots, parseSlots)
  const filling = shallowRef<InstrumentId | null>(null)
  const instruments = kept('pale-instruments', defaultInstruments, parseInstrumentSettings)
  const graticules = kept('pale-graticules', defaultGraticules, parseGraticules)
  const layout = kept('pale-bench-layout', defaultLayout, parseLayout)
  /** The picture has the whole screen. */
  const pictureAlone = shallowRef(false)
  /** Three moments of the shot stand beside the picture. */
  const liveMoments = shallowRef(false)
  const tap = shallowRef<StationId>('finish')
  const part = shallowRef<Part | null>(null)
  const overlay = shallowRef<OverlaySettings | null>(null)
  const zebra = shallowRef({ low: 0.65, high: 0.75 })
  const reference = ref(false)
  /** A station that is left out while its button is held. */
  const bypassed = shallowRef<StationId | null>(null)
  /** A step that is left out while its name is held, by its id. */
  const withoutStep = shallowRef<string | null>(null)
  /** A held picture, and how it is compared with the present one. */
  const still = shallowRef<{ readonly image: TraceImage; readonly name: string } | null>(null)
  const compare = shallowRef<CompareMode>('off')
  const wipe = shallowRef<Wipe>({ position: 0.5, degrees: 0 })
  const showKeys = ref(false)
  /** The tour of the Bench is under way. */
  const touring = ref(false)
  return {
    frame,
    station,
    asShot,
    zoom,
    regionId,
    componentId,
    matteView,
    soloId,
    surround,
    otherGamma,
    slots,
    filling,
    instruments,
    graticules,
    layout,
    pictureAlone,
    liveMoments,
    tap,
    part,
    overlay,
    zebra,
    reference,
    bypassed,
    withoutStep,
    still,
    compare,
    wipe,
    showKeys,
    touring,
  }
})
