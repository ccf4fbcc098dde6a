// Queries about projects and scenes.
import type { ProjectSummary } from '@contracts/index'
import { onlyRow, type Queryable } from './pool'

export async function listProjects(db: Queryable): Promise<readonly ProjectSummary[]> {
  const { rows } = await db.query<ProjectSummary>(
    `
      SELECT
        p.id,
        p.name,
        p.updated_at AS "updatedAt",
        (
          SELECT
            count(*)
          FROM
            shots s
          WHERE
            s.project_id = p.id
        )::int AS "shotCount",
        f.id AS "firstShotId",
        CASE
          WHEN f.id IS NOT NULL THEN jsonb_build_object(
            'revisionId',
            f.head_id,
            'frame',
            f.lead_frame,
            'firstFrame',
            f.first_frame,
            'frameCount',
            f.frame_count
          )
        END AS cover
      FROM
        projects p
        LEFT JOIN LATERAL (
          SELECT
            *
          FROM
            shots s
          WHERE
            s.project_id = p.id
          ORDER BY
            s.position
          LIMIT
            1
        ) f ON TRUE
      WHERE
        p.removed_at IS NULL
      ORDER BY
        p.updated_at DESC,
        p.id
      LIMIT
        500
    `,
  )
  return rows
}

export async function findProject(db: Queryable, id: string): Promise<{ id: string; name: string } | undefined> {
  const { rows } = await db.query<{ id: string; name: string }>('SELECT id, name FROM projects WHERE id = $1', [id])
  return rows[0]
}

export async function insertProject(
  db: Queryable,
  name: string,
  demoKey: string | null = null,
): Promise<{ id: string }> {
  const { rows } = await db.query<{ id: string }>(
    'INSERT INTO projects (name, demo_key) VALUES ($1, $2) RETURNING id',
    [name, demoKey],
  )
  return onlyRow({ rows })
}

export async function findDemoProject(db: Queryable, demoKey: string): Promise<{ id: string } | undefined> {
  const { rows } = await db.query<{ id: string }>('SELECT id FROM projects WHERE demo_key = $1', [demoKey])
  return rows[0]
}

export async function insertScene(
  db: Queryable,
  projectId: string,
  name: string,
  position: number,
): Promise<{ id: string }> {
  const { rows } = await db.query<{ id: string }>(
    'INSERT INTO scenes (project_id, name, position) VALUES ($1, $2, $3) RETURNING id',
    [projectId, name, position],
  )
  return onlyRow({ rows })
}
