// Camera matrix: the camera's colours brought to those of a chart, in linear light. Rows sum to one: greys stay grey.
import type { Matrix3 } from '../../colour'
import { matrixOperation } from '../operation'
import { defineStepKind, type NumberParameter } from '../step-kind'

const share = (own: string, other: string): NumberParameter => ({
  type: 'number',
  label: `${own} of ${other}`,
  tip: `How much of ${other.toLowerCase()} is added to ${own.toLowerCase()}, which gives up as much of itself.`,
  unit: '',
  min: -1,
  max: 1,
  scale: [-0.5, 0.5],
  default: 0,
  step: 0.01,
  decimals: 3,
  signed: true,
})

/** What each channel has of the others. */
export interface CameraMatrix {
  readonly redOfGreen: number
  readonly redOfBlue: number
  readonly greenOfRed: number
  readonly greenOfBlue: number
  readonly blueOfRed: number
  readonly blueOfGreen: number
}

/** On linear RGB. */
export const cameraMatrixOf = (m: CameraMatrix): Matrix3 => [
  1 - m.redOfGreen - m.redOfBlue,
  m.redOfGreen,
  m.redOfBlue,
  m.greenOfRed,
  1 - m.greenOfRed - m.greenOfBlue,
  m.greenOfBlue,
  m.blueOfRed,
  m.blueOfGreen,
  1 - m.blueOfRed - m.blueOfGreen,
]

export const cameraMatrix = defineStepKind<Record<keyof CameraMatrix, number>>({
  id: 'camera-matrix',
  name: 'Camera matrix',
  tip: 'Mixes the channels so that a camera’s colours meet those of a chart. Greys stay grey.',
  station: 'level',
  domain: 'linear',
  pixelByPixel: true,
  order: 25,
  page: 'camera',
  firstSide: 'scene',
  stands: 'added',
  many: false,
  inRegions: 'never',
  parameters: {
    redOfGreen: share('Red', 'Green'),
    redOfBlue: share('Red', 'Blue'),
    greenOfRed: share('Green', 'Red'),
    greenOfBlue: share('Green', 'Blue'),
    blueOfRed: share('Blue', 'Red'),
    blueOfGreen: share('Blue', 'Green'),
  },
  isNeutral: (m) => Object.values(m).every((v) => v === 0),
  prepare: (m) => matrixOperation(cameraMatrixOf(m)),
})
