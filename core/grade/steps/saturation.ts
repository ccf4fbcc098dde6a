// Saturation: distance from the grey of equal luminance, in linear light; and a second one for weak colours only.
import { luminanceWeights } from '../../colour'
import { matrixOperation, pixelsOperation, type PixelOperation } from '../operation'
import { defineStepKind } from '../step-kind'

/**
 * The share by which a colour counts as weak: 1 for neutrals, a half where its purity (distance from grey over
 * luminance) is 0.35.
 */
export const weakness = (purity: number): number => 1 / (1 + (purity / 0.35) ** 2)

export const saturation = defineStepKind<{ saturation: number; vibrance: number }>({
  id: 'saturation',
  name: 'Saturation',
  tip: 'Makes all colours stronger or weaker; luminance and hue stay.',
  station: 'hue',
  domain: 'linear',
  pixelByPixel: true,
  order: 10,
  page: 'saturation',
  firstSide: 'working',
  stands: 'always',
  many: false,
  inRegions: 'always',
  parameters: {
    saturation: {
      type: 'number',
      label: 'Saturation',
      tip: '100 % changes nothing, 0 % is monochrome.',
      unit: '%',
      min: 0,
      max: 3,
      scale: [0, 2],
      default: 1,
      step: 0.01,
      decimals: 0,
      shownFactor: 100,
    },
    vibrance: {
      type: 'number',
      label: 'Quiet colours',
      tip: 'The same for colours near grey only; strong ones hardly move.',
      unit: '%',
      min: 0,
      max: 2,
      scale: [0, 2],
      default: 1,
      step: 0.01,
      decimals: 0,
      shownFactor: 100,
    },
  },
  isNeutral: (params) => params.saturation === 1 && params.vibrance === 1,
  prepare: ({ saturation: s, vibrance }, { gamut }) => {
    const [wr, wg, wb] = luminanceWeights(gamut)
    if (vibrance === 1) {
      const grey = [wr * (1 - s), wg * (1 - s), wb * (1 - s)] as const
      return matrixOperation([
        grey[0] + s,
        grey[1],
        grey[2],
        grey[0],
        grey[1] + s,
        grey[2],
        grey[0],
        grey[1],
        grey[2] + s,
      ])
    }
    const apply: PixelOperation = (pixels) => {
      for (let i = 0; i < pixels.length; i += 3) {
        const r = pixels[i]
        const g = pixels[i + 1]
        const b = pixels[i + 2]
        const grey = wr * r + wg * g + wb * b
        const purity =
          Math.max(Math.abs(r - grey), Math.abs(g - grey), Math.abs(b - grey)) / Math.max(Math.abs(grey), 1e-6)
        const by = s * (1 + (vibrance - 1) * weakness(purity))
        pixels[i] = grey + (r - grey) * by
        pixels[i + 1] = grey + (g - grey) * by
        pixels[i + 2] = grey + (b - grey) * by
      }
    }
    return (at) => pixelsOperation(apply, at)
  },
})
