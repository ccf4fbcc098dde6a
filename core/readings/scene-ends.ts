// Whether the scene holds a true white and a true black at all: where it does not, no stretch is wanted.
import { middleGrey, workingLuminance } from '../colour'
import { encodingOf, sceneLight } from '../grade'
import { sampleSignal } from '../image'
import type { MeasuredPicture } from './picture'
import { printValue } from './kinds'
import type { Finding } from './reading'

/** A white surface lies 2.3 stops over grey; paper in half shade still reaches this. */
const leastWhiteStops = 1.6
/** A black surface in the light lies about 2.5 stops under grey, a hole in it far more. */
const leastBlackStops = -3

export function sceneEndFindings({ source, chain, grade }: MeasuredPicture): readonly Finding[] {
  const stride = Math.max(1, Math.floor((source.width * source.height) / 20_000)) | 1
  const light = sceneLight(chain, 'level', sampleSignal(source, stride))
  const [wr, wg, wb] = workingLuminance
  const stops = Float64Array.from({ length: light.length / 3 }, (_, p) =>
    Math.log2(Math.max(wr * light[p * 3] + wg * light[p * 3 + 1] + wb * light[p * 3 + 2], 1e-5) / middleGrey),
  ).sort()
  const at = (share: number): number => stops[Math.min(stops.length - 1, Math.floor(share * stops.length))] ?? 0
  const brightest = at(0.995)
  const darkest = at(0.005)
  // A finished picture does not say where grey was: without white it may as well be exposed too low.
  const saysWhereGreyIs = grade.read.method !== 'formula' || encodingOf(grade.read).group !== 'display'
  const lacksWhite = brightest < leastWhiteStops && saysWhereGreyIs
  return [
    {
      id: 'noWhite',
      value: brightest,
      confidence: 1,
      alarm: lacksWhite,
      detail: lacksWhite
        ? `The brightest half percent lies ${printValue(brightest, 'stops', true)} stops from grey, under a ` +
          `white surface's 2.3: no stretch to white is wanted.`
        : '',
    },
    {
      id: 'noBlack',
      value: darkest,
      confidence: 1,
      alarm: darkest > leastBlackStops,
      detail:
        darkest > leastBlackStops
          ? `The darkest half percent lies only ${printValue(-darkest, 'stops')} stops under grey: no stretch ` +
            'to black is wanted.'
          : '',
    },
  ]
}
