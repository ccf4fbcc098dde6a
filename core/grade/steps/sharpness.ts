// Sharpness: fine detail drawn out of the luma, or softened in all channels.
import { luminanceWeights } from '../../colour'
import { neighbourhoodOperation } from '../operation'
import { defineStepKind } from '../step-kind'

export const sharpnessStep = defineStepKind<{ sharpness: number; detailPercent: number }>({
  id: 'sharpness',
  name: 'Sharpness',
  tip: 'Above 0 fine detail is sharpened, in brightness only; below 0 everything is softened.',
  station: 'shape',
  domain: 'encoded',
  pixelByPixel: false,
  order: 60,
  page: 'detail',
  firstSide: 'working',
  stands: 'added',
  many: false,
  inRegions: 'always',
  parameters: {
    sharpness: {
      type: 'number',
      label: 'Soften / sharpen',
      tip: 'Below 0 softer, above 0 sharper.',
      unit: '%',
      min: -1,
      max: 2,
      scale: [-1, 1],
      default: 0,
      step: 0.01,
      decimals: 0,
      shownFactor: 100,
      signed: true,
    },
    detailPercent: {
      type: 'number',
      label: 'Its size',
      tip: 'The size of the detail, in percent of the picture’s height.',
      unit: '%',
      min: 0.05,
      max: 3,
      default: 0.25,
      step: 0.05,
      decimals: 2,
    },
  },
  isNeutral: ({ sharpness }) => sharpness === 0,
  prepare: ({ sharpness, detailPercent }, { gamut }) =>
    neighbourhoodOperation(detailPercent / 100, sharpness, sharpness > 0 ? luminanceWeights(gamut) : null),
})
