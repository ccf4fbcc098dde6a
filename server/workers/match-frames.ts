// Two shots' frames matched, as a thread is asked for it.
import { lightPicture, matchChoices, type MatchAnswer } from '@core/matching'
import { framesOf, lutFinder, type GradeTask } from './kept'

export interface MatchTask {
  /** Its grade is the state on its frame. */
  readonly reference: GradeTask
  readonly shot: GradeTask
  readonly maxWidth: number
  readonly maxHeight: number
}

export function matchFrames({ reference, shot, maxWidth, maxHeight }: MatchTask): MatchAnswer {
  const lut = lutFinder([...reference.luts, ...shot.luts])
  const side = (task: GradeTask): { light: ReturnType<typeof lightPicture>; grade: GradeTask['grade'] } => ({
    light: lightPicture(framesOf({ source: task.source }, maxWidth, maxHeight), task.grade, lut),
    grade: task.grade,
  })
  return matchChoices(side(reference), side(shot), lut)
}
