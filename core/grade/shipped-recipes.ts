// Recipes of our own making that ship with the program: ordinary steps, each with a line on when it serves and when it
// does not.
import type { CurvePoint, StepParameters } from './document'
import type { Recipe, RecipeStep } from './recipes'
import { setPush } from './colour-push'
import { logAtStops } from '../colour'
import { defaultParameters } from './step-kind'
import { stepKindById } from './steps'
import { colourCurves } from './steps/colour-curves'

const step = (
  kind: string,
  params: StepParameters,
  change: Partial<Pick<RecipeStep, 'name' | 'strength'>> = {},
): RecipeStep => {
  const declared = stepKindById(kind)
  return {
    kind,
    name: declared.name,
    strength: 1,
    side: 'scene',
    params: { ...defaultParameters(declared), ...params },
    ...change,
  }
}
const zone = (
  name: string,
  centreStops: number,
  reach: 'below' | 'around' | 'above',
  params: StepParameters,
): RecipeStep => step('zone', { centreStops, reach, widthStops: 3, ...params }, { name })
/** A curve by what tones in stops become. */
const tones = (...points: readonly (readonly [number, number])[]): readonly CurvePoint[] =>
  points.map(([x, y]) => ({ x: logAtStops(x), y: logAtStops(y) }))
const push = (
  id: 'hueByHue' | 'saturationByHue' | 'lightnessByHue',
  degrees: number,
  widthDegrees: number,
  amount: number,
  points: readonly CurvePoint[] = colourCurves[id].default,
): readonly CurvePoint[] => setPush(id, points, { degrees, widthDegrees, softness: 0.8, amount })

const recipe = (id: string, name: string, serves: string, not: string, ...steps: readonly RecipeStep[]): Recipe => ({
  id: `shipped-${id}`,
  name,
  note: `Serves ${serves}. Not ${not}.`,
  steps,
  regions: [],
})

export const shippedRecipes: readonly Recipe[] = [
  recipe(
    'split',
    'Complementary split',
    'skin before cool surroundings: it cools the darks and warms the lights',
    'for scenes that are warm all through, where the darks turn grey',
    zone('Cool darks', -3, 'below', { tintDegrees: 205, tintAmount: 0.16 }),
    zone('Warm lights', 2, 'above', { tintDegrees: 35, tintAmount: 0.1 }),
  ),
  recipe(
    'night',
    'Night from day',
    'daylight that is to pass for moonlight: darker, violet-blue, paler, deep shadows',
    'where the sky fills the frame or lamps should glow: hide the sky, and add the lamps as regions',
    step('exposure', { exposureStops: -1.8 }),
    step('white-balance', { temperatureMired: -38, tint: 6 }),
    step('contrast', { contrast: 1.12, pivotStops: -1 }),
    step('saturation', { saturation: 0.55, vibrance: 0.8 }),
    zone('Night darks', -3, 'below', { exposureStops: -0.5, tintDegrees: 255, tintAmount: 0.12 }),
  ),
  recipe(
    'film-black',
    'Lifted black, soft white',
    "quiet drama: black like a print's, whites that roll off",
    'for pictures that are flat already, or that must show a true black',
    step('black-offset', { blackOffset: 0.008 }),
    step('ends', { highlightStops: -0.7, shadowStops: 0.4 }),
    step('saturation', { saturation: 0.92 }),
  ),
  recipe(
    'underlay',
    'Quiet monochrome underlay',
    'colour that shouts: a fifth of it is grey, and tones hold the picture together',
    'where colour is the subject',
    step('saturation', { saturation: 0 }, { name: 'Monochrome', strength: 0.2 }),
  ),
  recipe(
    'print',
    'Dense saturated print',
    'sun and strong things: deep, dense colours with more contrast',
    'for faces lit hard, whose shadows close',
    step('contrast', { contrast: 1.18 }),
    step('colour-curves', {
      saturationBySaturation: [
        { x: 0, y: 1 },
        { x: 0.15, y: 1.25 },
        { x: 0.45, y: 1.05 },
      ],
      lightnessByHue: push('lightnessByHue', 240, 90, -0.25),
      cleanEnds: 'on',
    }),
  ),
  recipe(
    'pastel',
    'Dusty pastel',
    'soft daylight and pale walls: low contrast, quiet strong colours',
    'for night, where nothing is left of the light',
    step('contrast', { contrast: 0.86 }),
    step('black-offset', { blackOffset: 0.006 }),
    step('colour-curves', {
      saturationBySaturation: [
        { x: 0, y: 1.1 },
        { x: 0.15, y: 0.85 },
        { x: 0.5, y: 0.6 },
      ],
    }),
  ),
  recipe(
    'underwater',
    'Underwater red recovery',
    'shallow water whose red is weak but there',
    'below some ten metres: there is no red left to bring back, only noise',
    step('white-balance', { temperatureMired: 60, tint: 14 }),
    step('colour-curves', {
      saturationByHue: push('saturationByHue', 195, 60, -0.35, push('saturationByHue', 30, 50, 0.35)),
      hueByHue: push('hueByHue', 195, 50, 12),
      quietNoise: 0.4,
    }),
  ),
  recipe(
    'snow',
    'Snow kept clean',
    'snow, salt and white walls: bright tones without cast, blue kept out of the shade by half',
    'where the light itself is coloured and should be seen to be',
    step('ends', { highlightStops: -0.35, shadowStops: 0 }),
    zone('White snow', 2.5, 'above', { saturation: 0.35 }),
    zone('Snow in the shade', 0.5, 'around', { widthStops: 2, saturation: 0.8 }),
  ),
  recipe(
    'candle',
    'Candle and tungsten kept warm',
    'lamps that should stay warm after the balance: the lights take warmth back, the darks do not',
    'where white must be white',
    step('balance-by-tone', { highlightsMired: 24, highlightsTint: -1, shadowsMired: 4 }),
    step('colour-curves', { saturationByHue: push('saturationByHue', 60, 45, 0.15) }),
  ),
  recipe(
    'mist',
    'Mist',
    'distance and soft mornings: light and dark beside each other are drawn together, black lifts a ' +
      'little, colours go quiet',
    'where edges must be read, or over noise that it would lay bare',
    step('local-contrast', { localContrast: -0.55, localSizePercent: 6 }),
    step('black-offset', { blackOffset: 0.006 }),
    step('contrast', { contrast: 0.94 }),
    step('saturation', { saturation: 0.85 }),
  ),
  recipe(
    'silver',
    'Silver retained',
    'hard stories: more contrast, half the colour, dense lights',
    'for skin that should look well',
    step('contrast', { contrast: 1.3 }),
    step('saturation', { saturation: 0.5 }),
    zone('Dense lights', 2, 'above', { exposureStops: -0.2, saturation: 0.7 }),
  ),
  recipe(
    'neutral',
    'Documentary neutral',
    'pictures to be believed: clean ends, a little contrast, no tint',
    'where the scene asks for a mood',
    step('contrast', { contrast: 1.05 }),
    step('colour-curves', {
      saturationBySaturation: [
        { x: 0, y: 1 },
        { x: 0.3, y: 1 },
        { x: 0.6, y: 0.85 },
      ],
      cleanEnds: 'on',
    }),
  ),
  recipe(
    'gentle-s',
    'Gentle S',
    'flat light: a soft curve about middle grey',
    'on top of another contrast',
    step('tone-curve', { points: tones([-7, -7.1], [-3, -3.25], [0, 0], [2.5, 2.7], [7, 7]) }),
  ),
  recipe(
    'strong-s',
    'Strong S',
    'graphic pictures: a curve that closes the shadows',
    'for 8-bit footage: look where it will band',
    step('tone-curve', { points: tones([-7, -8], [-3, -3.8], [0, 0], [2.5, 3], [7, 7]) }),
  ),
  recipe(
    'lifted',
    'Lifted black',
    'a haze over the deepest tones only',
    'where the picture must be deep',
    step('tone-curve', { points: tones([-8, -5.4], [-5, -4.3], [-2.5, -2.4], [0, 0], [7, 7]) }),
  ),
  recipe(
    'cool-warm',
    'Cool shadows, warm lights',
    'a tint made by curves of the channels alone',
    'for skin in deep shade, which turns blue',
    step('tone-curve', {
      red: tones([-6, -6.2], [-3, -3.12], [0, 0], [2.5, 2.58], [7, 7]),
      blue: tones([-6, -5.75], [-3, -2.88], [0, 0], [2.5, 2.4], [7, 7]),
    }),
  ),
]
