// Marks that keep a surface as it is along the clip: its tone by exposure, or its colour neutral by temperature and
// tint. Both act in Level, beneath the look, and answer to nothing but the light that changes.
import {
  displayById,
  gamutById,
  luminanceWeights,
  rgbToXyz,
  transform,
  workingGamut,
  workingLuminance,
  type Gamut,
  type Vector3,
} from '../colour'
import { controlOf, type ControlId } from '../aims/controls'
import {
  buildChain,
  evaluateDirect,
  gradeAt,
  sceneLight,
  setKeyframes,
  setParameter,
  stationOf,
  type GradeDocument,
  type Keyframes,
  type LutFinder,
  type Step,
} from '../grade'
import { clamp } from '../numbers'
import { castOf, uvOf } from '../readings'
import type { SurfaceSample } from './follow-surface'
import { calmed, marksOf, noiseOf, withoutOutliers, type Course } from './marks'

export type SteadyKind = 'tone' | 'neutral'

export interface Steadied {
  /** Each control with its marks; one mark means one value all along. */
  readonly controls: readonly Keyframes[]
  readonly marks: number
  /** How far the surface goes along the clip, in the kind's unit: before, and what is left of it. */
  readonly before: number
  readonly after: number
  /** Frames that stood apart from those about them and were not followed. */
  readonly leftOut: number
  /** A control stands at its end somewhere. */
  readonly limited: boolean
}

/** A grade, perhaps changed since it was measured, with what was solved: these controls are set, all else stands. */
export function withSteadied(grade: GradeDocument, { controls }: Pick<Steadied, 'controls'>): GradeDocument {
  return controls.reduce((next, control) => {
    const { stepId, key, keyframes } = control
    const [first, ...others] = keyframes
    if (!first || !next.steps.some((s) => s.id === stepId)) return next
    return others.length > 0
      ? setKeyframes(next, control)
      : setParameter(withoutKeyframes(next, stepId, key), stepId, key, first.value)
  }, grade)
}

/**
 * What cannot be kept: the surface holds still already, it is too dark to tell, it has a colour of its own, or the step
 * was taken away.
 */
export type Unsteady = 'steady' | 'dark' | 'coloured' | 'none'

/** Below these no eye tells it from one that holds still. */
export const steadyUnits: Readonly<Record<SteadyKind, { readonly unit: string; readonly still: number }>> = {
  tone: { unit: 'stop', still: 0.06 },
  neutral: { unit: 'mired', still: 4 },
}

interface Control {
  readonly stepId: string
  readonly key: string
  readonly tolerance: number
  readonly outlier: number
}

/** Farther from neutral than this on the frame that was pointed out, it is no grey: mired, and Duv × 1000. */
const mostCast = { mired: 45, tint: 14 } as const
const leastLight = 1e-4
/** Frames about each that are taken together. */
const calmReach = 3
const outlierReach = 12

/**
 * @param samples in order of frames; the one of `reference` says what is kept (for tone)
 * @throws RangeError without a sample of the reference
 */
export function keepSteady(
  kind: SteadyKind,
  grade: GradeDocument,
  lut: LutFinder,
  samples: readonly SurfaceSample[],
  reference: number,
): Steadied | Unsteady {
  const first = controlOf(grade, kind === 'tone' ? 'exposure' : 'temperature')
  const step = grade.steps.find((s) => s.id === first?.stepId)
  if (!step) return 'none'
  const at = samples.find((s) => s.frame === reference)
  if (!at) throw new RangeError(`Frame ${reference} has no sample.`)
  const light = lightThrough(grade, lut, step)
  return kind === 'tone' ? steadyTone(grade, step, samples, at, light) : steadyNeutral(grade, step, samples, at, light)
}

type LightAt = (document: GradeDocument, sample: SurfaceSample) => Vector3

/** Linear light of a surface after Level, through a grade that is changed: nothing behind Level counts. */
function lightThrough(grade: GradeDocument, lut: LutFinder, { side }: Step): LightAt {
  const display = displayById(grade.show.displayId)
  return (document, { frame, signal }) => {
    const now = gradeAt(document, frame)
    const level = now.steps.filter((s) => s.regionId === undefined && stationOf(s) === 'level')
    const chain = buildChain({ ...now, steps: level, regions: [] }, lut)
    const pixel = Float64Array.from(signal)
    if (side === 'scene') return vector(sceneLight(chain, 'level', pixel))
    evaluateDirect(chain, pixel, { shares: new Float64Array(2), frameWidth: 1, frameHeight: 1 })
    return vector(pixel.map(display.eotf.decode))
  }
}
const vector = ([r, g, b]: Float64Array): Vector3 => [r, g, b]

function steadyTone(
  grade: GradeDocument,
  step: Step,
  samples: readonly SurfaceSample[],
  reference: SurfaceSample,
  light: LightAt,
): Steadied | Unsteady {
  const { min, max } = limitsOf(grade, 'exposure')
  const weights = step.side === 'scene' ? workingLuminance : luminanceWeights(gamutOfShow(grade))
  const stops = (document: GradeDocument, sample: SurfaceSample): number => {
    const [r, g, b] = light(document, sample)
    return Math.log2(Math.max(leastLight, weights[0] * r + weights[1] * g + weights[2] * b))
  }
  const wanted = stops(grade, reference)
  if (wanted < Math.log2(leastLight) + 1) return 'dark'
  const before = samples.map((s) => ({ frame: s.frame, value: stops(grade, s) - wanted }))
  const held = withoutKeyframes(grade, step.id, 'exposureStops')
  let limited = false
  const course = samples.map((sample) => {
    let value = valueOf(gradeAt(grade, sample.frame), 'exposure')
    // The first round is exact where the light is scaled alone; what follows it in Level takes the others.
    for (let round = 0; round < 4; round++) {
      const off = wanted - stops(setParameter(held, step.id, 'exposureStops', value), sample)
      const next = clamp(value + off, min, max)
      limited ||= next !== value + off
      value = next
      if (Math.abs(off) < 1e-3) break
    }
    return { frame: sample.frame, value }
  })
  const control: Control = { stepId: step.id, key: 'exposureStops', tolerance: 0.02, outlier: 0.4 }
  const solved = solve([{ control, course }], spread(before), steadyUnits.tone.still)
  if (typeof solved === 'string') return solved
  const steadied = withSteadied(grade, solved)
  const left = solved.kept.map((s) => stops(steadied, sampleOf(samples, s)) - wanted)
  return { ...solved, before: spread(before), after: largest(left), limited }
}

function steadyNeutral(
  grade: GradeDocument,
  step: Step,
  samples: readonly SurfaceSample[],
  reference: SurfaceSample,
  light: LightAt,
): Steadied | Unsteady {
  const gamut = step.side === 'scene' ? workingGamut : gamutOfShow(grade)
  const bounds = [limitsOf(grade, 'temperature'), limitsOf(grade, 'tint')] as const
  const cast = (document: GradeDocument, sample: SurfaceSample): readonly [number, number] | null => {
    const uv = uvOf(transform(rgbToXyz(gamut), light(document, sample)))
    const found = uv && castOf(uv, gamut)
    return found ? [found.mired, found.duv * 1000] : null
  }
  const there = cast(grade, reference)
  if (!there) return 'dark'
  if (Math.abs(there[0]) > mostCast.mired || Math.abs(there[1]) > mostCast.tint) return 'coloured'
  const set = (document: GradeDocument, [mired, tint]: readonly [number, number]): GradeDocument =>
    setParameter(setParameter(document, step.id, 'temperatureMired', mired), step.id, 'tint', tint)
  const held = withoutKeyframes(withoutKeyframes(grade, step.id, 'temperatureMired'), step.id, 'tint')
  let limited = false
  const courses: { temperature: { frame: number; value: number }[]; tint: { frame: number; value: number }[] } = {
    temperature: [],
    tint: [],
  }
  const before: number[] = []
  let last: readonly [number, number] | null = null
  for (const sample of samples) {
    const was = cast(grade, sample)
    if (!was) continue
    before.push(Math.hypot(was[0], was[1]))
    let value: readonly [number, number] = last ?? [valueOf(held, 'temperature'), valueOf(held, 'tint')]
    for (let round = 0; round < 8; round++) {
      const off = cast(set(held, value), sample)
      if (!off || Math.hypot(off[0], off[1]) < 0.05) break
      const next = newton(value, off, (v) => cast(set(held, v), sample))
      const inside: readonly [number, number] = [
        clamp(next[0], bounds[0].min, bounds[0].max),
        clamp(next[1], bounds[1].min, bounds[1].max),
      ]
      limited ||= inside[0] !== next[0] || inside[1] !== next[1]
      value = inside
    }
    last = value
    courses.temperature.push({ frame: sample.frame, value: value[0] })
    courses.tint.push({ frame: sample.frame, value: value[1] })
  }
  if (courses.tint.length < samples.length / 2) return 'dark'
  const was = largest(before)
  const solved = solve(
    [
      {
        control: { stepId: step.id, key: 'temperatureMired', tolerance: 1.5, outlier: 15 },
        course: courses.temperature,
      },
      { control: { stepId: step.id, key: 'tint', tolerance: 0.8, outlier: 8 }, course: courses.tint },
    ],
    was,
    steadyUnits.neutral.still,
  )
  if (typeof solved === 'string') return solved
  const steadied = withSteadied(grade, solved)
  const left = solved.kept.map((s) => Math.hypot(...(cast(steadied, sampleOf(samples, s)) ?? [0, 0])))
  return { ...solved, before: was, after: largest(left), limited }
}

/** One step of Newton's method in two numbers, the slopes measured. */
function newton(
  [a, b]: readonly [number, number],
  off: readonly [number, number],
  measure: (at: readonly [number, number]) => readonly [number, number] | null,
): readonly [number, number] {
  const byA = measure([a + 0.5, b])
  const byB = measure([a, b + 0.5])
  if (!byA || !byB) return [a, b]
  const [p, q] = [(byA[0] - off[0]) * 2, (byB[0] - off[0]) * 2]
  const [r, s] = [(byA[1] - off[1]) * 2, (byB[1] - off[1]) * 2]
  const size = p * s - q * r
  return Math.abs(size) < 1e-6 ? [a, b] : [a - (s * off[0] - q * off[1]) / size, b - (p * off[1] - r * off[0]) / size]
}

/** Marks for each control; the frames that all of them followed. */
function solve(
  wanted: readonly { readonly control: Control; readonly course: Course }[],
  before: number,
  still: number,
): (Pick<Steadied, 'controls' | 'marks' | 'leftOut'> & { readonly kept: readonly number[] }) | 'steady' {
  if (before <= still) return 'steady'
  const solved = wanted.map(({ control: { stepId, key, tolerance, outlier }, course }) => {
    const even = withoutOutliers(course, outlier, outlierReach)
    const wide = Math.max(tolerance, 2 * noiseOf(even))
    const found = marksOf(calmed(even, calmReach), wide).map(({ frame, value }) => ({
      frame,
      value: Math.round(value * 1000) / 1000,
    }))
    // One value all along needs no marks.
    const keyframes = spread(found) <= 2 * wide ? found.slice(0, 1) : found
    return { frames: even.map((m) => m.frame), control: { stepId, key, path: 'linear', keyframes } as const }
  })
  const [first, ...others] = solved.map((s) => s.frames)
  const kept = (first ?? []).filter((frame) => others.every((frames) => frames.includes(frame)))
  const controls = solved.map((s) => s.control)
  return {
    controls,
    marks: controls.reduce((sum, { keyframes: { length } }) => sum + (length > 1 ? length : 0), 0),
    leftOut: (wanted[0]?.course.length ?? 0) - kept.length,
    kept,
  }
}

const withoutKeyframes = (grade: GradeDocument, stepId: string, key: string): GradeDocument => ({
  ...grade,
  animation: grade.animation.filter((m) => m.stepId !== stepId || m.key !== key),
})
const valueOf = (grade: GradeDocument, id: ControlId): number => controlOf(grade, id)?.value ?? 0
function limitsOf(grade: GradeDocument, id: ControlId): { readonly min: number; readonly max: number } {
  const control = controlOf(grade, id)
  if (!control) throw new RangeError(`The grade has no ${id}.`)
  return control.parameter
}
const gamutOfShow = (grade: GradeDocument): Gamut => gamutById(displayById(grade.show.displayId).gamutId)
function sampleOf(samples: readonly SurfaceSample[], frame: number): SurfaceSample {
  const found = samples.find((s) => s.frame === frame)
  if (!found) throw new RangeError(`Frame ${frame} has no sample.`)
  return found
}
const largest = (values: readonly number[]): number => values.reduce((most, v) => Math.max(most, Math.abs(v)), 0)
/** From the least to the most. */
const spread = (course: Course): number =>
  Math.max(...course.map((m) => m.value)) - Math.min(...course.map((m) => m.value))
