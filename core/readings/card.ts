// A picked grey card: how far it is from middle grey and from neutral after Level.
import { middleGrey, rgbToXyz, transform, workingGamut, workingLuminance, type Vector3 } from '../colour'
import { sceneLight } from '../grade'
import { pixelsOf, type Area, type MeasuredPicture } from './picture'
import type { Finding } from './reading'
import { castOf, castWords, uvOf, type Cast } from './white'

export interface CardReading {
  /** Positive is too bright. */
  readonly exposureStops: number
  readonly cast: Cast
  /** Deviation of single pixels over the card, in stops: a card in two lights is no card. */
  readonly unevenStops: number
}

/** Scene-linear AP1 after Level, averaged over an area. */
function levelLight(
  { source, chain }: Pick<MeasuredPicture, 'source' | 'chain'>,
  area: Area,
): { readonly mean: Vector3; readonly unevenStops: number } {
  const { x0, x1, y0, y1 } = pixelsOf(area, source)
  const { width, data, low, high } = source
  const codes = new Float64Array((x1 - x0) * (y1 - y0) * 3)
  const scale = (high - low) / 65535
  let o = 0
  for (let y = y0; y < y1; y++)
    for (let i = (y * width + x0) * 3, end = i + (x1 - x0) * 3; i < end; i++) codes[o++] = low + data[i] * scale
  sceneLight(chain, 'level', codes)
  const sums = [0, 0, 0]
  const stops: number[] = []
  for (let i = 0; i < codes.length; i += 3) {
    for (let c = 0; c < 3; c++) sums[c] += codes[i + c]
    stops.push(
      Math.log2(
        Math.max(
          1e-5,
          workingLuminance[0] * codes[i] + workingLuminance[1] * codes[i + 1] + workingLuminance[2] * codes[i + 2],
        ),
      ),
    )
  }
  const n = stops.length
  const middle = stops.reduce((a, b) => a + b, 0) / n
  return {
    mean: [sums[0] / n, sums[1] / n, sums[2] / n],
    unevenStops: Math.sqrt(stops.reduce((s, v) => s + (v - middle) ** 2, 0) / n),
  }
}

/** Null where the area holds no light. */
export function readCard(picture: Pick<MeasuredPicture, 'source' | 'chain'>, area: Area): CardReading | null {
  const { mean, unevenStops } = levelLight(picture, area)
  const luminance = workingLuminance[0] * mean[0] + workingLuminance[1] * mean[1] + workingLuminance[2] * mean[2]
  const uv = uvOf(transform(rgbToXyz(workingGamut), mean))
  return luminance > 1e-5 && uv
    ? { exposureStops: Math.log2(luminance / middleGrey), cast: castOf(uv, workingGamut), unevenStops }
    : null
}

export function cardFindings(picture: MeasuredPicture, area: Area | null): readonly Finding[] {
  const card = area && readCard(picture, area)
  if (!card) return []
  const confidence = Math.max(0, 1 - card.unevenStops / 0.8)
  const uneven = confidence < 0.6 ? ' The card is unevenly lit.' : ''
  let over = ''
  if (card.exposureStops > 0.005) over = 'Brighter than middle grey.'
  else if (card.exposureStops < -0.005) over = 'Darker than middle grey.'
  return [
    { id: 'cardExposure', value: card.exposureStops, confidence, detail: `${over}${uneven}`, area },
    {
      id: 'cardWhite',
      value: card.cast.distance,
      confidence,
      detail: `The card is ${castWords(card.cast)}.${uneven}`,
      area,
      cast: card.cast,
    },
  ]
}
