// How the Bench and its instruments are set in this browser: what may be stored, and what is taken of what was.
import { defaultInstruments, instrumentIds, type InstrumentId, type InstrumentSettings } from '@core/instruments'
import { skinLineDegrees } from '@core/readings'

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
export const defaultGraticules: Graticules = {
  scale: 'percent',
  brightness: 0.55,
  persistence: 0,
  skinDegrees: skinLineDegrees,
  targets: 75,
}
export const defaultSlots: readonly InstrumentId[] = ['waveform', 'parade', 'vectorscope']
const allowed = {
  waveform: ['luma', 'rgb', 'chroma'],
  parade: ['rgb', 'ycbcr'],
  histogram: ['luma', 'rgb'],
  histogramScale: ['linear', 'log'],
  vectorZoom: [1, 2, 4, 8],
  vectorColoured: [true, false],
} as const

/** What was stored may be old, or anything at all: only what still makes sense is taken. */
export function parseInstrumentSettings(stored: unknown): InstrumentSettings {
  const from = (typeof stored === 'object' && stored !== null ? stored : {}) as Record<string, unknown>
  const kept = Object.entries(allowed)
    .filter(([key, values]) => (values as readonly unknown[]).includes(from[key]))
    .map(([key]) => [key, from[key]])
  const gain =
    typeof from['gain'] === 'number' && from['gain'] >= 0.25 && from['gain'] <= 4
      ? from['gain']
      : defaultInstruments.gain
  return { ...defaultInstruments, ...(Object.fromEntries(kept) as Partial<InstrumentSettings>), gain }
}
export function parseSlots(stored: unknown): readonly InstrumentId[] {
  return defaultSlots.map((own, i) => {
    const id = Array.isArray(stored) ? (stored[i] as unknown) : null
    return instrumentIds.includes(id as InstrumentId) ? (id as InstrumentId) : own
  })
}
export function parseGraticules(stored: unknown): Graticules {
  const from = (typeof stored === 'object' && stored !== null ? stored : {}) as Partial<
    Record<keyof Graticules, unknown>
  >
  const number = (key: 'brightness' | 'persistence' | 'skinDegrees', low: number, high: number): number => {
    const v = from[key]
    return typeof v === 'number' && v >= low && v <= high ? v : defaultGraticules[key]
  }
  return {
    scale: from.scale === 'codes' || from.scale === 'light' ? from.scale : 'percent',
    targets: from.targets === 100 ? 100 : 75,
    brightness: number('brightness', 0.1, 1),
    persistence: number('persistence', 0, 0.95),
    skinDegrees: number('skinDegrees', 90, 150),
  }
}

/** Who has the room on the Bench, and how high the Meridian stands. */
export const arrangements = ['balanced', 'picture', 'instruments'] as const
export const meridianHeights = ['folded', 'usual', 'tall'] as const
export interface BenchLayout {
  readonly arrangement: (typeof arrangements)[number]
  readonly meridian: (typeof meridianHeights)[number]
  /** The picture's share of the width, once the divider was dragged; null as the arrangement has it. */
  readonly pictureShare: number | null
}
export const defaultLayout: BenchLayout = { arrangement: 'balanced', meridian: 'usual', pictureShare: null }
export const pictureShares = { least: 0.22, most: 0.78 } as const

export function parseLayout(stored: unknown): BenchLayout {
  const from = (typeof stored === 'object' && stored !== null ? stored : {}) as Partial<
    Record<keyof BenchLayout, unknown>
  >
  const share = from.pictureShare
  const { least, most } = pictureShares
  return {
    arrangement: arrangements.find((a) => a === from.arrangement) ?? defaultLayout.arrangement,
    meridian: meridianHeights.find((h) => h === from.meridian) ?? defaultLayout.meridian,
    pictureShare: typeof share === 'number' && share >= least && share <= most ? share : null,
  }
}
