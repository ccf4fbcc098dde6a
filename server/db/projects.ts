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
        p.archived_at IS NOT NULL AS archived,
        coalesce(c.shots, 0)::int AS "shotCount",
        coalesce(c.finished, 0)::int AS "finishedCount",
        (
          SELECT
            s.id
          FROM
            shots s
          WHERE
            s.project_id = p.id
          ORDER BY
            s.position
          LIMIT
            1
        ) AS "firstShotId",
        jsonb_build_object('underWay', coalesce(r.under_way, 0), 'done', coalesce(r.done, 0)) AS renders,
        coalesce(f.pictures, '[]') AS pictures
      FROM
        projects p
        LEFT JOIN LATERAL (
          SELECT
            count(*) AS shots,
            count(*) FILTER (
              WHERE
                s.state = 'finished'
            ) AS finished
          FROM
            shots s
          WHERE
            s.project_id = p.id
        ) c ON TRUE
        LEFT JOIN LATERAL (
          SELECT
            count(*) FILTER (
              WHERE
                n.state IN ('queued', 'running')
            ) AS under_way,
            count(*) FILTER (
              WHERE
                n.state = 'done'
            ) AS done
          FROM
            renders n
          WHERE
            n.project_id = p.id
            AND n.removed_at IS NULL
        ) r ON TRUE
        LEFT JOIN LATERAL (
          SELECT
            jsonb_agg(
              jsonb_build_object(
                'revisionId',
                g.head_id,
                'frame',
                g.lead_frame,
                'firstFrame',
                g.first_frame,
                'frameCount',
                g.frame_count
              )
              ORDER BY
                g.position
            ) AS pictures
          FROM
            (
              SELECT
                *
              FROM
                (
                  SELECT DISTINCT
                    ON (s.scene_id) s.*
                  FROM
                    shots s
                  WHERE
                    s.project_id = p.id
                  ORDER BY
                    s.scene_id,
                    s.position
                ) firsts
              ORDER BY
                firsts.position
              LIMIT
                4
            ) g
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

/** False when there is no such project, or it was removed. */
export async function changeProject(
  db: Queryable,
  id: string,
  { name, archived }: { readonly name?: string; readonly archived?: boolean },
): Promise<boolean> {
  const { rowCount } = await db.query(
    `
      UPDATE projects
      SET
        name = coalesce($2, name),
        archived_at = CASE
          WHEN $3::boolean IS NULL THEN archived_at
          WHEN $3 THEN coalesce(archived_at, now())
        END
      WHERE
        id = $1
        AND removed_at IS NULL
    `,
    [id, name ?? null, archived ?? null],
  )
  return rowCount === 1
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
