// A project as large as a long film, written straight into the database: shots in scenes and set-ups, each with a
// record of its own, a shared look, renders, versions and work that has ended.
import pg from 'pg'
import { defaultGrade, setParameter } from '@core/grade'

export interface FilledProject {
  readonly projectId: string
  /** In reel order. */
  readonly shotIds: readonly string[]
}

/** Adds `shots` shots with `revisionsEach` revisions each to a database that has its tables. */
export async function fillDatabase(url: string, shots: number, revisionsEach: number): Promise<FilledProject> {
  const db = new pg.Client({ connectionString: url })
  await db.connect()
  try {
    const project = await db.query<{ id: string }>("INSERT INTO projects (name) VALUES ('A long film') RETURNING id")
    const projectId = project.rows[0]!.id
    const grade = JSON.stringify(setParameter(defaultGrade('log-420-95'), 'exposure', 'exposureStops', 0.25))
    const facts = JSON.stringify({
      width: 3840,
      height: 2160,
      frameCount: 240,
      rateNumerator: 24,
      rateDenominator: 1,
      bitDepth: 10,
      chroma: '4:2:2',
      codec: 'h264',
      range: 'legal',
      rotation: 0,
      pixelAspect: [1, 1],
    })
    await db.query('BEGIN')
    // The rows refer to each other by their making: each check of a foreign key by itself may take a bad plan, because
    // the server's statistics know nothing of tables that grow within one transaction.
    await db.query('SET LOCAL session_replication_role = replica')
    await db.query(
      `INSERT INTO scenes (project_id, name, position)
       SELECT $1, 'Scene ' || n, n FROM generate_series(1, greatest(1, $2 / 20)) n`,
      [projectId, shots],
    )
    await db.query(
      `INSERT INTO setups (project_id, name)
       SELECT $1, 'Set-up ' || n FROM generate_series(1, greatest(1, $2 / 4)) n`,
      [projectId, shots],
    )
    // Footage of this film, and of others.
    await db.query(
      `INSERT INTO media (hash, size_bytes, facts, frame_times)
       SELECT encode(sha256(($1::text || n)::bytea), 'hex'), 1000000, $3, '{0}' FROM generate_series(1, $2::int * 8) n`,
      [projectId, shots, facts],
    )
    await db.query('ANALYZE scenes, setups, media')
    await db.query(
      `INSERT INTO shots (project_id, scene_id, setup_id, media_hash, name, position, first_frame, frame_count,
                          lead_frame, lead_chosen)
       SELECT $1, c.id, u.id, encode(sha256(($1::text || n)::bytea), 'hex'), 'Shot ' || n, n, 0, 240, 12, true
         FROM generate_series(1, $2::int) n
         JOIN scenes c ON c.project_id = $1 AND c.position = 1 + (n - 1) / 20 % greatest(1, $2 / 20)
         JOIN setups u ON u.project_id = $1 AND u.name = 'Set-up ' || (1 + n % greatest(1, $2 / 4))`,
      [projectId, shots],
    )
    await db.query('ANALYZE shots')
    // One revision on the other, a second apart.
    await db.query(
      `WITH numbered AS (
         SELECT s.id AS shot_id, d.depth, gen_random_uuid() AS id
           FROM shots s CROSS JOIN generate_series(1, $2::int) AS d (depth)
          WHERE s.project_id = $1
       )
       INSERT INTO revisions (id, shot_id, parent_id, depth, grade, summary, actor, created_at)
       SELECT n.id, n.shot_id, lag(n.id) OVER (PARTITION BY n.shot_id ORDER BY n.depth), n.depth,
              jsonb_set($3::jsonb, '{steps,0,params,exposureStops}', to_jsonb(n.depth / 1000.0)),
              'Exposure ' || n.depth, 'you', now() - make_interval(secs => $2 - n.depth)
         FROM numbered n ORDER BY n.shot_id, n.depth`,
      [projectId, revisionsEach, grade],
    )
    await db.query('ANALYZE revisions')
    await db.query(
      `UPDATE shots s SET head_id = r.id, tip_id = r.id FROM revisions r
        WHERE s.project_id = $1 AND r.shot_id = s.id AND r.depth = $2`,
      [projectId, revisionsEach],
    )
    await db.query(
      `INSERT INTO versions (shot_id, revision_id, name, actor)
       SELECT s.id, s.head_id, 'Cut ' || n, 'you'
         FROM shots s CROSS JOIN generate_series(1, 3) n WHERE s.project_id = $1`,
      [projectId],
    )
    await db.query(
      `INSERT INTO renders (shot_id, project_id, revision_id, state, frames_done, frames_total, actor)
       SELECT id, project_id, head_id, 'done', 240, 240, 'you' FROM shots WHERE project_id = $1`,
      [projectId],
    )
    await db.query(
      `INSERT INTO work (kind, project_id, name, payload, state, actor)
       SELECT 'import', $1, 'clip ' || n, '{}', 'done', 'you' FROM generate_series(1, $2 * 5) n`,
      [projectId, shots],
    )
    await db.query('COMMIT')
    await db.query('ANALYZE')
    const { rows } = await db.query<{ id: string }>('SELECT id FROM shots WHERE project_id = $1 ORDER BY position', [
      projectId,
    ])
    return { projectId, shotIds: rows.map((r) => r.id) }
  } finally {
    await db.end()
  }
}
