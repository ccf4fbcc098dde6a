// White balance: CAT16 from the white the light had to the white it should have, in linear light.
import {
  cat16,
  gamutById,
  invert,
  multiply,
  rgbToXyz,
  whiteChromaticity,
  whitePointOf,
  xyzOf,
  type Gamut,
  type Matrix3,
} from '../../colour'
import { matrixOperation } from '../operation'
import { defineStepKind } from '../step-kind'

/**
 * The matrix on linear RGB of `gamut` for a shift in mired (positive warms) and a tint in Duv × 1000
 * (positive moves from green to magenta). Luminance of the white is kept.
 */
export function whiteBalanceMatrix(gamut: Gamut, temperatureMired: number, tint: number): Matrix3 {
  const target = whitePointOf(gamut.white)
  // The locus formula is a close fit, not the white itself: shift relative to its own foot, so that zero is exactly
  // neutral.
  const foot = whiteChromaticity(target)
  const moved = whiteChromaticity({ mired: target.mired - temperatureMired, duv: target.duv + tint / 1000 })
  const source = { x: gamut.white.x + moved.x - foot.x, y: gamut.white.y + moved.y - foot.y }
  const toXyz = rgbToXyz(gamut)
  return multiply(invert(toXyz), multiply(cat16(xyzOf(source), xyzOf(gamut.white)), toXyz))
}

export const whiteBalance = defineStepKind<{ temperatureMired: number; tint: number }>({
  id: 'white-balance',
  name: 'White balance',
  tip: 'Makes the colour of the light neutral, or warmer or cooler than it was.',
  station: 'level',
  domain: 'linear',
  pixelByPixel: true,
  order: 20,
  page: 'level',
  firstSide: 'working',
  stands: 'always',
  many: false,
  inRegions: 'always',
  parameters: {
    temperatureMired: {
      type: 'number',
      label: 'Temperature',
      tip: 'Shift in mired (a million divided by kelvin): positive is warmer. Equal steps look equally large.',
      unit: 'mired',
      min: -200,
      max: 200,
      scale: [-80, 80],
      default: 0,
      step: 1,
      decimals: 1,
      signed: true,
    },
    tint: {
      type: 'number',
      label: 'Tint',
      tip:
        'Distance from the line of natural light, Duv × 1000: positive takes green away, negative takes ' +
        'magenta away.',
      unit: 'Duv ×10³',
      min: -40,
      max: 40,
      default: 0,
      step: 0.5,
      decimals: 1,
      signed: true,
    },
  },
  isNeutral: ({ temperatureMired, tint }) => temperatureMired === 0 && tint === 0,
  prepare: ({ temperatureMired, tint }, { gamut }) =>
    matrixOperation(whiteBalanceMatrix(gamutById(gamut.id), temperatureMired, tint)),
})
