// Saves that meet: each is answered with what it did itself, and locks are taken in one order.
import { readFileSync } from 'node:fs'
import pg from 'pg'
import { setParameter, type GradeDocument } from '@core/grade'
import type { RevisionState, ShotDetail } from '@contracts/responses'
import { call, get, ownShot, postJson, refusal, shotById } from '../support/api'
import { databaseUrl } from '../support/database'
import { until } from '../support/until'

let database: pg.Client
beforeAll(async () => {
  database = new pg.Client({ connectionString: databaseUrl() })
  await database.connect()
})
afterAll(() => database.end())

const clip = (): Uint8Array => readFileSync('demo/footage/yard-cloud.mov')
async function shotIn(projectId: string, name: string): Promise<ShotDetail> {
  const response = await call(`/projects/${projectId}/shots?name=${name}`, { method: 'POST', body: clip() as BodyInit })
  return (await response.json()) as ShotDetail
}
async function twoShots(): Promise<readonly [ShotDetail, ShotDetail]> {
  const first = await ownShot(clip(), 'one.mov')
  return [first, await shotIn(first.projectId, 'two.mov')]
}
const exposed = (g: GradeDocument, stops: number): GradeDocument => setParameter(g, 'exposure', 'exposureStops', stops)
function saveOn(
  { id, revision }: Pick<ShotDetail, 'id' | 'revision'>,
  summary: string,
  stops: number,
): Promise<Response> {
  const { headId, grade } = revision
  return postJson(`/shots/${id}/revisions`, { parentId: headId, summary, grade: exposed(grade, stops) })
}
/** A shot's state as the database has it, while the server cannot be asked. */
async function present(id: string): Promise<Pick<ShotDetail, 'id' | 'revision'>> {
  const { rows } = await database.query<{ headId: string; grade: GradeDocument }>(
    'SELECT r.id AS "headId", r.grade FROM shots s JOIN revisions r ON r.id = s.head_id WHERE s.id = $1',
    [id],
  )
  return { id, revision: rows[0] as RevisionState }
}
/** Waits until so many sessions of the server wait for a lock. */
async function untilWaiting(sessions: number): Promise<void> {
  await until(`${sessions} sessions wait`, async () => {
    const { rows } = await database.query<{ count: number }>(
      "SELECT count(*)::int AS count FROM pg_stat_activity WHERE wait_event_type = 'Lock' AND pid <> pg_backend_pid()",
    )
    return (rows[0]?.count ?? 0) >= sessions
  })
}

test('a save is answered with its own revision, though one of a linked shot lands right behind it', async () => {
  const [one, two] = await twoShots()
  await postJson('/shots/link', { shotIds: [one.id, two.id] })
  // Whoever writes a revision down stands still here, with all locks taken.
  await database.query('BEGIN')
  const saves: Promise<Response>[] = []
  try {
    await database.query('LOCK TABLE revision_changes IN ACCESS EXCLUSIVE MODE')
    saves.push(saveOn(one, 'mine', 1))
    await untilWaiting(1)
    saves.push(saveOn(await present(two.id), 'theirs', 2))
    await untilWaiting(2)
  } finally {
    await database.query('COMMIT')
  }
  const answers = await Promise.all(saves)
  expect(answers.map((a) => a.status)).toEqual([200, expect.any(Number)])
  expect((await answers[0]!.json()) as RevisionState).toMatchObject({ summary: 'mine' })
})

test('saving one shot while the state of another is set loses no row and breaks on no deadlock', async () => {
  const [one, two] = await twoShots()
  const rounds = 40
  const states = (async () => {
    for (let i = 0; i < rounds; i++) {
      const shotIds = i % 2 ? [one.id, two.id] : [two.id, one.id]
      const answer = await postJson('/shots/changes', { shotIds, state: i % 3 ? 'matched' : 'new' })
      if (answer.status !== 204) throw new Error(JSON.stringify(await refusal(answer)))
    }
  })()
  for (let i = 0; i < rounds; i++)
    for (const { id } of [one, two]) {
      const answer = await saveOn(await shotById(id), `save ${i}`, (i % 7) / 10)
      expect(answer.status).toBe(200)
    }
  await states
})

test('two orders of linked shots being changed at once end in one state each, never in an error', async () => {
  const [one, two] = await twoShots()
  await postJson('/shots/link', { shotIds: [one.id, two.id] })
  // Their places in the reel run against their ids as often as not.
  const change = (ids: readonly string[]): Promise<Response> =>
    postJson('/shots/changes', { shotIds: ids, read: { encodingId: 'log-420-95', range: 'full' } })
  const answers = await Promise.all(
    Array.from({ length: 30 }, async (_, i) =>
      i % 2 ? change([two.id, one.id]) : saveOn(await shotById(i % 4 ? one.id : two.id), `save ${i}`, i / 20),
    ),
  )
  expect(answers.filter((a) => ![200, 204, 409].includes(a.status))).toEqual([])
})

test('a scene and an encoding are changed together', async () => {
  const [one] = await twoShots()
  const scene = await postJson('/shots/changes', { shotIds: [one.id], scene: { name: 'With a look' } })
  expect(scene.status).toBe(204)
  const { scenes } = await get<{ scenes: readonly { id: string; name: string }[] }>(`/projects/${one.projectId}/reel`)
  const looks = await postJson(`/projects/${one.projectId}/looks`, {
    name: 'Warm',
    steps: [
      {
        kind: 'exposure',
        name: 'Lift',
        strength: 1,
        side: 'scene',
        params: { exposureStops: 0.5 },
      },
    ],
  })
  expect(looks.status).toBe(201)
  const { id: lookId } = (await looks.json()) as { id: string }
  await call(`/projects/${one.projectId}/look`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ sceneId: scenes[0]!.id, lookId, strength: 1 }),
  })
  // Leaving the scene takes its look away: a revision of its own, before the encoding's.
  const both = await postJson('/shots/changes', {
    shotIds: [one.id],
    scene: { name: 'Without' },
    read: { encodingId: 'log-420-95', range: 'full' },
  })
  expect(both.status).toBe(204)
  const { revision } = await shotById(one.id)
  expect(revision.grade.read.encodingId).toBe('log-420-95')
  expect(revision.grade.steps.some((s) => s.lookId === lookId)).toBe(false)
})

test('Dispatch gives no frame that the shot does not have', async () => {
  const [one] = await twoShots()
  await postJson(`/shots/${one.id}/cut`, { pieces: [{ first: 4, count: 6, name: 'piece' }] })
  const { headId } = await shotById(one.id)
  for (const what of ['still.png', 'thumbnail', 'lut'])
    for (const frame of [3, 10]) {
      const answer = await call(`/revisions/${headId}/${what}?frame=${frame}&as=graded`)
      expect(await refusal(answer)).toMatchObject({ status: 422, code: 'outside_shot', field: 'frame' })
    }
  expect((await call(`/revisions/${headId}/still.png?frame=9`)).status).toBe(200)
})

test("a thumbnail's address names the shot's range: of another range it is not kept", async () => {
  const [one] = await twoShots()
  const { headId, firstFrame, frameCount } = one
  const address = `/revisions/${headId}/thumbnail?frame=5&as=graded&range=${firstFrame}-${frameCount}`
  expect((await call(address)).headers.get('cache-control')).toContain('immutable')
  await postJson(`/shots/${one.id}/cut`, { pieces: [{ first: 4, count: 6, name: 'piece' }] })
  expect((await shotById(one.id)).headId).toBe(headId)
  expect((await call(address)).headers.get('cache-control')).toBe('no-store')
  const now = await call(`/revisions/${headId}/thumbnail?frame=5&as=graded&range=4-6`)
  expect(now.headers.get('cache-control')).toContain('immutable')
})
