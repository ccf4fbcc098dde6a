// Everything that the aims ask for, measured at once on their frames.
import { gradeAt, setParameterAt, type GradeDocument, type LutFinder } from '../grade'
import type { Aim } from './aim'
import { tidy, type Control } from './controls'
import { measureAims, type Measured } from './measure'
import { prepareSample, type AimSample } from './sample'
import type { AimProblem } from './problem'

/** One sample per frame that aims speak of; a frame that is not at hand counts as the one that is looked at. */
export type Samples = ReadonlyMap<number | undefined, AimSample>

export function prepareAll({ grade, lut, frame, frames, aims }: AimProblem): Samples {
  const keys = [...new Set(aims.map((a) => frameOf(a, frames)))]
  return new Map(
    keys.map((key) => [
      key,
      prepareSample(
        (key === undefined ? undefined : frames?.get(key)) ?? frame,
        grade,
        lut,
        aims.filter((a) => frameOf(a, frames) === key),
      ),
    ]),
  )
}

/** `here`: the number of the frame that is looked at. */
export function measureAll(
  grade: GradeDocument,
  lut: LutFinder,
  samples: Samples,
  here: number,
  aims: readonly Aim[],
  strata: 'coarse' | 'fine' = 'coarse',
  remember = false,
): Measured {
  return new Map(
    [...samples].flatMap(([key, sample]) => [
      ...measureAims(
        gradeAt(grade, key ?? here),
        lut,
        sample,
        aims.filter((a) => frameOf(a, samples) === key),
        sample[strata],
        remember,
      ),
    ]),
  )
}

export function withValues(
  { grade, frameIndex = 0 }: AimProblem,
  controls: readonly Control[],
  values: readonly number[],
): GradeDocument {
  return controls.reduce(
    (next, control, i) =>
      setParameterAt(next, control.stepId, control.key, tidy(control, values[i]), frameIndex, control.parameter),
    grade,
  )
}

const frameOf = ({ frame }: Aim, frames: { has: (key: number) => boolean } | undefined): number | undefined =>
  frame !== undefined && frames?.has(frame) ? frame : undefined
