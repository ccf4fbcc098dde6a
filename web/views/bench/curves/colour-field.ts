// How the field of each colour curve is drawn and moved: what is shown of it, its lines, how far a drag reaches.
import { colourCurves, pushBounds, type ColourCurveId, type NumberParameter } from '@core/grade'
import { text } from '../text'

export interface FieldTick {
  readonly at: number
  readonly strong: boolean
}
interface ColourField {
  /** What hands use, in the curve's own unit of y; typing reaches the rest. */
  readonly shownY: readonly [low: number, high: number]
  /** From line to line along x and y. */
  readonly tickStep: readonly [x: number, y: number]
  /** The line of x that is drawn stronger. */
  readonly strongX: number | null
  /** What a drag over the whole height of the picture adds to y. */
  readonly reach: number
}
export const colourFields: Readonly<Record<ColourCurveId, ColourField>> = {
  hueByHue: { shownY: [-40, 40], tickStep: [30, 10], strongX: null, reach: 60 },
  saturationByHue: { shownY: [0, 2], tickStep: [30, 0.5], strongX: null, reach: 2 },
  lightnessByHue: { shownY: [-1.5, 1.5], tickStep: [30, 0.5], strongX: null, reach: 2 },
  saturationByLightness: { shownY: [0, 2], tickStep: [2, 0.5], strongX: 0, reach: 2 },
  saturationBySaturation: { shownY: [0, 2], tickStep: [0.1, 0.5], strongX: null, reach: 2 },
}

const ticksOf = (from: number, to: number, step: number, strong: number | null): readonly FieldTick[] =>
  Array.from({ length: Math.floor((to - from) / step + 1e-9) + 1 }, (_, i) => ({
    at: from + i * step,
    strong: Math.abs(from + i * step - (strong ?? NaN)) < 1e-9,
  }))
export function xTicksOf(id: ColourCurveId): readonly FieldTick[] {
  const { min, max } = colourCurves[id].x
  const [step] = colourFields[id].tickStep
  return ticksOf(Math.ceil(min / step) * step, max, step, colourFields[id].strongX)
}
export function yTicksOf(id: ColourCurveId): readonly FieldTick[] {
  const { shownY, tickStep } = colourFields[id]
  return ticksOf(shownY[0], shownY[1], tickStep[1], colourCurves[id].neutral)
}

/** The shape of a hump over the hues: how wide, and how softly it rises. */
export const humpWidth: NumberParameter = {
  type: 'number',
  label: text.picking.width,
  tip: text.picking.widthTip,
  unit: '°',
  ...pushBounds.widthDegrees,
  default: 45,
  step: 1,
  decimals: 0,
}
export const humpSoftness: NumberParameter = {
  type: 'number',
  label: text.picking.softness,
  tip: text.picking.softnessTip,
  unit: '%',
  ...pushBounds.softness,
  default: 1,
  step: 0.01,
  decimals: 0,
  shownFactor: 100,
}
