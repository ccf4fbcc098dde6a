// Local contrast: every tone moved away from the mean of what lies about it, or toward it for mist and softness on a
// large scale.
import { luminanceWeights } from '../../colour'
import { neighbourhoodOperation } from '../operation'
import { defineStepKind } from '../step-kind'

export const localContrastStep = defineStepKind<{ localContrast: number; localSizePercent: number }>({
  id: 'local-contrast',
  name: 'Local contrast',
  tip: 'Light and dark beside each other drawn apart, or together as in mist. Colours stay.',
  station: 'shape',
  domain: 'encoded',
  pixelByPixel: false,
  order: 30,
  page: 'detail',
  firstSide: 'working',
  stands: 'always',
  many: false,
  inRegions: 'always',
  parameters: {
    localContrast: {
      type: 'number',
      label: 'Local contrast',
      tip: 'Above 0 neighbours are drawn apart, below 0 together: mist.',
      unit: '%',
      min: -1,
      max: 1,
      default: 0,
      step: 0.01,
      decimals: 0,
      shownFactor: 100,
      signed: true,
    },
    localSizePercent: {
      type: 'number',
      label: 'Its size',
      tip: 'How far apart neighbours are, in percent of the picture’s height.',
      unit: '%',
      min: 0.5,
      max: 15,
      default: 4,
      step: 0.1,
      decimals: 1,
    },
  },
  isNeutral: ({ localContrast }) => localContrast === 0,
  prepare: ({ localContrast, localSizePercent }, { gamut }) =>
    neighbourhoodOperation(localSizePercent / 100, localContrast, luminanceWeights(gamut)),
})
