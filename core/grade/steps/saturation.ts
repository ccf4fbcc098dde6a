// Saturation: distance from the grey of equal luminance, in linear light.
import { luminanceWeights } from '../../colour'
import { defineStepKind } from '../step-kind'

export const saturation = defineStepKind<{ saturation: number }>({
  id: 'saturation',
  name: 'Saturation',
  tip: 'Makes all colours stronger or weaker; luminance and hue stay.',
  station: 'hue',
  domain: 'linear',
  pixelByPixel: true,
  regional: true,
  parameters: {
    saturation: { type: 'number', label: 'Saturation', tip: '100 % changes nothing, 0 % is monochrome.', unit: '%', min: 0, max: 3, scale: [0, 2], default: 1, step: 0.01, decimals: 0, shownFactor: 100 },
  },
  isNeutral: (params) => params.saturation === 1,
  prepare: (params, { gamut }) => {
    const [wr, wg, wb] = luminanceWeights(gamut)
    const s = params.saturation
    return (pixels) => {
      for (let p = 0; p < pixels.length; p += 3) {
        const luminance = wr * pixels[p]! + wg * pixels[p + 1]! + wb * pixels[p + 2]!
        pixels[p] = luminance + s * (pixels[p]! - luminance)
        pixels[p + 1] = luminance + s * (pixels[p + 1]! - luminance)
        pixels[p + 2] = luminance + s * (pixels[p + 2]! - luminance)
      }
    }
  },
})
