// What shots have of their scene and project follows it: one change moves every shot that does not differ by a hand.
import { withDefaults, type ShowDefaults } from '@core/grade'
import type { DefaultsChange } from '@contracts/requests'
import type { Defaults, DefaultsMoved } from '@contracts/responses'
import { isShippedStandard } from '@core/readings'
import { projectDefaults, setDefaults, shotsWithDefaults, type DefaultedShot } from '../db/defaults'
import { lockProjectShots } from '../db/locks'
import type { Queryable } from '../db/pool'
import { appendRevision } from '../db/revisions'
import { standardExists } from '../db/standards'
import { notFound, Problem } from '../problem'

export async function requireStandard(db: Queryable, id: string): Promise<void> {
  if (isShippedStandard(id) || (await standardExists(db, id))) return
  throw new Problem(422, 'no_standard', 'There is no such house standard.', {
    field: 'standardId',
    hint: 'It may have been removed meanwhile.',
  })
}

/**
 * Changes the defaults of a project or a scene, and with them all shots that follow, each by a revision of its own.
 * Answers with what they were before: setting that again takes the change back. Call inside a transaction.
 */
export async function changeDefaults(
  db: Queryable,
  projectId: string,
  { sceneId, ...change }: DefaultsChange,
  actor: string,
): Promise<DefaultsMoved> {
  await lockProjectShots(db, projectId)
  const known = await projectDefaults(db, projectId)
  if (!known) throw notFound('project')
  const before: Defaults | undefined = sceneId === null ? known.project : known.scenes[sceneId]
  if (!before) throw notFound('scene')
  if (change.standardId) await requireStandard(db, change.standardId)
  const earlier = await shotsWithDefaults(db, projectId)
  await setDefaults(db, projectId, sceneId, { ...before, ...change })
  const moved = await followDefaults(
    db,
    projectId,
    earlier,
    sceneId === null ? "Project's display" : "Scene's display",
    actor,
  )
  return { before, moved }
}

/** Brings shots that were under `earlier` defaults to those they are under now. Returns how many moved. */
export async function followDefaults(
  db: Queryable,
  projectId: string,
  earlier: readonly DefaultedShot[],
  summary: string,
  actor: string,
): Promise<number> {
  const before = new Map<string, ShowDefaults>(earlier.map((s) => [s.id, s.defaults]))
  let moved = 0
  for (const { id, headId, grade, defaults } of await shotsWithDefaults(db, projectId, [...before.keys()])) {
    const after = withDefaults(grade, before.get(id) ?? defaults, defaults)
    if (after === grade) continue
    await appendRevision(db, { shotId: id, parentId: headId, grade: after, summary, actor, why: { kind: 'defaults' } })
    moved++
  }
  return moved
}
