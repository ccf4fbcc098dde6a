// Queries that copy a project's rows. Each answers with which new row stands for which old one.
import type { Queryable } from './pool'

export type Copies = ReadonlyMap<string, string>

export async function copyProjectRow(db: Queryable, id: string, name: string): Promise<string | undefined> {
  const { rows } = await db.query<{ id: string }>(
    `
      INSERT INTO
        projects (name, standard_id, display_id, rendering, look_strength)
      SELECT
        $2,
        standard_id,
        display_id,
        rendering,
        look_strength
      FROM
        projects
      WHERE
        id = $1
        AND removed_at IS NULL
      RETURNING
        id
    `,
    [id, name],
  )
  return rows[0]?.id
}

/** The rows of a table that belong to a project, under fresh ids in another. `columns` are copied as they are. */
async function copyRows(
  db: Queryable,
  table: 'looks' | 'scenes' | 'setups' | 'subjects',
  columns: string,
  from: string,
  to: string,
): Promise<Copies> {
  const { rows } = await db.query<{ before: string; after: string }>(
    `
      WITH
        pairs AS (
          SELECT
            id AS before,
            gen_random_uuid () AS after
          FROM
            ${table}
          WHERE
            project_id = $1
        ),
        made AS (
          INSERT INTO
            ${table} (id, project_id, ${columns})
          SELECT
            p.after,
            $2,
            ${columns}
          FROM
            pairs p
            JOIN ${table} t ON t.id = p.before
        )
      SELECT
        before,
        after
      FROM
        pairs
    `,
    [from, to],
  )
  return new Map(rows.map((r) => [r.before, r.after]))
}

export interface CopiedRows {
  readonly looks: Copies
  readonly scenes: Copies
  readonly setups: Copies
  readonly subjects: Copies
}

/** All of a project but its shots: looks, scenes with their pictures, set-ups, subjects. */
export async function copyBelongings(db: Queryable, from: string, to: string): Promise<CopiedRows> {
  const looks = await copyRows(db, 'looks', 'name, steps, actor, created_at', from, to)
  const scenes = await copyRows(
    db,
    'scenes',
    'name, position, standard_id, look_id, look_strength, intent, display_id, rendering',
    from,
    to,
  )
  const setups = await copyRows(db, 'setups', 'name, created_at', from, to)
  const subjects = await copyRows(db, 'subjects', 'name, card, shot_id, frame, area, actor, created_at', from, to)
  for (const [before, after] of looks)
    await db.query('UPDATE scenes SET look_id = $3 WHERE project_id = $1 AND look_id = $2', [to, before, after])
  await db.query(
    'UPDATE projects n SET look_id = m.after FROM projects o, unnest($3::uuid[], $4::uuid[]) AS m (before, after) ' +
      'WHERE n.id = $2 AND o.id = $1 AND o.look_id = m.before',
    [from, to, [...looks.keys()], [...looks.values()]],
  )
  for (const [before, after] of scenes)
    await db.query(
      'INSERT INTO scene_pictures (scene_id, name, width, height, png, created_at) ' +
        'SELECT $2, name, width, height, png, created_at FROM scene_pictures WHERE scene_id = $1',
      [before, after],
    )
  return { looks, scenes, setups, subjects }
}

export interface ShotToCopy {
  readonly id: string
  readonly grade: unknown
}

/** A project's shots with their present grades, in reel order; locked, so that all are of one moment. */
export async function shotsToCopy(db: Queryable, projectId: string): Promise<readonly ShotToCopy[]> {
  const { rows } = await db.query<ShotToCopy>(
    'SELECT s.id, r.grade FROM shots s JOIN revisions r ON r.id = s.head_id WHERE s.project_id = $1 ' +
      'ORDER BY s.position',
    [projectId],
  )
  return rows
}

/** What a copied shot has as it was. */
const shotColumns = `
  media_hash,
  name,
  camera_name,
  position,
  lead_frame,
  lead_chosen,
  first_frame,
  frame_count,
  played_numerator,
  played_denominator,
  state,
  look_strength,
  look_detached,
  stays_as_it_looks,
  standard_id
`

/** One shot in another project, with a grade as its first revision; and what was pointed out and waived in it. */
export async function copyShot(
  db: Queryable,
  from: string,
  projectId: string,
  { scenes, setups, subjects }: CopiedRows,
  grade: object,
  summary: string,
  actor: string,
): Promise<void> {
  const { rows } = await db.query<{ id: string; sceneId: string | null; setupId: string | null }>(
    `
      INSERT INTO
        shots (
          project_id,
          ${shotColumns}
        )
      SELECT
        $2,
        ${shotColumns}
      FROM
        shots
      WHERE
        id = $1
      RETURNING
        id,
        (SELECT o.scene_id FROM shots o WHERE o.id = $1) AS "sceneId",
        (SELECT o.setup_id FROM shots o WHERE o.id = $1) AS "setupId"
    `,
    [from, projectId],
  )
  const made = rows[0]
  if (!made) return
  const first = await db.query<{ id: string }>(
    'INSERT INTO revisions (shot_id, parent_id, depth, grade, summary, actor) VALUES ($1, NULL, 1, $2, $3, $4) ' +
      'RETURNING id',
    [made.id, JSON.stringify(grade), summary, actor],
  )
  await db.query('UPDATE shots SET head_id = $2, tip_id = $2, scene_id = $3, setup_id = $4 WHERE id = $1', [
    made.id,
    first.rows[0]?.id,
    scenes.get(made.sceneId ?? '') ?? null,
    setups.get(made.setupId ?? '') ?? null,
  ])
  await db.query(
    `
      INSERT INTO
        picks (shot_id, subject_id, frame, area, actor, created_at)
      SELECT
        $2,
        m.after,
        k.frame,
        k.area,
        k.actor,
        k.created_at
      FROM
        picks k
        LEFT JOIN unnest($3::uuid[], $4::uuid[]) AS m (before, after) ON m.before = k.subject_id
      WHERE
        k.shot_id = $1
    `,
    [from, made.id, [...subjects.keys()], [...subjects.values()]],
  )
  await db.query(
    `
      INSERT INTO
        waivers (shot_id, reading, subject, waived, reason, actor, created_at)
      SELECT
        $2,
        w.reading,
        coalesce(m.after, w.subject),
        w.waived,
        w.reason,
        w.actor,
        w.created_at
      FROM
        waivers w
        LEFT JOIN unnest($3::text[], $4::text[]) AS m (before, after) ON m.before = w.subject
      WHERE
        w.shot_id = $1
      ORDER BY
        w.id
    `,
    [from, made.id, [...subjects.keys()], [...subjects.values()]],
  )
  await db.query('UPDATE subjects SET shot_id = $3 WHERE project_id = $2 AND shot_id = $1', [from, projectId, made.id])
}
