// Shared looks: which look a shot carries, and bringing every shot of a project to what its look is now.
import type { LookSummary } from '@contracts/responses'
import { detachLook, lookAfter, withSharedLook, type RecipeStep } from '@core/grade'
import type { Queryable } from './pool'
import { appendRevision, presentGrade } from './revisions'
import type { Head } from './setups'

/** The look of a shot and its strength there, in SQL over `s` (shots) and `c` (scenes); null where it carries none. */
export const lookColumn = `
  (
    SELECT
      jsonb_build_object(
        'id',
        l.id,
        'name',
        l.name,
        'from',
        CASE
          WHEN c.look_id IS NULL THEN 'project'
          ELSE 'scene'
        END,
        'strength',
        CASE
          WHEN c.look_id IS NULL THEN p.look_strength
          ELSE c.look_strength
        END,
        'ownStrength',
        s.look_strength,
        'detached',
        s.look_detached
      )
    FROM
      projects p
      JOIN looks l ON l.id = coalesce(c.look_id, p.look_id)
    WHERE
      p.id = s.project_id
  )
`

export async function listLooks(db: Queryable, projectId: string): Promise<readonly LookSummary[]> {
  const { rows } = await db.query<LookSummary>(
    `
      SELECT
        l.id,
        l.name,
        l.steps,
        p.look_id = l.id AS "wholeProject",
        coalesce(
          (
            SELECT
              jsonb_agg(
                c.name
                ORDER BY
                  c.position
              )
            FROM
              scenes c
            WHERE
              c.look_id = l.id
          ),
          '[]'
        ) AS scenes
      FROM
        looks l
        JOIN projects p ON p.id = l.project_id
      WHERE
        l.project_id = $1
      ORDER BY
        l.name
    `,
    [projectId],
  )
  return rows.map((r) => ({ ...r, wholeProject: r.wholeProject === true }))
}

/** Undefined when the name is taken in this project, or there is no such project. */
export async function insertLook(
  db: Queryable,
  projectId: string,
  name: string,
  steps: readonly RecipeStep[],
  actor: string,
): Promise<string | undefined> {
  const { rows } = await db.query<{ id: string }>(
    'INSERT INTO looks (project_id, name, steps, actor) SELECT id, $2, $3, $4 FROM projects WHERE id ' +
      '= $1 ON CONFLICT (project_id, name) DO NOTHING RETURNING id',
    [projectId, name, JSON.stringify(steps), actor],
  )
  return rows[0]?.id
}

/**
 * Puts a look of the project on a scene, or on the whole project; null takes it off. False when one of them is not
 * there.
 */
export async function assignLook(
  db: Queryable,
  projectId: string,
  sceneId: string | null,
  lookId: string | null,
  strength: number,
): Promise<boolean> {
  const known = '($3::uuid IS NULL OR EXISTS (SELECT 1 FROM looks WHERE id = $3 AND project_id = $1))'
  const { rowCount } =
    sceneId === null
      ? await db.query(`UPDATE projects SET look_id = $3, look_strength = $2 WHERE id = $1 AND ${known}`, [
          projectId,
          strength,
          lookId,
        ])
      : await db.query(
          `UPDATE scenes SET look_id = $3, look_strength = $2 WHERE project_id = $1 AND id = $4 AND ${known}`,
          [projectId, strength, lookId, sceneId],
        )
  return rowCount === 1
}

/** Locks every shot of the project, in the one order that all use. Call first in a transaction. */
export async function lockProjectShots(db: Queryable, projectId: string): Promise<void> {
  await db.query('SELECT id FROM shots WHERE project_id = $1 ORDER BY id FOR UPDATE', [projectId])
}
/** The same by one of its shots, where its project has looks at all. */
export async function lockForLook(db: Queryable, shotId: string): Promise<void> {
  const { rows } = await db.query<{ projectId: string }>(
    'SELECT project_id AS "projectId" FROM shots s WHERE s.id = $1 AND EXISTS (SELECT 1 FROM looks l ' +
      'WHERE l.project_id = s.project_id)',
    [shotId],
  )
  if (rows[0]) await lockProjectShots(db, rows[0].projectId)
}

/** Sets how much of its look one shot takes, or takes it out of the look: the steps stay, as the shot's own. */
export async function setShotLook(db: Queryable, shotId: string, strength: number, detached: boolean): Promise<void> {
  await db.query('UPDATE shots SET look_strength = $2, look_detached = $3 WHERE id = $1', [shotId, strength, detached])
}

interface Wanted {
  readonly id: string
  readonly headId: string
  readonly grade: unknown
  readonly detached: boolean
  readonly lookId: string | null
  readonly name: string | null
  readonly steps: readonly RecipeStep[] | null
  readonly strength: number
}

/**
 * Brings the shots of a project, or some of them, to what their look is now, each by a revision of its own where
 * something changes. Call with the shots locked.
 */
export async function bringLooks(
  db: Queryable,
  projectId: string,
  summary: string,
  actor: string,
  shotIds: readonly string[] | null = null,
): Promise<void> {
  const { rows } = await db.query<Wanted>(
    `
      SELECT
        s.id,
        s.head_id AS "headId",
        r.grade,
        s.look_detached AS detached,
        l.id AS "lookId",
        l.name,
        l.steps,
        s.look_strength * CASE
          WHEN c.look_id IS NULL THEN p.look_strength
          ELSE c.look_strength
        END AS strength
      FROM
        shots s
        JOIN revisions r ON r.id = s.head_id
        JOIN projects p ON p.id = s.project_id
        LEFT JOIN scenes c ON c.id = s.scene_id
        LEFT JOIN looks l ON l.id = coalesce(c.look_id, p.look_id)
      WHERE
        s.project_id = $1
        AND (
          $2::uuid[] IS NULL
          OR s.id = ANY ($2)
        )
      ORDER BY
        s.id
    `,
    [projectId, shotIds],
  )
  for (const shot of rows) {
    const before = presentGrade(shot.grade)
    const after = shot.detached
      ? detachLook(before)
      : withSharedLook(
          before,
          shot.lookId && shot.steps ? { id: shot.lookId, steps: shot.steps, strength: shot.strength } : null,
        )
    if (after !== before)
      await appendRevision(db, shot.id, shot.headId, after, summary.slice(0, 400), actor, { kind: 'look' })
  }
}

interface LookOfShot {
  readonly id: string
  readonly name: string
  readonly steps: readonly RecipeStep[]
  readonly projectId: string
  readonly strength: number
}

/**
 * What follows when one shot came to another state. `moved` is the revision that undo or redo stepped over.
 * A hand on the shared steps is a hand on the look, and the others follow. Stepping over a revision that the look
 * itself made takes this shot out of it, or puts it back, and leaves the look alone; any other state that lacks the
 * look is brought to it. Call with the shots locked.
 */
export async function followLook(
  db: Queryable,
  shotId: string,
  before: Head,
  after: Head,
  moved: Head | null,
  actor: string,
): Promise<void> {
  const { rows } = await db.query<LookOfShot & { readonly detached: boolean }>(
    `
      SELECT
        l.id,
        l.name,
        l.steps,
        s.project_id AS "projectId",
        s.look_detached AS detached,
        s.look_strength * CASE
          WHEN c.look_id IS NULL THEN p.look_strength
          ELSE c.look_strength
        END AS strength
      FROM
        shots s
        JOIN projects p ON p.id = s.project_id
        LEFT JOIN scenes c ON c.id = s.scene_id
        JOIN looks l ON l.id = coalesce(c.look_id, p.look_id)
      WHERE
        s.id = $1
    `,
    [shotId],
  )
  const look = rows[0]
  if (!look) return
  const carries = withSharedLook(after.grade, look) === after.grade
  if (moved?.kind === 'look') {
    if (carries === look.detached)
      await db.query('UPDATE shots SET look_detached = $2 WHERE id = $1', [shotId, !carries])
    return
  }
  if (look.detached || carries) return
  const steps = lookAfter(look.steps, before.grade, after.grade)
  if (steps) await db.query('UPDATE looks SET steps = $2 WHERE id = $1', [look.id, JSON.stringify(steps)])
  await bringLooks(
    db,
    look.projectId,
    steps ? `Look ${look.name} changed` : 'Shared look',
    actor,
    steps ? null : [shotId],
  )
}
