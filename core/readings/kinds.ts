// The kinds of reading as declarations: what is measured, in which unit, and why it matters.
import { printNumber } from '../numbers'

export type ReadingId =
  | 'black'
  | 'middle'
  | 'white'
  | 'contrastRange'
  | 'clipped'
  | 'crushed'
  | 'castBlacks'
  | 'castMids'
  | 'castWhites'
  | 'neutrals'
  | 'cardExposure'
  | 'cardWhite'
  | 'skinHue'
  | 'skinLuma'
  | 'skinChroma'
  | 'saturation'
  | 'saturationTop'
  | 'outOfGamut'
  | 'outOfRange'
  | 'noise'
  | 'noiseGain'
  | 'banding'
  | 'range'
  | 'noWhite'
  | 'noBlack'
  | 'restraint'

/** What a number counts. Shares of the signal and of pixels are carried as 0..1 and shown in percent. */
export type ReadingUnit = 'percent' | 'pixels' | 'stops' | 'duv' | 'degrees' | 'times' | 'deltaE'

export interface ReadingKind {
  readonly id: ReadingId
  readonly name: string
  readonly tip: string
  readonly why: string
  readonly unit: ReadingUnit
  /**
   * How much a step outside the target weighs when readings are ranked: one such step matters as much as one of any
   * other kind.
   */
  readonly weighs: number
  /** The kind can stand in a house standard with a target. */
  readonly targeted: boolean
}

const kind = (
  id: ReadingId,
  name: string,
  unit: ReadingUnit,
  weighs: number,
  tip: string,
  why: string,
  targeted = true,
): ReadingKind => ({ id, name, tip, why, unit, weighs, targeted })

export const readingKinds: readonly ReadingKind[] = [
  kind(
    'black',
    'Black',
    'percent',
    0.02,
    'Luma that 0.1 % of the pixels lie below.',
    'Blacks that sit high look milky; blacks at zero hold no detail.',
  ),
  kind(
    'middle',
    'Middle',
    'percent',
    0.06,
    'Luma that half of the pixels lie below.',
    'The middle decides how bright the picture feels.',
  ),
  kind(
    'white',
    'White',
    'percent',
    0.03,
    'Luma that 99.9 % of the pixels lie below.',
    'Whites that sit low look dull; whites at the top hold no detail.',
  ),
  kind(
    'contrastRange',
    'Contrast range',
    'stops',
    1,
    'Stops of display light between the 1st and the 99th percentile.',
    'A small range looks flat, a large one hard.',
  ),
  kind(
    'clipped',
    'Clipped',
    'pixels',
    0.005,
    'Pixels with a channel at the very top, and the largest patch of them.',
    'What is clipped is one flat tone: its detail is gone.',
  ),
  kind(
    'crushed',
    'Crushed',
    'pixels',
    0.005,
    'Pixels with all channels at the very bottom, and the largest patch of them.',
    'What is crushed is one flat black: its detail is gone.',
  ),
  kind(
    'castBlacks',
    'Cast of the blacks',
    'duv',
    3,
    'How far neutral dark tones are from neutral, as distance on the diagram of whites × 1000.',
    'A cast in the dark tones is seen as dirt, and saturation makes it worse.',
  ),
  kind(
    'castMids',
    'Cast of the mids',
    'duv',
    3,
    'How far neutral middle tones are from neutral, as distance on the diagram of whites × 1000.',
    'The eye takes the middle tones as the colour of the light.',
  ),
  kind(
    'castWhites',
    'Cast of the whites',
    'duv',
    3,
    'How far neutral bright tones are from neutral, as distance on the diagram of whites × 1000.',
    'The brightest neutral is what the eye calls white.',
  ),
  kind(
    'neutrals',
    'Neutrals',
    'duv',
    3,
    'How far the greys found in the picture are from neutral, as distance on the diagram of whites × 1000.',
    'Where greys are grey, every other colour can be right.',
  ),
  kind(
    'cardExposure',
    'Card, exposure',
    'stops',
    0.15,
    'How far the picked grey card is from middle grey, after Level.',
    'A card is the one tone whose light is known.',
  ),
  kind(
    'cardWhite',
    'Card, white',
    'duv',
    2,
    'How far the picked grey card is from neutral, after Level, as distance on the diagram of whites × 1000.',
    'A card is the one colour that is known.',
  ),
  kind(
    'skinHue',
    'Skin hue',
    'degrees',
    4,
    "Direction of the subject's skin on the vectorscope, against the subject's own card or, without " +
      'one, the skin line.',
    'People notice a wrong hue of skin before anything else.',
  ),
  kind(
    'skinLuma',
    'Skin luma',
    'percent',
    0.05,
    "Mean luma of the subject's skin.",
    "The face is where one looks; it should sit as this person's did.",
  ),
  kind(
    'skinChroma',
    'Skin chroma',
    'percent',
    0.04,
    "Mean distance of the subject's skin from neutral, 100 % being the largest possible.",
    'Skin with too much chroma looks flushed, with too little ill.',
  ),
  kind(
    'saturation',
    'Chroma, mean',
    'percent',
    0.05,
    'Mean distance from neutral on the vectorscope, 100 % being the largest possible.',
    'It says how colourful the picture is over all.',
  ),
  kind(
    'saturationTop',
    'Chroma, 99 %',
    'percent',
    0.08,
    'Chroma that 99 % of the pixels lie below, and the hue that is hottest.',
    'The hottest colours are the first to break on other displays.',
  ),
  kind(
    'outOfGamut',
    'Out of gamut',
    'pixels',
    0.01,
    'Pixels of a colour that the display does not have.',
    'Such colours are bent or cut: neighbours melt together.',
  ),
  kind(
    'outOfRange',
    'Out of range',
    'pixels',
    0.005,
    "Pixels of the delivered signal outside the bounds of EBU R 103: R'G'B' of −5 to 105 %, luma of −1 to 103 %.",
    'Broadcasters measure this and send the programme back.',
  ),
  kind(
    'noise',
    'Noise in shadows',
    'percent',
    0.004,
    'Standard deviation of the fine grain in flat dark places, in percent of the signal.',
    'Noise that was asleep in the dark wakes when the dark is lifted.',
  ),
  kind(
    'noiseGain',
    'Noise, grade',
    'times',
    1,
    'How much the grade multiplies the noise of the footage in dark places.',
    'It says what the grade did, apart from what the camera brought.',
  ),
  kind(
    'banding',
    'Coarse steps',
    'pixels',
    0.02,
    'Pixels of tones where one code of the file becomes more than two codes of an 8-bit display.',
    'Soft gradients there show as stripes.',
  ),
  kind(
    'range',
    'Code range',
    'pixels',
    0.001,
    'Codes that do not fit the range by which the file is read.',
    'A wrong range lifts or crushes everything that comes after.',
  ),
  kind(
    'noWhite',
    'True white',
    'stops',
    1,
    'How far the brightest half percent lies over middle grey after Level; a white surface lies 2.3 stops over it.',
    'Where nothing is white, stretching to the top makes day of evening.',
    false,
  ),
  kind(
    'noBlack',
    'True black',
    'stops',
    1,
    'How far the darkest half percent lies under middle grey after Level.',
    'Where nothing is black, stretching to zero makes night of mist.',
    false,
  ),
  kind(
    'restraint',
    'Restraint',
    'deltaE',
    3,
    'How far the look has moved the picture from the corrected one, as a mean colour difference.',
    'A look that is felt but not seen stays under a few.',
  ),
]

const byId = new Map(readingKinds.map((k) => [k.id, k]))
export const isReadingId = (id: unknown): id is ReadingId => typeof id === 'string' && byId.has(id as ReadingId)

/** Throws RangeError for an unknown id. */
export function readingKind(id: ReadingId): ReadingKind {
  const found = byId.get(id)
  if (!found) throw new RangeError(`There is no reading "${String(id)}".`)
  return found
}

interface UnitForm {
  readonly scale: number
  readonly decimals: number
  readonly after: string
}
const forms: Record<ReadingUnit, UnitForm> = {
  percent: { scale: 100, decimals: 1, after: '%' },
  pixels: { scale: 100, decimals: 2, after: '% of pixels' },
  stops: { scale: 1, decimals: 2, after: 'stops' },
  duv: { scale: 1, decimals: 1, after: 'Duv ×10³' },
  degrees: { scale: 1, decimals: 1, after: '°' },
  times: { scale: 1, decimals: 1, after: '×' },
  deltaE: { scale: 1, decimals: 1, after: 'ΔE' },
}

/** The unit's words, its scale from the carried number to the shown one, and its decimals. */
export const unitForm = (unit: ReadingUnit): UnitForm => forms[unit]

/** A carried number as it is shown, without its unit: with a true minus sign, never "−0". */
export function printValue(value: number, unit: ReadingUnit, signed = false): string {
  const { scale, decimals } = forms[unit]
  return printNumber(value * scale, decimals, signed)
}
