// Ends: bright or dark tones moved by themselves; the middle stays as it is.
import { curveOperation } from '../operation'
import { smoothStep } from '../smooth-step'
import { defineStepKind } from '../step-kind'

/** Stops from grey at which an end begins, and how many more it takes until it moves in full. */
const begins = 0.5
const reach = 4.5

/** 0 up to `from`, 1 from `from + reach` on, smooth between (C1). */
const ramp = (distance: number): number => smoothStep(begins, begins + reach, distance)

/**
 * Neither end can fold: the ramp's steepest slope is 1.5 / reach, so a tone moved by up to 2.5 stops keeps a rising
 * slope.
 */
export const ends = defineStepKind<{ highlightStops: number; shadowStops: number }>({
  id: 'ends',
  name: 'Highlights and shadows',
  tip: 'Rolls the bright tones off or lifts the dark ones; each touches only its end.',
  station: 'shape',
  domain: 'encoded',
  pixelByPixel: true,
  order: 20,
  page: 'tone',
  firstSide: 'working',
  stands: 'always',
  many: false,
  inRegions: 'always',
  parameters: {
    highlightStops: {
      type: 'number',
      label: 'Highlights',
      tip: 'Moves tones five stops over grey by so much, less below, none under half a stop over grey.',
      unit: 'stops',
      min: -2.5,
      max: 2.5,
      scale: [-2, 2],
      default: 0,
      step: 0.05,
      decimals: 2,
      signed: true,
    },
    shadowStops: {
      type: 'number',
      label: 'Shadows',
      tip: 'Moves tones five stops under grey by so much, less above, none over half a stop under grey.',
      unit: 'stops',
      min: -2.5,
      max: 2.5,
      scale: [-2, 2],
      default: 0,
      step: 0.05,
      decimals: 2,
      signed: true,
    },
  },
  isNeutral: ({ highlightStops, shadowStops }) => highlightStops === 0 && shadowStops === 0,
  prepare: ({ highlightStops, shadowStops }, { greyEncoded, stopEncoded }) =>
    curveOperation((y) => {
      const stops = (y - greyEncoded) / stopEncoded
      return y + (stops > 0 ? highlightStops * ramp(stops) : shadowStops * ramp(-stops)) * stopEncoded
    }),
})
