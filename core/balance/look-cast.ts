// Light neutral or picture neutral: what of the cast of the picture's greys is the light's and what the look's behind
// it, and the white balance that makes the greys of the finished picture neutral.
import { controlOf } from '../aims'
import { displayById, gamutById, lightOfSignal, workingGamut, type Vector3 } from '../colour'
import { buildChain, compile, execute, isActive, sceneLight, stationOf, type GradeDocument } from '../grade'
import { fitWithin, sampleSignal, shrink, type Frame } from '../image'
import { castOfRgb, measureCasts, measuredPicture, type Cast } from '../readings'
import { withControls, type BalanceQuestion, type Evidence } from './evidence'
import { roughSize } from './eye'

export interface LookCast {
  /** Of the greys in the picture, and of them without the look. */
  readonly picture: Cast
  readonly light: Cast
  readonly sentence: string
  /** Temperature and tint with which the greys of the picture are neutral. */
  readonly neutral: Evidence['values']
}

const size = { width: 320, height: 180 } as const
/** As near to the colour of the greys, on CIE 1960 u, v, a pixel is one of them. */
const asGrey = 0.006
/** Greys of less are not worth speaking of, and greys less sure than this are none. */
const leastShare = 0.005
const leastConfidence = 0.12
/** A look that moves greys by less than this leaves them alone. */
const leastLook = { mired: 2, duv: 0.0015 } as const
const rounds = 6

/** Null where no look stands behind, where it leaves greys alone, or where no greys are found. */
export function lookCast(question: BalanceQuestion): LookCast | null {
  const { grade, frame, lut } = question
  const plain = withoutLook(question)
  if (plain === grade) return null
  const { width, height } = fitWithin(frame.width, frame.height, size.width, size.height)
  const small = shrink(frame, width, height)
  const greys = greysOf(question, plain, small)
  if (greys.length < leastShare * width * height) return null
  const shownCast = (of: GradeDocument): Cast | null =>
    castOfGreys(of, execute(compile(of, lut, small, roughSize), small), greys)
  const [picture, light] = [shownCast(grade), shownCast(plain)]
  if (!picture || !light) return null
  const look = { mired: picture.mired - light.mired, duv: picture.duv - light.duv }
  if (Math.abs(look.mired) < leastLook.mired && Math.abs(look.duv) < leastLook.duv) return null
  let values: { temperature: number; tint: number } = {
    temperature: controlOf(grade, 'temperature')?.value ?? 0,
    tint: controlOf(grade, 'tint')?.value ?? 0,
  }
  for (let round = 0; round < rounds; round++) {
    const cast = shownCast(withControls(grade, values))
    if (!cast) return null
    values = { temperature: values.temperature - cast.mired, tint: values.tint + cast.duv * 1000 }
  }
  return { picture, light, neutral: values, sentence: sentenceOf(picture, look) }
}

/** "The greys of the picture are warm by 8 mired: 6 of 8 are the look's." By whichever of the two is more. */
function sentenceOf(picture: Cast, look: Pick<Cast, 'mired' | 'duv'>): string {
  const byTint = Math.abs(picture.duv) * 1000 > Math.abs(picture.mired) / 2
  const [all, its] = byTint ? [picture.duv * 1000, look.duv * 1000] : [picture.mired, look.mired]
  const sign = all < 0 ? -1 : 1
  const number = (v: number): string => (sign * v).toFixed(byTint ? 1 : 0).replace('-', '−')
  const names = byTint ? (['green', 'magenta'] as const) : (['warm', 'cool'] as const)
  const unit = byTint ? 'Duv ×10³' : 'mired'
  return (
    `The greys of the picture are ${names[all < 0 ? 1 : 0]} by ${number(all)} ${unit}: ` +
    `${number(its)} of ${number(all)} are the look’s.`
  )
}

/** The grade with its look switched off; the same where it has none. */
function withoutLook({ grade, lut }: BalanceQuestion): GradeDocument {
  const isLook = (step: GradeDocument['steps'][number]): boolean =>
    stationOf(step) === 'look' && isActive(step, grade, lut)
  const plainShow = grade.show.method === 'lut' ? { ...grade.show, method: 'straight' as const } : grade.show
  if (!grade.steps.some(isLook) && plainShow === grade.show) return grade
  return { ...grade, show: plainShow, steps: grade.steps.map((s) => (isLook(s) ? { ...s, enabled: false } : s)) }
}

/** The pixels of the greys: those of the card that was pointed out, else of the colour that the greys have. */
function greysOf({ pointed, sourceBits, lut }: BalanceQuestion, plain: GradeDocument, small: Frame): readonly number[] {
  const { width, height } = small
  const all = Array.from({ length: width * height }, (_, p) => p)
  if (pointed.card) {
    const { left, right, top, bottom } = pointed.card
    return all.filter((p) => {
      const [x, y] = [((p % width) + 0.5) / width, (Math.floor(p / width) + 0.5) / height]
      return x > left && x < right && y > top && y < bottom
    })
  }
  const plan = compile(plain, lut, small, roughSize)
  const shown = execute(plan, small)
  const { all: found } = measureCasts(
    measuredPicture({ source: small, sourceBits, shown, grade: plain, chain: plan.chain, lut }),
  )
  if (!found || found.confidence < leastConfidence) return []
  const light = sceneLight(buildChain(plain, lut), 'level', sampleSignal(small, 1))
  return all.filter((p) => {
    const rgb: Vector3 = [light[p * 3], light[p * 3 + 1], light[p * 3 + 2]]
    const cast = castOfRgb(rgb, workingGamut)
    const top = Math.max(shown.data[p * 3], shown.data[p * 3 + 1], shown.data[p * 3 + 2]) / 65535
    return cast !== null && top > 0.08 && top < 0.97 && isAlike(cast, found)
  })
}
/** On the axes of a cast: a mired is about 0.00025 on u near daylight. */
const uPerMired = 0.00025
const isAlike = (a: Cast, b: Cast): boolean => Math.hypot((a.mired - b.mired) * uPerMired, a.duv - b.duv) < asGrey

/** The mean light that the display gives off for these pixels, against its own white. */
function castOfGreys({ show }: GradeDocument, { data }: Frame, pixels: readonly number[]): Cast | null {
  const display = displayById(show.displayId)
  const light = lightOfSignal(display)
  const sum = [0, 0, 0]
  for (const p of pixels)
    light(data[p * 3] / 65535, data[p * 3 + 1] / 65535, data[p * 3 + 2] / 65535).forEach((v, c) => {
      sum[c] += v
    })
  return castOfRgb([sum[0], sum[1], sum[2]], gamutById(display.gamutId))
}
