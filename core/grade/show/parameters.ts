// What the Show station can be told: its methods and their numbers, declared once for validator, interface and shell.
import type { StepParameters } from '../document'
import type { NumberParameter } from '../step-kind'

export type ShowMethodId = 'straight' | 'rendered' | 'rolloff' | 'print' | 'lut'
/** The methods that need nothing but themselves: one of them may stand for a whole project. */
export const defaultRenderings = ['rendered', 'print', 'rolloff', 'straight'] as const satisfies readonly ShowMethodId[]
export type DefaultRendering = (typeof defaultRenderings)[number]
/** What scene light is shown by where nobody said otherwise. */
export const firstRendering: DefaultRendering = 'rendered'
export type GamutMethodId = 'clip' | 'compress'

export interface ShowChoice<Id extends string> {
  readonly id: Id
  readonly name: string
  readonly tip: string
  /** The keys of the numbers it reads. */
  readonly uses: readonly ShowParameterKey[]
}

const number = (p: Omit<NumberParameter, 'type'>): NumberParameter => ({ type: 'number', ...p })

export const showParameters = {
  kneeStops: number({
    label: 'Knee',
    tip: 'How far under display white the shoulder begins; below it nothing changes.',
    unit: 'stops',
    min: 0.1,
    max: 5,
    scale: [0.1, 3],
    default: 1,
    step: 0.05,
    decimals: 2,
  }),
  sceneMaximumStops: number({
    label: 'Scene maximum',
    tip: 'The light, in stops over middle grey, that becomes display white.',
    unit: 'stops',
    min: 1,
    max: 14,
    scale: [2, 10],
    default: 6,
    step: 0.1,
    decimals: 1,
    signed: true,
  }),
  bleach: number({
    label: 'Bleach',
    tip: '0 % keeps the colour of bright light; 100 % lets it go to white channel by channel.',
    unit: '%',
    min: 0,
    max: 1,
    default: 0.35,
    step: 0.01,
    decimals: 0,
    shownFactor: 100,
  }),
  printContrast: number({
    label: 'Print contrast',
    tip: 'Stops out for one stop in, at middle grey.',
    unit: '×',
    min: 0.8,
    max: 3,
    scale: [0.8, 2.2],
    default: 1.25,
    step: 0.01,
    decimals: 2,
  }),
  toe: number({
    label: 'Toe',
    tip: 'How soon the shadows bend toward black: 0 % late and hard, 100 % early and soft.',
    unit: '%',
    min: 0,
    max: 1,
    default: 0.4,
    step: 0.01,
    decimals: 0,
    shownFactor: 100,
  }),
  shoulder: number({
    label: 'Shoulder',
    tip: 'How soon the highlights bend toward white: 0 % late and hard, 100 % early and soft.',
    unit: '%',
    min: 0,
    max: 1,
    default: 0.5,
    step: 0.01,
    decimals: 0,
    shownFactor: 100,
  }),
  greyPlacement: number({
    label: 'Grey at',
    tip: 'The light that middle grey is given, as a share of display white; 18 % leaves it where it is.',
    unit: '% light',
    min: 0.04,
    max: 0.4,
    scale: [0.05, 0.3],
    default: 0.16,
    step: 0.005,
    decimals: 1,
    shownFactor: 100,
  }),
  gamutThreshold: number({
    label: 'Gamut threshold',
    tip: "Colours purer than this share of the display's purest are drawn in; those below stay.",
    unit: '%',
    min: 0.3,
    max: 0.99,
    scale: [0.5, 0.99],
    default: 0.8,
    step: 0.01,
    decimals: 0,
    shownFactor: 100,
  }),
  gamutLimit: number({
    label: 'Gamut limit',
    tip: "The purity that is brought to the display's edge; 100 % is the edge itself.",
    unit: '%',
    min: 1.01,
    max: 3,
    scale: [1.01, 2],
    default: 1.3,
    step: 0.01,
    decimals: 0,
    shownFactor: 100,
  }),
} as const
export type ShowParameterKey = keyof typeof showParameters
export type ShowParameters = StepParameters & Readonly<Record<ShowParameterKey, number>>

export const defaultShowParameters = Object.fromEntries(
  Object.entries(showParameters).map(([key, p]) => [key, p.default]),
) as ShowParameters

export const showMethods: readonly ShowChoice<ShowMethodId>[] = [
  {
    id: 'straight',
    name: 'straight',
    tip: 'Matrix to the display, then clip: exact up to display white, nothing above it.',
    uses: [],
  },
  {
    id: 'rendered',
    name: 'rendered',
    tip: 'The middle as it is; bright light rolls off to the scene maximum and goes to white with its hue held.',
    uses: ['sceneMaximumStops', 'toe', 'bleach'],
  },
  {
    id: 'rolloff',
    name: 'rolloff',
    tip: 'Straight up to a knee, then a shoulder that keeps bright light inside.',
    uses: ['kneeStops', 'sceneMaximumStops', 'bleach'],
  },
  {
    id: 'print',
    name: 'print',
    tip: 'The whole tone scale as a print has it: steeper in the middle, soft at both ends.',
    uses: ['printContrast', 'toe', 'shoulder', 'greyPlacement'],
  },
  { id: 'lut', name: 'LUT', tip: 'A supplied table that takes working log and returns the display signal.', uses: [] },
]
export const gamutMethods: readonly ShowChoice<GamutMethodId>[] = [
  { id: 'clip', name: 'clip', tip: 'Colours outside the display are cut off at its edge.', uses: [] },
  {
    id: 'compress',
    name: 'compress',
    tip: 'Pure colours are drawn in before they reach the edge, so that their shading stays.',
    uses: ['gamutThreshold', 'gamutLimit'],
  },
]
