// Subjects: a sampled area in a reference frame, with its own luma, hue and chroma; shots are checked against that
// card.
import { gamutById, gamutToGamut, multiply, transform, workingGamut } from '../colour'
import { whiteBalanceMatrix } from '../grade'
import { cut } from '../image'
import { pixelsOf, workingLightOf, type Area, type MeasuredPicture } from './picture'
import { printValue } from './kinds'
import type { Finding } from './reading'
import type { Cast } from './white'

/**
 * The display signal of a subject's skin as it should be: luma and chroma 0..1, hue in degrees from +Cb, anticlockwise.
 */
export interface SubjectCard {
  readonly luma: number
  readonly chroma: number
  readonly hueDegrees: number
}

/** The direction of the +I axis, where skin of every complexion lies near: only its darkness differs. */
export const skinLineDegrees = 123

/**
 * Luma, hue and chroma of the skin in an area: of the tones that most of it shares, so that hair, eyes and highlights
 * in the area do not count. Null where nothing coloured like skin (within 50° of the line) makes up a tenth of it.
 */
export function readSkin({ shown, luma: w }: Pick<MeasuredPicture, 'shown' | 'luma'>, area: Area): SubjectCard | null {
  const { x0, x1, y0, y1 } = pixelsOf(area, shown)
  const { width, data } = shown
  const lumas: number[] = []
  const cbs: number[] = []
  const crs: number[] = []
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++) {
      const i = (y * width + x) * 3
      const r = data[i] / 65535
      const g = data[i + 1] / 65535
      const b = data[i + 2] / 65535
      const l = w.red * r + w.green * g + w.blue * b
      const cb = (b - l) / w.cbDivisor
      const cr = (r - l) / w.crDivisor
      if (
        Math.hypot(cb, cr) < 0.008 ||
        Math.abs(turn(degreesOf(cb, cr) - skinLineDegrees)) > 50 ||
        Math.max(r, g, b) >= 0.999
      )
        continue
      lumas.push(l)
      cbs.push(cb)
      crs.push(cr)
    }
  if (lumas.length < 4 || lumas.length < 0.1 * (x1 - x0) * (y1 - y0)) return null
  const order = [...lumas.keys()].sort((a, b) => lumas[a] - lumas[b])
  const kept = order.slice(Math.floor(order.length * 0.1), Math.ceil(order.length * 0.9))
  const mean = (list: readonly number[]): number => kept.reduce((s, i) => s + list[i], 0) / kept.length
  const cb = mean(cbs)
  const cr = mean(crs)
  return { luma: mean(lumas), chroma: Math.hypot(cb, cr) * 2, hueDegrees: degreesOf(cb, cr) }
}

const degreesOf = (cb: number, cr: number): number => ((Math.atan2(cr, cb) * 180) / Math.PI + 360) % 360
/** An angle within ±180°. */
export const turn = (degrees: number): number => ((((degrees + 180) % 360) + 360) % 360) - 180

/**
 * The same once a cast of the light is taken away, for a subject's card: what the skin is under neutral light. Its luma
 * is kept as measured. For signal of standard and high range alike; the cast is counted as castOf counts.
 */
export function readNeutralSkin(
  picture: Pick<MeasuredPicture, 'shown' | 'luma' | 'display'>,
  area: Area,
  cast: Pick<Cast, 'mired' | 'duv'> | null,
): SubjectCard | null {
  const asShown = readSkin(picture, area)
  if (!cast || !asShown) return asShown
  const { shown, display } = picture
  const { x0, x1, y0, y1 } = pixelsOf(area, shown)
  const part = cut(shown, { x: x0, y: y0, width: x1 - x0, height: y1 - y0 })
  const light = workingLightOf(display)
  const { eotf, carriedPeak } = display
  const back = multiply(
    gamutToGamut(workingGamut, gamutById(display.gamutId)),
    whiteBalanceMatrix(workingGamut, -cast.mired, cast.duv * 1000),
  )
  const data = new Uint16Array(part.data.length)
  for (let i = 0; i < data.length; i += 3)
    transform(back, light(part.data[i] / 65535, part.data[i + 1] / 65535, part.data[i + 2] / 65535)).forEach((v, c) => {
      data[i + c] = Math.round(65535 * eotf.encode(Math.min(carriedPeak, Math.max(0, v))))
    })
  const neutral = readSkin({ shown: { ...part, data }, luma: picture.luma }, { left: 0, top: 0, right: 1, bottom: 1 })
  return neutral && { ...neutral, luma: asShown.luma }
}

/** A subject in this shot: where its skin lies, and its card where it has one. */
export interface PlacedSubject {
  readonly name: string
  readonly area: Area
  readonly card: SubjectCard | null
}

export function subjectFindings(picture: MeasuredPicture, subject: PlacedSubject | null): readonly Finding[] {
  const skin = subject && readSkin(picture, subject.area)
  if (!subject || !skin) return []
  const { card, area, name } = subject
  const hue = turn(skin.hueDegrees - (card?.hueDegrees ?? skinLineDegrees))
  const way = Math.abs(hue) < 0.5 ? '' : `, ${hue > 0 ? 'greener' : 'redder'}`
  const against = card ? "the subject's own card" : 'the skin line'
  return [
    {
      id: 'skinHue',
      value: hue,
      confidence: 1,
      of: name,
      detail: `Lies at ${skin.hueDegrees.toFixed(1)}°, ${Math.abs(hue).toFixed(1)}° from ${against}${way}.`,
      area,
    },
    {
      id: 'skinLuma',
      value: skin.luma,
      confidence: 1,
      of: name,
      detail: card ? `The card says ${printValue(card.luma, 'percent')} %.` : '',
      area,
    },
    ...(card
      ? [
          {
            id: 'skinChroma' as const,
            value: skin.chroma - card.chroma,
            confidence: 1,
            of: name,
            detail: `Now ${printValue(skin.chroma, 'percent')} %, the card ${printValue(card.chroma, 'percent')} %.`,
            area,
          },
        ]
      : []),
  ]
}
