// Queries about shared looks: which there are, where they are put, and which one a shot carries.
import { presentGrade } from '@core/grade'
import type { LookSummary } from '@contracts/responses'
import type { CarriedLook, GradeDocument, RecipeStep } from '@core/grade'
import type { Queryable } from './pool'

/** The look `l` of a shot `s` in a scene `c` of a project `p`, and its strength there; null where it carries none. */
export const lookColumn = `
  CASE
    WHEN l.id IS NOT NULL THEN jsonb_build_object(
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
  END
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

/** Sets how much of its look one shot takes, or takes it out of the look: the steps stay, as the shot's own. */
export async function setShotLook(db: Queryable, shotId: string, strength: number, detached: boolean): Promise<void> {
  await db.query('UPDATE shots SET look_strength = $2, look_detached = $3 WHERE id = $1', [shotId, strength, detached])
}

/** A shot with the look that it should carry now. */
export interface LookedShot {
  readonly id: string
  readonly headId: string
  readonly grade: GradeDocument
  readonly detached: boolean
  readonly look: CarriedLook | null
}

/** The shots of a project, or some of them, by id. */
export async function shotsWithLooks(
  db: Queryable,
  projectId: string,
  shotIds: readonly string[] | null,
): Promise<readonly LookedShot[]> {
  const { rows } = await db.query<{
    readonly id: string
    readonly headId: string
    readonly grade: unknown
    readonly detached: boolean
    readonly lookId: string | null
    readonly steps: readonly RecipeStep[] | null
    readonly strength: number
  }>(
    `
      SELECT
        s.id,
        s.head_id AS "headId",
        r.grade,
        s.look_detached AS detached,
        l.id AS "lookId",
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
  return rows.map(({ grade, lookId, steps, strength, ...shot }) => ({
    ...shot,
    grade: presentGrade(grade),
    look: lookId && steps ? { id: lookId, steps, strength } : null,
  }))
}

export interface LookOfShot {
  readonly id: string
  readonly name: string
  readonly steps: readonly RecipeStep[]
  readonly projectId: string
  readonly strength: number
  readonly detached: boolean
}

/** The look that a shot carries, or would if it were not taken out of it. */
export async function lookOfShot(db: Queryable, shotId: string): Promise<LookOfShot | undefined> {
  const { rows } = await db.query<LookOfShot>(
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
  return rows[0]
}

export async function setDetached(db: Queryable, shotId: string, detached: boolean): Promise<void> {
  await db.query('UPDATE shots SET look_detached = $2 WHERE id = $1', [shotId, detached])
}

export async function setLookSteps(db: Queryable, lookId: string, steps: readonly RecipeStep[]): Promise<void> {
  await db.query('UPDATE looks SET steps = $2 WHERE id = $1', [lookId, JSON.stringify(steps)])
}
