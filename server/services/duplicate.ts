// A copy of a project: its scenes, looks and shots, each with its present grade as the first revision. Media are
// shared; renders and earlier revisions stay with the original.
import { cutTo } from '@core/names'
import { presentGrade, type GradeDocument } from '@core/grade'
import { copyBelongings, copyProjectRow, copyShot, shotsToCopy, type Copies } from '../db/project-copies'
import { lockProjectShots } from '../db/locks'
import type { Queryable } from '../db/pool'
import { findProject } from '../db/projects'
import { notFound } from '../problem'

const longestName = 80

/** Call inside a transaction. Throws a Problem when there is no such project. */
export async function duplicateProject(db: Queryable, id: string, actor: string): Promise<{ id: string }> {
  await lockProjectShots(db, id)
  const original = await findProject(db, id)
  if (!original) throw notFound('project')
  const copy = await copyProjectRow(db, id, `${cutTo(original.name, longestName - 7)}, copy`)
  if (copy === undefined) throw notFound('project')
  const belongings = await copyBelongings(db, id, copy)
  for (const shot of await shotsToCopy(db, id))
    await copyShot(
      db,
      shot.id,
      copy,
      belongings,
      withLooks(presentGrade(shot.grade), belongings.looks),
      `As it stood in ${original.name}`,
      actor,
    )
  return { id: copy }
}

/** Steps of a shared look are steps of its copy. */
const withLooks = (grade: GradeDocument, looks: Copies): GradeDocument => ({
  ...grade,
  steps: grade.steps.map((step) =>
    step.lookId === undefined ? step : { ...step, lookId: looks.get(step.lookId) ?? step.lookId },
  ),
})
