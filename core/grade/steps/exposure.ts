// Exposure: linear light × 2^stops.
import { diagonal } from '../../colour'
import { matrixOperation } from '../operation'
import { defineStepKind } from '../step-kind'

export const exposure = defineStepKind<{ exposureStops: number }>({
  id: 'exposure',
  name: 'Exposure',
  tip: 'Makes the light stronger or weaker, as a lens stop would.',
  station: 'level',
  domain: 'linear',
  pixelByPixel: true,
  order: 10,
  page: 'level',
  firstSide: 'working',
  stands: 'always',
  many: false,
  inRegions: 'always',
  parameters: {
    exposureStops: {
      type: 'number',
      label: 'Exposure',
      tip: 'One stop doubles the light.',
      unit: 'stops',
      min: -8,
      max: 8,
      scale: [-4, 4],
      default: 0,
      step: 0.05,
      decimals: 2,
      signed: true,
    },
  },
  isNeutral: ({ exposureStops }) => exposureStops === 0,
  prepare: ({ exposureStops }) => {
    const gain = 2 ** exposureStops
    return matrixOperation(diagonal([gain, gain, gain]))
  },
})
