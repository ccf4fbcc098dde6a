// Saturation: distance from the grey of equal luminance, in linear light.
import { luminanceWeights } from '../../colour'
import { matrixOperation } from '../operation'
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
    const grey = [wr * (1 - s), wg * (1 - s), wb * (1 - s)] as const
    return matrixOperation([grey[0] + s, grey[1], grey[2], grey[0], grey[1] + s, grey[2], grey[0], grey[1], grey[2] + s])
  },
})
