// Stills of a project, and what was said of moments of shots.
import { stillLimits } from '@contracts/index'
import type { StillChange } from '@contracts/stills'
import type { Still } from '@contracts/responses'
import { onlyRow, type Queryable } from './pool'

const columns = `
  t.id,
  t.name,
  t.notes,
  t.created_at AS at,
  CASE
    WHEN t.revision_id IS NOT NULL THEN jsonb_build_object(
      'shotId',
      s.id,
      'name',
      s.name,
      'revisionId',
      t.revision_id,
      'frame',
      t.frame,
      'firstFrame',
      s.first_frame,
      'frameCount',
      s.frame_count
    )
  END AS "from"
`

export async function listStills(db: Queryable, projectId: string): Promise<readonly Still[]> {
  const { rows } = await db.query<Still>(
    `
      SELECT
        ${columns}
      FROM
        stills t
        LEFT JOIN revisions r ON r.id = t.revision_id
        LEFT JOIN shots s ON s.id = r.shot_id
      WHERE
        t.project_id = $1
      ORDER BY
        t.created_at DESC,
        t.id
    `,
    [projectId],
  )
  return rows
}

interface Kept {
  readonly name: string
  readonly actor: string
  readonly of:
    | { readonly revisionId: string; readonly frame: number }
    | { readonly width: number; readonly height: number; readonly png: Uint8Array }
}

/** The still's id; "none" without such a project, "full" where it has as many as it may. */
export async function addStill(db: Queryable, projectId: string, { name, actor, of }: Kept): Promise<string> {
  // The project's row is held, so that two at once are counted one after the other.
  const project = await db.query('SELECT 1 FROM projects WHERE id = $1 FOR UPDATE', [projectId])
  if (project.rowCount === 0) return 'none'
  const {
    rows: [stored],
  } = await db.query<{ count: number }>('SELECT count(*)::int AS count FROM stills WHERE project_id = $1', [projectId])
  if ((stored?.count ?? 0) >= stillLimits.perProject) return 'full'
  const shot = 'revisionId' in of ? of : null
  const picture = 'png' in of ? of : null
  const { rows } = await db.query<{ id: string }>(
    'INSERT INTO stills (project_id, name, actor, revision_id, frame, width, height, png) VALUES ($1, $2, $3, $4, ' +
      '$5, $6, $7, $8) RETURNING id',
    [
      projectId,
      name,
      actor,
      shot?.revisionId ?? null,
      shot?.frame ?? null,
      picture?.width ?? null,
      picture?.height ?? null,
      picture?.png ?? null,
    ],
  )
  return onlyRow({ rows }).id
}

export async function changeStill(db: Queryable, id: string, { name, notes }: StillChange): Promise<boolean> {
  const { rowCount } = await db.query(
    'UPDATE stills SET name = coalesce($2, name), notes = coalesce($3, notes) WHERE id = $1',
    [id, name ?? null, notes ?? null],
  )
  return rowCount === 1
}

export async function removeStill(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('DELETE FROM stills WHERE id = $1', [id])
  return rowCount === 1
}

/** The pixels of an imported still. */
export async function stillPicture(db: Queryable, id: string): Promise<Uint8Array | undefined> {
  const { rows } = await db.query<{ png: Uint8Array | null }>('SELECT png FROM stills WHERE id = $1', [id])
  return rows[0]?.png ?? undefined
}

/** The notes of the shot `s.id`, as a column of JSON. */
export const notesColumn = `
  (
    SELECT
      coalesce(
        jsonb_agg(
          jsonb_build_object('id', n.id, 'frame', n.frame, 'words', n.words)
          ORDER BY
            n.frame,
            n.created_at
        ),
        '[]'
      )
    FROM
      moment_notes n
    WHERE
      n.shot_id = s.id
  )
`

const mostNotes = 200
/** "none" without such a shot or frame, "full" where it has as many as it may. */
export async function addNote(
  db: Queryable,
  shotId: string,
  { frame, words }: { readonly frame: number; readonly words: string },
  actor: string,
): Promise<string> {
  const shot = await db.query(
    'SELECT 1 FROM shots WHERE id = $1 AND $2 >= first_frame AND $2 < first_frame + frame_count FOR UPDATE',
    [shotId, frame],
  )
  if (shot.rowCount === 0) return 'none'
  const { rows } = await db.query<{ id: string }>(
    'INSERT INTO moment_notes (shot_id, frame, words, actor) SELECT $1, $2, $3, $4 WHERE (SELECT count(*) FROM ' +
      `moment_notes WHERE shot_id = $1) < ${mostNotes} RETURNING id`,
    [shotId, frame, words, actor],
  )
  return rows[0]?.id ?? 'full'
}

export async function removeNote(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('DELETE FROM moment_notes WHERE id = $1', [id])
  return rowCount === 1
}
