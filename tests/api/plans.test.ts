// How the database carries a long film: no query of the Reel, a shot, a save or the record reads a whole table, or does
// something once more for every row.
import pg from 'pg'
import { setParameter } from '@core/grade'
import { appendRevision } from '../../server/db/revisions'
import { listScenes } from '../../server/db/reel'
import { listRenders } from '../../server/db/renders'
import type { Queryable } from '../../server/db/pool'
import { findShot, listShots } from '../../server/db/shots'
import { listWork, pruneWork, requeueWork } from '../../server/db/work'
import { lockReach } from '../../server/db/locks'
import { recordOf, recordPath } from '../../server/services/record'
import { databaseUrl } from '../support/database'
import { fillDatabase, type FilledProject } from '../support/fill-database'

interface PlanNode {
  readonly 'Node Type': string
  readonly 'Relation Name'?: string
  readonly 'Actual Loops'?: number
  readonly 'Actual Rows'?: number
  readonly 'Rows Removed by Filter'?: number
  readonly Plans?: readonly PlanNode[]
}
interface Asked {
  readonly text: string
  readonly values: readonly unknown[]
}

let client: pg.Client
let film: FilledProject
const shots = 1200
/** A table that is read from its beginning to its end for one answer. */
const large = new Set(['shots', 'revisions', 'renders', 'versions', 'work', 'revision_changes', 'media'])

beforeAll(async () => {
  film = await fillDatabase(databaseUrl(), shots, 12)
  client = new pg.Client({ connectionString: databaseUrl() })
  await client.connect()
  // Of the first third, what each revision changed has been asked for before.
  await client.query(
    `INSERT INTO revision_changes (revision_id, words)
     SELECT r.id, '["Exposure"]' FROM revisions r JOIN shots s ON s.id = r.shot_id
      WHERE s.project_id = $1 AND s.position <= $2`,
    [film.projectId, shots / 3],
  )
  await client.query('ANALYZE revision_changes')
})
afterAll(() => client.end())

/** Runs something and gives every statement it sent, in a transaction that is undone. */
async function askedBy(run: (db: Queryable) => Promise<unknown>): Promise<readonly Asked[]> {
  const asked: Asked[] = []
  const db = {
    query: (statement: string | (Asked & { readonly name: string }), given: readonly unknown[] = []) => {
      const { text, values } = typeof statement === 'string' ? { text: statement, values: given } : statement
      asked.push({ text, values })
      return client.query(text, values as unknown[])
    },
  } as unknown as Queryable
  await client.query('BEGIN')
  try {
    await run(db)
  } finally {
    await client.query('ROLLBACK')
  }
  return asked
}

async function planOf({ text, values }: Asked): Promise<PlanNode> {
  await client.query('BEGIN')
  try {
    const { rows } = await client.query<{ 'QUERY PLAN': readonly { Plan: PlanNode }[] }>(
      // What is inserted stands on rows that were undone.
      `EXPLAIN (${text.includes('INSERT INTO') ? '' : 'ANALYZE, '}FORMAT JSON) ${text}`,
      values as unknown[],
    )
    return rows[0]!['QUERY PLAN'][0]!.Plan
  } finally {
    await client.query('ROLLBACK')
  }
}
const nodes = (plan: PlanNode): readonly PlanNode[] => [plan, ...(plan.Plans ?? []).flatMap(nodes)]

/** The rows of large tables that a plan reads. */
const rowsRead = (plan: PlanNode, tables: ReadonlySet<string> = large): number =>
  nodes(plan)
    .filter((n) => n['Relation Name'] !== undefined && tables.has(n['Relation Name']))
    .reduce(
      (sum, n) => sum + ((n['Actual Rows'] ?? 0) + (n['Rows Removed by Filter'] ?? 0)) * (n['Actual Loops'] ?? 1),
      0,
    )

const middle = (): string => film.shotIds[shots / 2]!
const cases: readonly (readonly [string, (db: Queryable) => Promise<unknown>, number])[] = [
  // Scenes are few, and all of them are shown; a page of 200 shots meets five tables and its set-ups.
  ['a page of the Reel', (db) => listShots(db, film.projectId, 400, 200), 200 * 9],
  ['the scenes of the Reel', (db) => listScenes(db, film.projectId), shots / 10],
  ['a shot that is opened', (db) => findShot(db, middle()), 30],
  [
    'a save',
    async (db) => {
      await lockReach(db, middle())
      const shot = (await findShot(db, middle()))!
      const grade = setParameter(shot.revision.grade, 'exposure', 'exposureStops', 0.7)
      await appendRevision(db, { shotId: shot.id, parentId: shot.headId, grade, summary: 'Exposure', actor: 'you' })
    },
    100,
  ],
  ['a page of a record', (db) => recordOf(db, middle(), null), 80],
  ['the way that led to a state', (db) => recordPath(db, film.shotIds.at(-1)!), 80],
  ['work that goes on', (db) => listWork(db, film.projectId), 30],
  [
    'work whose worker is gone',
    (db) => requeueWork(db, { silentSeconds: 20, attempts: ['a', 'b'], waitedSeconds: 1e9 }),
    30,
  ],
  ['ended work', (db) => pruneWork(db, 7), 30],
]

test.each(cases)('%s: reads no table as a whole, and few rows', async (_, run, most) => {
  for (const asked of await askedBy(run)) {
    const plan = await planOf(asked)
    const scanned = nodes(plan).filter(
      (n) => n['Node Type'] === 'Seq Scan' && large.has(n['Relation Name'] ?? '') && n['Actual Rows'] !== 0,
    )
    expect([asked.text.replace(/\s+/g, ' '), scanned.map((n) => n['Relation Name'])]).toEqual([expect.anything(), []])
    expect(rowsRead(plan)).toBeLessThanOrEqual(most)
  }
})

test('renders are listed by the newest, without reading those of other projects', async () => {
  const other = await fillDatabase(databaseUrl(), 40, 2)
  for (const asked of await askedBy((db) => listRenders(db, other.projectId)))
    expect(rowsRead(await planOf(asked), new Set(['renders']))).toBe(40)
})

test('a reel and a record are read a page at a time, each thing once', async () => {
  const reel: string[] = []
  for (let after = 0, page = 0; ; page++) {
    const shotsOfPage = await listShots(client, film.projectId, after, 200)
    reel.push(...shotsOfPage.map((s) => s.id))
    if (shotsOfPage.length < 200) break
    after = shotsOfPage.at(-1)!.position
    expect(page).toBeLessThan(shots)
  }
  expect(reel).toEqual(film.shotIds)
  const shot = await fillDatabase(databaseUrl(), 1, 250)
  const seen: number[] = []
  for (let next: string | null | undefined; next !== null;) {
    const behind: string[] = next?.split('|') ?? []
    const [at = '', depth = '0', id = ''] = behind
    const page = (await recordOf(client, shot.shotIds[0]!, next ? { at, depth: Number(depth), id } : null))!
    seen.push(...page.revisions.map((r) => r.depth))
    next = page.next
  }
  expect(seen).toEqual(Array.from({ length: 250 }, (_, i) => 250 - i))
})

test('what a revision changed is worked out once', async () => {
  const words = (await recordOf(client, middle(), null))!.revisions[0]!.changes
  expect(words).toEqual(['Exposure +0.01 stops → +0.01 stops'])
  const again = await askedBy((db) => recordOf(db, middle(), null))
  expect(again.some(({ text }) => text.includes('b.grade AS before'))).toBe(false)
})

test('ended work is pruned, and what went wrong stays', async () => {
  const put = (state: string, days: number) =>
    client.query(
      `INSERT INTO work (kind, project_id, name, payload, state, actor, updated_at)
       VALUES ('import', $1, $2, '{}', $3, 'you', now() - make_interval(days => $4))`,
      [film.projectId, `${state} ${days}`, state, days],
    )
  for (const state of ['done', 'cancelled', 'failed']) await Promise.all([put(state, 1), put(state, 8)])
  await pruneWork(client, 7)
  const { rows } = await client.query<{ name: string }>(
    "SELECT name FROM work WHERE project_id = $1 AND name ~ '^[a-z]+ [18]$' AND name !~ 'clip' ORDER BY name",
    [film.projectId],
  )
  expect(rows.map((r) => r.name)).toEqual(['cancelled 1', 'done 1', 'failed 1', 'failed 8'])
})
