// Balance by tone: another white for the shadows or for the highlights, where lights of two colours meet.
import { gamutById, luminanceWeights, middleGrey, type Matrix3 } from '../../colour'
import { pixelsOperation, type PixelOperation } from '../operation'
import { defineStepKind } from '../step-kind'
import { whiteBalanceMatrix } from './white-balance'
import { zoneShare } from './zone'

/** Stops from grey at which an end has its own white in full, and over which it fades in. */
const full = 3
const fade = 3

const temperature = (label: string, tip: string) =>
  ({
    type: 'number',
    label,
    tip,
    unit: 'mired',
    min: -100,
    max: 150,
    scale: [-60, 60],
    default: 0,
    step: 1,
    decimals: 1,
    signed: true,
  }) as const
const tint = (label: string, tip: string) =>
  ({
    type: 'number',
    label,
    tip,
    unit: 'Duv ×10³',
    min: -40,
    max: 40,
    scale: [-20, 20],
    default: 0,
    step: 0.5,
    decimals: 1,
    signed: true,
  }) as const

export const balanceByTone = defineStepKind<{
  shadowsMired: number
  shadowsTint: number
  highlightsMired: number
  highlightsTint: number
}>({
  id: 'balance-by-tone',
  name: 'Balance by tone',
  tip: 'Another white for the dark or the bright tones, where lights of two colours meet.',
  station: 'level',
  domain: 'linear',
  pixelByPixel: true,
  order: 40,
  page: 'by-tone',
  firstSide: 'working',
  stands: 'always',
  many: false,
  inRegions: 'always',
  parameters: {
    shadowsMired: temperature(
      'Shadows',
      'Shift of the white of the dark tones in mired: positive is warmer. In full three stops under grey.',
    ),
    shadowsTint: tint('Shadows, tint', 'Tint of the dark tones: positive takes green away.'),
    highlightsMired: temperature(
      'Highlights',
      'Shift of the white of the bright tones in mired: positive is warmer. In full three stops over grey.',
    ),
    highlightsTint: tint('Highlights, tint', 'Tint of the bright tones: positive takes green away.'),
  },
  isNeutral: (p) => p.shadowsMired === 0 && p.shadowsTint === 0 && p.highlightsMired === 0 && p.highlightsTint === 0,
  prepare: (p, { gamut: { id } }) => {
    const gamut = gamutById(id)
    const dark = whiteBalanceMatrix(gamut, p.shadowsMired, p.shadowsTint)
    const bright = whiteBalanceMatrix(gamut, p.highlightsMired, p.highlightsTint)
    const [wr, wg, wb] = luminanceWeights(gamut)
    const apply: PixelOperation = (pixels) => {
      for (let i = 0; i < pixels.length; i += 3) {
        const r = pixels[i]
        const g = pixels[i + 1]
        const b = pixels[i + 2]
        const stops = Math.log2(Math.max((wr * r + wg * g + wb * b) / middleGrey, 2 ** -20))
        const share = stops < 0 ? zoneShare(stops, -full, fade, 'below') : zoneShare(stops, full, fade, 'above')
        const m: Matrix3 = stops < 0 ? dark : bright
        pixels[i] = r + share * (m[0] * r + m[1] * g + m[2] * b - r)
        pixels[i + 1] = g + share * (m[3] * r + m[4] * g + m[5] * b - g)
        pixels[i + 2] = b + share * (m[6] * r + m[7] * g + m[8] * b - b)
      }
    }
    return (at) => pixelsOperation(apply, at)
  },
})
