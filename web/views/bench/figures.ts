// Measured facts as short figures: number first, then the unit.
import { printNumber } from '@core/numbers'
import { whitePointOf, workingGamut } from '@core/colour'
import type { InstrumentId, StationLoss } from '@core/instruments'
import type { PictureFacts } from '../../workers/messages'

/** A share as percent with one decimal, with a true minus sign. */
export const percent = (share: number, signed = false): string => printNumber(share * 100, 1, signed)

/** What a change did to the losses, kind by kind; kinds that lose nothing either way are left out. */
export function lossChange(before: StationLoss, after: StationLoss): string {
  const kinds = [
    ['clipped', 'clipped'],
    ['crushed', 'black'],
    ['outOfGamut', 'out of gamut'],
  ] as const
  const said = kinds
    .filter(([kind]) => before[kind] > 0 || after[kind] > 0)
    .map(([kind, word]) => `${word} ${sharePercent(before[kind])} → ${sharePercent(after[kind])} %`)
  return said.length > 0 ? said.join(' · ') : 'nothing lost before or after'
}

/** The number beside each instrument's name. */
export function figuresOf(facts: PictureFacts | null): Readonly<Record<InstrumentId, string>> {
  if (!facts) return { waveform: '', parade: '', vectorscope: '', histogram: '', chromaticity: '' }
  const [r, g, b] = facts.means
  return {
    waveform: `${percent(facts.black)} – ${percent(facts.white)} %`,
    parade: `R ${percent(r - g, true)} B ${percent(b - g, true)}`,
    vectorscope: hue(facts),
    histogram: `middle ${percent(facts.middle)} %`,
    chromaticity: hue(facts),
  }
}

const hue = (facts: PictureFacts): string => `${percent(facts.chroma * 2)} % · ${facts.hueDegrees.toFixed(0)}°`

/** The light that a shift in mired makes neutral, as a temperature. */
export function kelvinWords(temperatureMired: number): string {
  const mired = whitePointOf(workingGamut.white).mired - temperatureMired
  return mired > 20 ? `${Math.round(1e6 / mired / 10) * 10} K` : ''
}

/** What a control is doing to the picture, by step kind and parameter. */
export function effectOf(parameter: string, facts: PictureFacts | null): string | undefined {
  if (!facts) return undefined
  const [r, g, b] = facts.means
  switch (parameter) {
    case 'exposureStops':
      return `middle ${percent(facts.middle)} %`
    case 'temperatureMired':
      return `R−B ${percent(r - b, true)} %`
    case 'tint':
      return `G−RB ${percent(g - (r + b) / 2, true)} %`
    case 'blackOffset':
    case 'shadowStops':
      return `black ${percent(facts.black)} %`
    case 'highlightStops':
      return `white ${percent(facts.white)} %`
    case 'contrast':
      return `1–99 ${percent(facts.high - facts.low)} %`
    case 'saturation':
    case 'quiet':
      return `chroma ${percent(facts.chroma * 2)} %`
    default:
      return undefined
  }
}

export interface Reading {
  readonly id: 'black' | 'middle' | 'white' | 'clipped' | 'crushed' | 'balance' | 'chroma'
  readonly value: string
  readonly unit: string
}

export function readingsOf(facts: PictureFacts): readonly Reading[] {
  return [
    { id: 'black', value: percent(facts.black), unit: '%' },
    { id: 'middle', value: percent(facts.middle), unit: '%' },
    { id: 'white', value: percent(facts.white), unit: '%' },
    { id: 'clipped', value: sharePercent(facts.clippedShare), unit: '%' },
    { id: 'crushed', value: sharePercent(facts.crushedShare), unit: '%' },
    { id: 'balance', value: facts.means.map((m) => percent(m)).join(' · '), unit: '' },
    { id: 'chroma', value: `${percent(facts.chroma * 2)} % at ${facts.hueDegrees.toFixed(0)}`, unit: '°' },
  ]
}

/** Shares of pixels to a hundredth of a percent; what exists never shows as zero. */
export function sharePercent(share: number): string {
  if (share > 0 && share < 0.00005) return '< 0.01'
  return (share * 100).toFixed(2)
}
