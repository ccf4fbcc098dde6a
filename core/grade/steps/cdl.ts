// Slope, offset, power and saturation of a colour decision list, for interchange: ASC CDL v1.2, on the encoded domain.
import { clamp01 } from '../../numbers'
import { channelCurves, pixelsOperation, type Curve } from '../operation'
import { defineStepKind } from '../step-kind'

export interface CdlNumbers {
  readonly slope: readonly [number, number, number]
  readonly offset: readonly [number, number, number]
  readonly power: readonly [number, number, number]
  readonly saturation: number
}
export const neutralCdl: CdlNumbers = { slope: [1, 1, 1], offset: [0, 0, 0], power: [1, 1, 1], saturation: 1 }

type Params = { readonly [K in `${'slope' | 'offset' | 'power'}${'Red' | 'Green' | 'Blue'}` | 'saturation']: number }
const channels = ['Red', 'Green', 'Blue'] as const
const number = (label: string, tip: string, min: number, max: number, initial: number, signed = false) =>
  ({ type: 'number', label, tip, unit: '', min, max, default: initial, step: 0.01, decimals: 3, signed }) as const
const perChannel = (
  name: 'slope' | 'offset' | 'power',
  label: string,
  tip: string,
  min: number,
  max: number,
  initial: number,
) =>
  Object.fromEntries(
    channels.map((c) => [
      `${name}${c}`,
      number(`${label}, ${c.toLowerCase()}`, tip, min, max, initial, name === 'offset'),
    ]),
  )

/** Luma weights of the standard's saturation (ASC CDL v1.2, "Saturation"): those of BT.709, whatever the gamut. */
const [lr, lg, lb] = [0.2126, 0.7152, 0.0722]

export const cdl = defineStepKind<Params>({
  id: 'cdl',
  name: 'Slope, offset, power',
  tip: 'Numbers of a colour decision list (ASC CDL), from or for another program, on working log.',
  station: 'look',
  domain: 'encoded',
  pixelByPixel: true,
  order: 10,
  page: 'cdl',
  firstSide: 'scene',
  stands: 'added',
  many: false,
  inRegions: 'never',
  parameters: {
    ...perChannel('slope', 'Slope', 'Multiplies the channel.', 0, 10, 1),
    ...perChannel('offset', 'Offset', 'Is added to the channel after the slope.', -2, 2, 0),
    ...perChannel('power', 'Power', 'The power the channel is raised to after that.', 0.05, 10, 1),
    saturation: number('Saturation', 'About luma with the weights of BT.709.', 0, 4, 1),
  } as never,
  isNeutral: (p) =>
    p.saturation === 1 && channels.every((c) => p[`slope${c}`] === 1 && p[`offset${c}`] === 0 && p[`power${c}`] === 1),
  prepare: (p) => {
    const [red, green, blue] = channels.map(
      (c): Curve =>
        (v) =>
          clamp01(v * p[`slope${c}`] + p[`offset${c}`]) ** p[`power${c}`],
    ) as [Curve, Curve, Curve]
    if (p.saturation === 1) return channelCurves(red, green, blue)
    return (at) =>
      pixelsOperation((pixels) => {
        for (let i = 0; i < pixels.length; i += 3) {
          const r = red(pixels[i])
          const g = green(pixels[i + 1])
          const b = blue(pixels[i + 2])
          const luma = lr * r + lg * g + lb * b
          pixels[i] = clamp01(luma + p.saturation * (r - luma))
          pixels[i + 1] = clamp01(luma + p.saturation * (g - luma))
          pixels[i + 2] = clamp01(luma + p.saturation * (b - luma))
        }
      }, at)
  },
})

export const cdlParameters = ({ slope, offset, power, saturation }: CdlNumbers): Params =>
  ({
    ...Object.fromEntries(
      channels.flatMap((c, i) => [
        [`slope${c}`, slope[i]],
        [`offset${c}`, offset[i]],
        [`power${c}`, power[i]],
      ]),
    ),
    saturation,
  }) as unknown as Params

export function cdlOf(params: Readonly<Record<string, unknown>>): CdlNumbers {
  const triple = (name: string): [number, number, number] =>
    channels.map((c) => Number(params[`${name}${c}`])) as [number, number, number]
  return {
    slope: triple('slope'),
    offset: triple('offset'),
    power: triple('power'),
    saturation: Number(params['saturation']),
  }
}
