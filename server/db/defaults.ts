// Queries about what shots have of their scene and project: display, rendering and house standard.
import { firstShowDefaults, presentGrade, type GradeDocument, type ShowDefaults } from '@core/grade'
import type { Defaults, ProjectDefaults } from '@contracts/responses'
import type { Queryable } from './pool'

/** The defaults of a shot in a scene `c` of a project `p`. */
export const showDefaultsColumn = `
  jsonb_build_object(
    'displayId',
    coalesce(c.display_id, p.display_id, '${firstShowDefaults.displayId}'),
    'rendering',
    coalesce(c.rendering, p.rendering, '${firstShowDefaults.rendering}')
  )
`
const own = (table: string): string => `
  jsonb_build_object(
    'displayId',
    ${table}.display_id,
    'rendering',
    ${table}.rendering,
    'standardId',
    ${table}.standard_id
  )
`

export async function projectDefaults(db: Queryable, projectId: string): Promise<ProjectDefaults | undefined> {
  const { rows } = await db.query<ProjectDefaults>(
    `
      SELECT
        ${own('p')} AS project,
        coalesce(
          (
            SELECT
              jsonb_object_agg(c.id, ${own('c')})
            FROM
              scenes c
            WHERE
              c.project_id = p.id
          ),
          '{}'
        ) AS scenes
      FROM
        projects p
      WHERE
        p.id = $1
    `,
    [projectId],
  )
  return rows[0]
}

/** Sets the defaults of a scene, or of the whole project. False when there is none. */
export async function setDefaults(
  db: Queryable,
  projectId: string,
  sceneId: string | null,
  { displayId, rendering, standardId }: Defaults,
): Promise<boolean> {
  const { rowCount } =
    sceneId === null
      ? await db.query(
          `
            UPDATE projects
            SET
              display_id = $2,
              rendering = $3,
              standard_id = coalesce($4, standard_id)
            WHERE
              id = $1
          `,
          [projectId, displayId, rendering, standardId],
        )
      : await db.query(
          `
            UPDATE scenes
            SET
              display_id = $2,
              rendering = $3,
              standard_id = $4
            WHERE
              project_id = $1
              AND id = $5
          `,
          [projectId, displayId, rendering, standardId, sceneId],
        )
  return rowCount === 1
}

export interface DefaultedShot {
  readonly id: string
  readonly headId: string
  readonly grade: GradeDocument
  readonly defaults: ShowDefaults
}

/** The shots of a project, or some of them, with the defaults they are under now. Call with the shots locked. */
export async function shotsWithDefaults(
  db: Queryable,
  projectId: string,
  shotIds: readonly string[] | null = null,
): Promise<readonly DefaultedShot[]> {
  const { rows } = await db.query<DefaultedShot>(
    `
      SELECT
        s.id,
        s.head_id AS "headId",
        r.grade,
        ${showDefaultsColumn} AS defaults
      FROM
        shots s
        JOIN revisions r ON r.id = s.head_id
        JOIN projects p ON p.id = s.project_id
        LEFT JOIN scenes c ON c.id = s.scene_id
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
  return rows.map((row) => ({ ...row, grade: presentGrade(row.grade) }))
}

/** The defaults that a new shot of a project comes under. */
export async function showDefaultsOf(db: Queryable, projectId: string, sceneId: string | null): Promise<ShowDefaults> {
  const { rows } = await db.query<{ defaults: ShowDefaults }>(
    `
      SELECT
        ${showDefaultsColumn} AS defaults
      FROM
        projects p
        LEFT JOIN scenes c ON c.id = $2
        AND c.project_id = p.id
      WHERE
        p.id = $1
    `,
    [projectId, sceneId],
  )
  return rows[0]?.defaults ?? firstShowDefaults
}
