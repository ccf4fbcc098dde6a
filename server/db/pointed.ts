// Queries about what was pointed out in shots (cards, subjects), and about waived readings.
import type { NewSubject, NewWaiver, PickedArea } from '@contracts/index'
import { setProposedLead } from './leads'
import { lockProjectShots, lockShotRows } from './locks'
import type { Queryable } from './pool'

/** A shot's card, its project's subjects with their places in it, and its waivers as they stand. */
export const pointedColumns = `
  (
    SELECT
      jsonb_build_object('frame', k.frame, 'area', k.area)
    FROM
      picks k
    WHERE
      k.shot_id = s.id
      AND k.subject_id IS NULL
  ) AS card,
  (
    SELECT
      coalesce(
        jsonb_agg(
          jsonb_build_object(
            'id',
            u.id,
            'name',
            u.name,
            'card',
            u.card,
            'here',
            (
              SELECT
                jsonb_build_object('frame', k.frame, 'area', k.area)
              FROM
                picks k
              WHERE
                k.shot_id = s.id
                AND k.subject_id = u.id
            )
          )
          ORDER BY
            u.name
        ),
        '[]'
      )
    FROM
      subjects u
    WHERE
      u.project_id = s.project_id
  ) AS subjects,
  (
    SELECT
      coalesce(
        jsonb_agg(
          jsonb_build_object(
            'reading',
            w.reading,
            'subject',
            w.subject,
            'reason',
            w.reason,
            'actor',
            w.actor,
            'at',
            w.created_at
          )
          ORDER BY
            w.id
        ),
        '[]'
      )
    FROM
      (
        SELECT DISTINCT
          ON (reading, subject) *
        FROM
          waivers
        WHERE
          shot_id = s.id
        ORDER BY
          reading,
          subject,
          id DESC
      ) w
    WHERE
      w.waived
  ) AS waivers
`

/** Where the card (subjectId null) or a subject was pointed at in a shot, null where it was not. The shot is locked. */
export async function lockPick(db: Queryable, shotId: string, subjectId: string | null): Promise<PickedArea | null> {
  await lockShotRows(db, [shotId])
  const { rows } = await db.query<PickedArea>(
    'SELECT frame, area FROM picks WHERE shot_id = $1 AND subject_id IS NOT DISTINCT FROM $2',
    [shotId, subjectId],
  )
  return rows[0] ?? null
}

/** The card of the project's subject of that name, null where there is none. The project is locked. */
export async function lockSubjectCard(db: Queryable, projectId: string, name: string): Promise<object | null> {
  await lockProjectShots(db, projectId)
  const { rows } = await db.query<{ card: object }>('SELECT card FROM subjects WHERE project_id = $1 AND name = $2', [
    projectId,
    name,
  ])
  return rows[0]?.card ?? null
}

/**
 * Points at the card (subjectId null) or a subject in a shot. False when the shot or the subject of its project is not
 * there.
 */
export async function putPick(
  db: Queryable,
  shotId: string,
  subjectId: string | null,
  { frame, area }: PickedArea,
  actor: string,
): Promise<boolean> {
  const { rows } = await db.query<{ found: boolean }>(
    'SELECT $2::uuid IS NULL OR EXISTS (SELECT 1 FROM subjects u WHERE u.id = $2 AND u.project_id = ' +
      's.project_id) AS found FROM shots s WHERE s.id = $1 FOR UPDATE OF s',
    [shotId, subjectId],
  )
  if (!rows[0]?.found) return false
  await removePick(db, shotId, subjectId)
  await db.query('INSERT INTO picks (shot_id, subject_id, frame, area, actor) VALUES ($1, $2, $3, $4, $5)', [
    shotId,
    subjectId,
    frame,
    JSON.stringify(area),
    actor,
  ])
  // A frame that is known to hold the subject stands for the shot better than one that may not; what a person chose
  // stays.
  if (subjectId !== null) await setProposedLead(db, shotId, frame)
  return true
}

export async function removePick(db: Queryable, shotId: string, subjectId: string | null): Promise<void> {
  await db.query('DELETE FROM picks WHERE shot_id = $1 AND subject_id IS NOT DISTINCT FROM $2', [shotId, subjectId])
}

/**
 * A new subject of a project, or a fresh card for the one of that name. Undefined when the shot is not in the project.
 */
export async function putSubject(
  db: Queryable,
  projectId: string,
  { name, shotId, frame, area, card }: NewSubject,
  actor: string,
): Promise<string | undefined> {
  const { rows } = await db.query<{ id: string }>(
    `
      INSERT INTO
        subjects (project_id, name, card, shot_id, frame, area, actor)
      SELECT
        $1,
        $2,
        $3,
        s.id,
        $5,
        $6,
        $7
      FROM
        shots s
      WHERE
        s.id = $4
        AND s.project_id = $1
      ON CONFLICT (project_id, name) DO UPDATE
      SET
        card = EXCLUDED.card,
        shot_id = EXCLUDED.shot_id,
        frame = EXCLUDED.frame,
        area = EXCLUDED.area,
        actor = EXCLUDED.actor
      RETURNING
        id
    `,
    [projectId, name, JSON.stringify(card), shotId, frame, JSON.stringify(area), actor],
  )
  return rows[0]?.id
}

export async function removeSubject(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('DELETE FROM subjects WHERE id = $1', [id])
  return rowCount === 1
}

/** Adds an entry to the record of waivers. False when the shot is not there. */
export async function addWaiver(
  db: Queryable,
  shotId: string,
  { reading, subject, waived, reason }: NewWaiver,
  actor: string,
): Promise<boolean> {
  const { rowCount } = await db.query(
    'INSERT INTO waivers (shot_id, reading, subject, waived, reason, actor) SELECT s.id, $2, $3, $4, ' +
      '$5, $6 FROM shots s WHERE s.id = $1',
    [shotId, reading, subject ?? '', waived, reason ?? '', actor],
  )
  return rowCount === 1
}
