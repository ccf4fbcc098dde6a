// Judges readings and casts on photographs that nothing was tuned on: do they cry wolf, and do they name the fault?
import { defaultGrade } from '@core/grade'
import {
  defaultStandardId,
  gradedPicture,
  judge,
  measureCasts,
  measureFrame,
  outside,
  standardById,
  type MeasuredPicture,
  type Reading,
} from '@core/readings'
import { faultyPicture, noFault, type Fault } from './faults'
import { judgingPhotographs } from './photographs'
import { randomSource } from './scenes'

const finished = defaultGrade('gamma-2.4', 'bt709')
const pictureOf = (name: string, seed: number, fault: Fault): MeasuredPicture =>
  gradedPicture(faultyPicture(name, seed, fault), 8, finished, () => undefined)

const isCast = ({ id }: Reading): boolean => /^(neutrals|cast)/.test(id)
/** Each fault with the readings that name it. */
const faults: readonly { readonly name: string; readonly fault: Fault; readonly names: (r: Reading) => boolean }[] = [
  { name: 'a stop too dark', fault: { ...noFault, stops: -1 }, names: ({ id }) => id === 'white' || id === 'middle' },
  { name: 'clipped by a stop', fault: { ...noFault, stops: 1 }, names: ({ id }) => id === 'clipped' },
  { name: '25 mired too warm', fault: { ...noFault, mired: 25 }, names: isCast },
  { name: '25 mired too cool', fault: { ...noFault, mired: -25 }, names: isCast },
  { name: 'blacks lifted by 10 %', fault: { ...noFault, lift: 0.1 }, names: ({ id }) => id === 'black' },
]

export interface ReadingScores {
  /** Readings outside, of every untouched picture. */
  readonly outside: readonly number[]
  readonly named: readonly { readonly name: string; readonly first: number; readonly of: number }[]
}

export function judgeReadings(parts: number, names: readonly string[] = judgingPhotographs): ReadingScores {
  const standard = standardById(defaultStandardId)
  const seeds = names.flatMap((name, n) => Array.from({ length: parts }, (_, t) => ({ name, seed: n * 31 + t })))
  const read = (name: string, seed: number, fault: Fault): readonly Reading[] =>
    judge(measureFrame(pictureOf(name, seed, fault)), standard)
  return {
    outside: seeds.map(({ name, seed }) => outside(read(name, seed, noFault)).length),
    named: faults.map(({ name, fault, names: namesIt }) => ({
      name,
      first: seeds.filter((s) => read(s.name, s.seed, fault).slice(0, 1).some(namesIt)).length,
      of: seeds.length,
    })),
  }
}

export interface CastScores {
  readonly all: number
  readonly judged: number
  /** Within 8 mired and 3 Duv of what the camera missed, the photograph itself taken for neutral. */
  readonly near: number
  /** The same against what is found in the untouched photograph: how far the photograph's own colour is the bound. */
  readonly nearItsOwn: number
  readonly untouched: number
  readonly untouchedCalledWrong: number
}

export function judgeCasts(takes: number, names: readonly string[] = judgingPhotographs): CastScores {
  const scores = { all: 0, judged: 0, near: 0, nearItsOwn: 0, untouched: 0, untouchedCalledWrong: 0 }
  const tolerated = standardById(defaultStandardId).targets.neutrals?.high ?? 0
  const isNear = (mired: number, duv: number): boolean => Math.abs(mired) <= 8 && Math.abs(duv * 1000) <= 3
  for (const [n, name] of names.entries())
    for (let t = 0; t < takes; t++) {
      const random = randomSource(100 + t * 7 + n * 1000)
      const untouched = t % 3 === 0
      const mired = untouched ? 0 : (random() * 2 - 1) * 60
      const tint = untouched ? 0 : (random() * 2 - 1) * 12
      const fault = { ...noFault, mired, tint, stops: (random() * 2 - 1) * 0.7 }
      const seed = t * 31 + n
      const { all: found } = measureCasts(pictureOf(name, seed, fault))
      scores.all++
      if (untouched) scores.untouched++
      if (!found || found.confidence < 1 / 3) continue
      scores.judged++
      if (isNear(found.mired - mired, found.duv - tint / 1000)) scores.near++
      const own = measureCasts(pictureOf(name, seed, noFault)).all
      if (own && isNear(found.mired - mired - own.mired, found.duv - tint / 1000 - own.duv)) scores.nearItsOwn++
      if (untouched && found.distance > tolerated) scores.untouchedCalledWrong++
    }
  return scores
}
