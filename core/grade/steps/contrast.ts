// Contrast: a slope about a pivot in the encoded domain, easing back to 1 far from it.
import { curveOperation } from '../operation'
import { defineStepKind } from '../step-kind'

// The slope is exact within this many stops of the pivot and has eased to 1 after as many again, so that noise in the
// deepest black and the brightest light are moved but not multiplied. Keeps the function C1 and monotone.
const exactStops = 4

/** y ↦ p + (y − p)·c near the pivot; beyond `exact` the added slope falls off linearly to nothing. */
export function softContrast(contrast: number, pivot: number, exact: number): (y: number) => number {
  return (y) => {
    const distance = y - pivot
    const size = Math.abs(distance)
    const t = Math.min(Math.max(size - exact, 0), exact)
    const stretched = Math.min(size, exact) + t - (t * t) / (2 * exact)
    return y + (contrast - 1) * Math.sign(distance) * stretched
  }
}

export const contrast = defineStepKind<{ contrast: number; pivotStops: number }>({
  id: 'contrast',
  name: 'Contrast',
  tip: 'Spreads or closes the tones about a tone that stays.',
  station: 'shape',
  domain: 'encoded',
  pixelByPixel: true,
  order: 10,
  page: 'tone',
  firstSide: 'working',
  stands: 'always',
  many: false,
  inRegions: 'always',
  parameters: {
    contrast: {
      type: 'number',
      label: 'Contrast',
      tip: 'Stops out for one stop in, near the pivot. 1 changes nothing.',
      unit: '×',
      min: 0.2,
      max: 3,
      scale: [0.4, 1.6],
      default: 1,
      step: 0.01,
      decimals: 2,
    },
    pivotStops: {
      type: 'number',
      label: 'Pivot',
      tip: 'The tone that stays where it is, in stops from middle grey.',
      unit: 'stops',
      min: -4,
      max: 4,
      default: 0,
      step: 0.1,
      decimals: 1,
      signed: true,
    },
  },
  isNeutral: (params) => params.contrast === 1,
  prepare: (params, { greyEncoded, stopEncoded }) =>
    curveOperation(
      softContrast(params.contrast, greyEncoded + params.pivotStops * stopEncoded, exactStops * stopEncoded),
    ),
})
