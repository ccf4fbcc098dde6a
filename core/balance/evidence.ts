// What a frame says of its exposure and of the colour of its light, each with what it rests on and how sure it is.
import { middleGrey, workingLuminance } from '../colour'
import { buildChain, compile, execute, sceneLight, setParameter, type GradeDocument, type LutFinder } from '../grade'
import { sampleSignal, shrink, fitWithin, type Frame } from '../image'
import { castWords, measureCasts, measuredPicture, readCard, type Pointed } from '../readings'
import { controlOf, type ControlId } from '../aims'
import { roughSize } from './eye'

/** Something to change, absolute: what the controls are to be. */
export interface Evidence {
  readonly values: Partial<Readonly<Record<ControlId, number>>>
  readonly sentence: string
  readonly sure: boolean
}

export interface BalanceQuestion {
  /** The grade as it rests on this frame. */
  readonly grade: GradeDocument
  readonly frame: Frame
  readonly sourceBits: number
  readonly lut: LutFinder
  readonly pointed: Pointed
  /** The rest of the clip, for which a proposal must be good as well. */
  readonly clip?: Clip
}

/** The document whose state on frame `index` is balanced, and the clip's other moments: its darkest and brightest. */
export interface Clip {
  readonly document: GradeDocument
  readonly index: number
  readonly moments: readonly { readonly index: number; readonly frame: Frame }[]
}

/** The grade with some controls set; those whose step is missing or switched off are passed over. */
export function withControls(grade: GradeDocument, values: Evidence['values']): GradeDocument {
  return Object.entries(values).reduce((changed, [id, value]) => {
    const control = controlOf(changed, id as ControlId)
    if (!control) return changed
    const { min, max } = control.parameter
    return setParameter(changed, control.stepId, control.key, Math.min(max, Math.max(min, value)))
  }, grade)
}

const stopsText = (stops: number): string => `${stops < 0 ? '−' : '+'}${Math.abs(stops).toFixed(2)} stops`
/** Less than this is nobody's to see. */
const leastStops = 0.05
const leastMired = 1.5
const castTolerance = { mired: 8, duv: 0.003 } as const

/** A card lies in one light: single pixels of it vary by no more stops than this. */
const mostUneven = 0.6

/** By a card that somebody pointed out: exposure and white, both sure. */
export function byCard({ grade, frame, lut, pointed }: BalanceQuestion): Evidence | null {
  if (!pointed.card) return null
  let values: Evidence['values'] = { exposure: 0, temperature: 0, tint: 0 }
  const at = (of: GradeDocument): ReturnType<typeof readCard> =>
    pointed.card && readCard({ source: frame, chain: buildChain(of, lut) }, pointed.card)
  const first = at(withControls(grade, values))
  if (!first || first.unevenStops > mostUneven) return null
  // Each step of white balance is counted from the white itself: a second look takes out what is left.
  for (let look = 0; look < 3; look++) {
    const card = at(withControls(grade, values))
    if (!card) return null
    values = {
      exposure: (values.exposure ?? 0) - card.exposureStops,
      temperature: (values.temperature ?? 0) - card.cast.mired,
      tint: (values.tint ?? 0) + card.cast.duv * 1000,
    }
  }
  return {
    values,
    sentence: `The card lies ${stopsText(first.exposureStops)} from grey and is ${castWords(first.cast)}.`,
    sure: true,
  }
}

/** By greys that the picture itself shows, where it is sure of them. */
export function byGreys(question: BalanceQuestion, exposure: number): Evidence | null {
  const { frame, lut, sourceBits } = question
  const grade = withControls(question.grade, { exposure, temperature: 0, tint: 0 })
  const source = smaller(frame)
  const plan = compile(grade, lut, source, roughSize)
  const shown = execute(plan, source)
  const { all } = measureCasts(measuredPicture({ source, sourceBits, shown, grade, chain: plan.chain, lut }))
  if (!all || all.confidence < leastConfidence) return null
  const sure = all.confidence >= sureConfidence
  const share = sure ? 1 : ofLikely
  // What a cast is measured to: half of it where it is sure, all of it where it is likely, is no cast to speak of.
  const within = sure ? 0.5 : 1
  if (Math.abs(all.mired) < castTolerance.mired * within && Math.abs(all.duv) < castTolerance.duv * within)
    return {
      values: { temperature: 0, tint: 0 },
      sentence: sure ? 'The greys of the picture are neutral.' : 'What may be grey in it is nearly neutral.',
      sure,
    }
  return {
    values: { temperature: -all.mired * share, tint: all.duv * 1000 * share },
    sentence:
      `${(all.share * 100).toFixed(0)} % of the picture ${sure ? 'is' : 'may be'} grey: ${castWords(all)}` +
      `${sure ? '' : '; half of it is taken away'}.`,
    sure,
  }
}
/** From the first on it is sure; from the second on likely, and half of it is taken away: an error costs half. */
const sureConfidence = 1 / 3
const leastConfidence = 0.12
const ofLikely = 0.5

const judgedSize = { width: 480, height: 270 } as const
function smaller(frame: Frame): Frame {
  const { width, height } = fitWithin(frame.width, frame.height, judgedSize.width, judgedSize.height)
  return shrink(frame, width, height)
}

/** Light of the scene as it was shot, in stops over middle grey, by rank. */
export interface Tones {
  readonly at: (share: number) => number
  readonly mean: number
}

export function tonesOf({ grade, frame, lut }: BalanceQuestion): Tones {
  const { width, height } = fitWithin(frame.width, frame.height, 192, 108)
  const light = sceneLight(buildChain(grade, lut), 'read', sampleSignal(shrink(frame, width, height), 1))
  const [r, g, b] = workingLuminance
  const stops = Float64Array.from({ length: light.length / 3 }, (_, p) =>
    Math.log2(Math.max(r * light[p * 3] + g * light[p * 3 + 1] + b * light[p * 3 + 2], 1e-4) / middleGrey),
  ).sort()
  return {
    at: (share) => stops[Math.floor(share * (stops.length - 1))],
    mean: stops.reduce((sum, v) => sum + v, 0) / stops.length,
  }
}

/** White surfaces lie about 2.3 stops over grey; nothing at all that is brighter than these was shot too dark. */
const noLight = 0.3
/** No shadow at all under these was shot too bright, or stands before white: only a person knows. */
const noShadow = 1.2
/** Without a card exposure is brought only so near to where it would be expected, and by no more than a stop. */
const keptAway = 0.8
const mostUnproved = 1

/**
 * By the tones alone: a scene that holds nothing bright was probably shot too dark, and is raised part of the way. All
 * else may be as it was meant: night stays night, day is not made of dusk, and a white ground stays white.
 */
export function byTones(tones: Tones): Evidence | null {
  const brightest = tones.at(0.99)
  const darkest = tones.at(0.1)
  if (brightest < noLight && tones.at(0.5) > -4) {
    const exposure = Math.min(mostUnproved, noLight + keptAway - brightest)
    return {
      values: { exposure },
      sentence: `Nothing in it is brighter than ${stopsText(brightest)} from grey: it may be shot too dark.`,
      sure: false,
    }
  }
  if (darkest > noShadow)
    return {
      values: {},
      sentence: `Nine tenths are brighter than ${stopsText(darkest)} from grey: too bright, or before something white.`,
      sure: false,
    }
  return null
}

export const isNothing = ({ values }: Pick<Evidence, 'values'>, grade: GradeDocument): boolean =>
  Object.entries(values).every(([id, value]) => {
    const control = controlOf(grade, id as ControlId)
    return !control || Math.abs(control.value - value) < (id === 'exposure' ? leastStops : leastMired)
  })
