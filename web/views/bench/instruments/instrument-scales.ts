// The settings of an instrument that are scales.
import type { NumberParameter } from '@core/grade'
import { text } from '../text'

const o = text.options

const number = (
  label: string,
  tip: string,
  unit: string,
  min: number,
  max: number,
  initial: number,
  step: number,
  decimals: number,
  shownFactor = 1,
): NumberParameter => ({
  type: 'number',
  label,
  tip,
  unit,
  min,
  max,
  default: initial,
  step,
  decimals,
  ...(shownFactor === 1 ? {} : { shownFactor }),
})
/** Of what is counted. */
export const gain = number(o.gain, o.gainTip, '×', 0.25, 4, 1, 0.05, 2)
/** Of the graticule's lines. */
export const brightness = number(o.lines, o.linesTip, '%', 0.1, 1, 0.55, 0.05, 0, 100)
/** How much of the frames before stays. */
export const persistence = number(o.persistence, o.persistenceTip, '%', 0, 0.95, 0, 0.05, 0, 100)
/** Where the skin line stands, in degrees of the vectorscope. */
export const skinAngle = number(o.skin, o.skinTip, '°', 90, 150, 123, 0.5, 1)
