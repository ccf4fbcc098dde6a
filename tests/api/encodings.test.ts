// Encodings of one's own on the server, and grades that read by them or by LUTs.
import { readFileSync } from 'node:fs'
import { decode } from 'fast-png'
import { bakeLut } from '@core/bake'
import type { EncodingDefinition } from '@core/colour'
import { printCube } from '@core/formats'
import { defaultGrade, setRead, setShow } from '@core/grade'
import { call, get, ownShot, postJson, save } from '../support/api'

const own = (id: string, name = 'Kiln'): EncodingDefinition => ({
  id,
  name,
  gamutId: 'w766',
  source: 'a test',
  curve: { family: 'lin-log', a: 0.25, b: 5, c: 0.05, d: 0.4, e: 5.4, f: 0.09, cut: 0.0106 },
})
const meeting = (d: EncodingDefinition): EncodingDefinition => {
  if (d.curve.family !== 'lin-log') return d
  const { a, b, c, d: offset, cut } = d.curve
  const e = (a * b) / ((b * cut + c) * Math.LN10)
  return { ...d, curve: { ...d.curve, e, f: a * Math.log10(b * cut + c) + offset - e * cut } }
}
const kiln = meeting(own('own-kiln'))

afterEach(async () => {
  for (const { id, source } of await get<{ id: string; source: string }[]>('/encodings'))
    if (source === 'a test') await call(`/encodings/${id}`, { method: 'DELETE' })
})

test('kept, listed, the same again, another under the same id refused, removed', async () => {
  expect((await postJson('/encodings', kiln)).status).toBe(201)
  expect((await postJson('/encodings', kiln)).status).toBe(201)
  const other = await postJson('/encodings', { ...kiln, name: 'Other' })
  expect(other.status).toBe(409)
  expect(((await other.json()) as { error: { field: string } }).error.field).toBe('id')
  // Other tests keep encodings of their own meanwhile.
  const kept = await get<readonly { id: string }[]>('/encodings')
  expect(kept.filter((e) => e.id === kiln.id)).toEqual([kiln])
  expect((await call('/encodings/own-kiln', { method: 'DELETE' })).status).toBe(204)
  expect((await call('/encodings/own-kiln', { method: 'DELETE' })).status).toBe(404)
})

test('a file comes whole or not at all', async () => {
  const file = {
    kind: 'pale-meridian-encodings',
    version: 1,
    encodings: [kiln, { ...meeting(own('own-b')), gamutId: 'nowhere' }],
  }
  const refused = await postJson('/encodings/import', file)
  expect(refused.status).toBe(422)
  expect(await get('/encodings')).toEqual([])
  expect((await postJson('/encodings/import', { ...file, encodings: [kiln, meeting(own('own-b'))] })).status).toBe(201)
  expect(await get<unknown[]>('/encodings')).toHaveLength(2)
})

test.each<[string, object, string]>([
  ['an id that ships', { ...kiln, id: 'log-420-95' }, 'id'],
  ['a name of control characters', { ...kiln, name: 'a\u0000b' }, 'name'],
  ['a falling curve', { ...kiln, curve: { ...kiln.curve, a: -1 } }, 'curve'],
  ['parts that do not meet', { ...kiln, curve: { ...kiln.curve, f: 0.9 } }, 'curve'],
  ['a number too large for JSON', JSON.parse(JSON.stringify(kiln).replace('0.25', '1e999')) as object, 'curve'],
  ['an unknown family', { ...kiln, curve: { family: 'spline' } }, 'curve'],
  ['a table of one pair', { ...kiln, curve: { family: 'table', entries: [{ code: 0, linear: 0 }] } }, 'curve'],
  ['a strange field', { ...kiln, extra: 1 }, 'extra'],
])('%s is refused by field', async (_, body, field) => {
  const response = await postJson('/encodings', body)
  expect(response.status).toBe(422)
  expect(((await response.json()) as { error: { field: string } }).error.field).toContain(field)
  expect(await get('/encodings')).toEqual([])
})

const clip = readFileSync('demo/footage/glaze-shelf.mov')

test('a grade carries the encoding it reads by, and is rendered with it', async () => {
  const { id } = await ownShot(clip)
  const grade = setRead(defaultGrade('log-420-95', 'w766'), { encodingId: kiln.id, own: kiln })
  const { headId } = await save(id, () => grade)
  expect((await call(`/revisions/${headId}/still.png?frame=3`)).status).toBe(200)
  const { own: _, ...without } = grade.read
  const refused = await postJson(`/shots/${id}/revisions`, {
    parentId: headId,
    summary: 'own',
    grade: { ...grade, read: without },
  })
  expect(refused.status).toBe(422)
})

test('a Show LUT reaches the still', async () => {
  const { id } = await ownShot(clip)
  const flat = bakeLut(defaultGrade('linear', 'bt709'), () => undefined, 5, 'flat')
  flat.data.fill(0.25)
  const lut = (await (await call('/luts?name=flat.cube', { method: 'POST', body: printCube(flat) })).json()) as {
    hash: string
  }
  const { headId } = await save(id, () => setShow(defaultGrade('log-420-95'), { method: 'lut', lutHash: lut.hash }))
  const { data } = decode(new Uint8Array(await (await call(`/revisions/${headId}/still.png?frame=0`)).arrayBuffer()))
  expect(new Set(data)).toEqual(new Set([Math.floor(0.25 * 65535 + 0.5)]))
})
