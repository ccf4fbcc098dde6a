// Zone: a push that acts on tones around a centre only: exposure, a tint and saturation.
import { luminanceWeights, middleGrey } from '../../colour'
import { pixelsOperation, type PixelOperation } from '../operation'
import { smoothStep } from '../smooth-step'
import { defineStepKind } from '../step-kind'

export type ZoneReach = 'around' | 'below' | 'above'

/** How much a tone of so many stops from grey belongs to a zone: 1 at the centre, 0 a width away; smooth (C1). */
export function zoneShare(stops: number, centre: number, width: number, reach: ZoneReach): number {
  const away = (stops - centre) / width
  if (reach === 'below' && away <= 0) return 1
  if (reach === 'above' && away >= 0) return 1
  return 1 - smoothStep(0, 1, Math.abs(away))
}

/**
 * The largest exposure whose edge does not fold tones over one another: the share's steepest slope is 1.5 per width.
 */
export const mostExposure = (width: number): number => width / 1.6

export const zone = defineStepKind<{
  centreStops: number
  widthStops: number
  reach: string
  exposureStops: number
  tintDegrees: number
  tintAmount: number
  saturation: number
}>({
  id: 'zone',
  name: 'Zone',
  tip: 'A push for some tones only: brighter or darker, tinted, more or less saturated.',
  station: 'shape',
  domain: 'linear',
  pixelByPixel: true,
  order: 50,
  page: 'tones',
  firstSide: 'working',
  stands: 'added',
  many: true,
  inRegions: 'added',
  parameters: {
    centreStops: {
      type: 'number',
      label: 'Centre',
      tip: 'The tone at the middle of the push, in stops from middle grey.',
      unit: 'stops',
      min: -8,
      max: 8,
      scale: [-6, 6],
      default: 0,
      step: 0.1,
      decimals: 1,
      signed: true,
    },
    widthStops: {
      type: 'number',
      label: 'Width',
      tip: 'Stops from the centre to where the push has faded out.',
      unit: 'stops',
      min: 0.5,
      max: 8,
      scale: [0.5, 6],
      default: 2,
      step: 0.1,
      decimals: 1,
    },
    reach: {
      type: 'choice',
      label: 'Reach',
      tip: 'Around the centre, or all tones below or above it as well.',
      default: 'around',
      options: [
        { id: 'around', name: 'around' },
        { id: 'below', name: 'and below' },
        { id: 'above', name: 'and above' },
      ],
    },
    exposureStops: {
      type: 'number',
      label: 'Exposure',
      tip: 'Stops at the centre. Held to what the width allows, so that tones never fold.',
      unit: 'stops',
      min: -4,
      max: 4,
      scale: [-2, 2],
      default: 0,
      step: 0.05,
      decimals: 2,
      signed: true,
    },
    tintDegrees: {
      type: 'number',
      label: 'Tint hue',
      tip: 'The colour of the push: 0° red, 120° green, 240° blue.',
      unit: '°',
      min: 0,
      max: 360,
      default: 210,
      step: 1,
      decimals: 0,
    },
    tintAmount: {
      type: 'number',
      label: 'Tint',
      tip: 'Stops between the channels it favours and those it holds back.',
      unit: 'stops',
      min: 0,
      max: 1,
      scale: [0, 0.5],
      default: 0,
      step: 0.01,
      decimals: 2,
    },
    saturation: {
      type: 'number',
      label: 'Saturation',
      tip: 'Of these tones; 100 % changes nothing.',
      unit: '%',
      min: 0,
      max: 3,
      scale: [0, 2],
      default: 1,
      step: 0.01,
      decimals: 0,
      shownFactor: 100,
    },
  },
  isNeutral: ({ exposureStops, tintAmount, saturation }) => exposureStops === 0 && tintAmount === 0 && saturation === 1,
  prepare: ({ centreStops, widthStops, reach, exposureStops, tintDegrees, tintAmount, saturation }, { gamut }) => {
    const [wr, wg, wb] = luminanceWeights(gamut)
    const most = mostExposure(widthStops)
    const exposure = Math.min(most, Math.max(-most, exposureStops))
    // Luminance 2^p·(…) has no log: the share is looked up where the light is, and light under −20 stops counts as
    // that.
    const shareOf = (luminance: number): number =>
      zoneShare(Math.log2(Math.max(luminance / middleGrey, 2 ** -20)), centreStops, widthStops, reach as ZoneReach)
    // Full-tint gains whose weighted sum is one: the luminance of a grey stays.
    const raw = [0, 120, 240].map((at) => 2 ** (tintAmount * 0.5 * Math.cos(((tintDegrees - at) * Math.PI) / 180)))
    const sum = wr * raw[0] + wg * raw[1] + wb * raw[2]
    const [gr, gg, gb] = raw.map((v) => Math.log2(v / sum)) as [number, number, number]
    const apply: PixelOperation = (pixels) => {
      for (let i = 0; i < pixels.length; i += 3) {
        const luminance = wr * pixels[i] + wg * pixels[i + 1] + wb * pixels[i + 2]
        const share = shareOf(luminance)
        if (share === 0) continue
        const gain = 2 ** (exposure * share)
        const s = 1 + (saturation - 1) * share
        const grey = luminance * (1 - s)
        pixels[i] = (pixels[i] * s + grey) * gain * 2 ** (gr * share)
        pixels[i + 1] = (pixels[i + 1] * s + grey) * gain * 2 ** (gg * share)
        pixels[i + 2] = (pixels[i + 2] * s + grey) * gain * 2 ** (gb * share)
      }
    }
    if (tintAmount === 0 && saturation === 1)
      return {
        kind: 'gain',
        weights: [wr, wg, wb],
        gain: (n) => 2 ** (exposure * shareOf(n)),
        blend: 0,
        curve: (v) => v,
      }
    return (at) => pixelsOperation(apply, at)
  },
})
