// Black offset: light added or taken away, as flare would; middle grey stays where it is.
import { middleGrey } from '../../colour'
import { curveOperation } from '../operation'
import { defineStepKind } from '../step-kind'

export const blackOffset = defineStepKind<{ blackOffset: number }>({
  id: 'black-offset',
  name: 'Black offset',
  tip: 'Takes stray light out of the blacks, or adds some. Middle grey stays.',
  station: 'level',
  domain: 'linear',
  pixelByPixel: true,
  order: 30,
  page: 'level',
  firstSide: 'working',
  stands: 'always',
  many: false,
  inRegions: 'always',
  parameters: {
    blackOffset: {
      type: 'number',
      label: 'Black offset',
      tip: 'Light added to every tone, in percent of a perfect white; less than nothing deepens the blacks.',
      unit: '% light',
      min: -0.12,
      max: 0.2,
      scale: [-0.05, 0.05],
      default: 0,
      step: 0.001,
      decimals: 2,
      shownFactor: 100,
      signed: true,
    },
  },
  isNeutral: ({ blackOffset: offset }) => offset === 0,
  prepare: ({ blackOffset: offset }) => {
    const gain = middleGrey / (middleGrey + offset)
    return curveOperation((v) => (v + offset) * gain)
  },
})
