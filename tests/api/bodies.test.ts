// Hostile and large bodies: they are counted before anything is built, checked off the server's thread, and nobody
// else waits for them.
import { address, call, refusal } from '../support/api'

const send = (path: string, body: string): Promise<Response> =>
  call(path, { method: 'POST', headers: { 'content-type': 'application/json' }, body })

/** The longest that another request waited while `work` was under way, in milliseconds. */
async function longestWait(work: Promise<unknown>): Promise<number> {
  let done = false
  void work.finally(() => (done = true)).catch(() => undefined)
  let longest = 0
  do {
    const asked = performance.now()
    await fetch(`${address()}/api/health`)
    longest = Math.max(longest, performance.now() - asked)
    await new Promise((next) => setTimeout(next, 10))
  } while (!done)
  return longest
}

const objects = (megabytes: number): string => `${'{},'.repeat(Math.floor((megabytes * 1048576) / 3) - 30)}{}`

test.each([
  ['objects to the encodings', '/encodings/import', objects(7), 413, 'objects'],
  ['objects where cuts are wanted', '/shots/00000000-0000-4000-8000-000000000000/cut', objects(0.3), 413, 'objects'],
  [
    'few enough objects, too many cuts',
    '/shots/00000000-0000-4000-8000-000000000000/cut',
    objects(0.2),
    422,
    'Pieces must hold no more than',
  ],
  ['numbers', '/standards/import', '1,'.repeat(900_000) + '1', 422, 'Encodings must hold no more than'],
])('a body of %s is refused in a moment, and nobody waits', async (_, path, list, status, said) => {
  const field = path.includes('cut') ? 'pieces' : 'encodings'
  const asked = performance.now()
  const answer = send(path, `{"kind":"pale-meridian-encodings","version":1,"${field}":[${list}]}`)
  const wait = await longestWait(answer)
  const response = await answer
  expect(performance.now() - asked).toBeLessThan(60_000)
  expect(wait).toBeLessThan(10_000)
  expect(response.status).toBe(status)
  expect((await refusal(response)).message).toContain(said)
})

test('nesting is counted in the text', async () => {
  const response = await send('/projects', `{"name":${'['.repeat(5000)}${']'.repeat(5000)}}`)
  expect(response.status).toBe(413)
  expect((await refusal(response)).message).toBe('The data are nested too deeply.')
})

test.each([
  ['half of a pair, escaped', '"half \\ud83c"'],
  ['half of a pair in a key', '"a","\\udc00":1'],
  ['NUL', '"nul \\u0000"'],
])('%s is refused before anything is stored', async (_, name) => {
  const response = await send('/projects', `{"name":${name}}`)
  expect(await refusal(response)).toMatchObject({
    status: 422,
    message: 'The text holds half of a character, or NUL.',
  })
})

test('brackets in a name are a name', async () => {
  const name = '[[[{{{ "\\" '.repeat(4).trim()
  const response = await send('/projects', JSON.stringify({ name }))
  expect(response.status).toBe(201)
  const { id } = (await response.json()) as { id: string }
  expect((await call(`/projects/${id}`, { method: 'DELETE' })).status).toBeLessThan(500)
})

test('a large file of encodings is checked and kept; one wrong pair of it is named', async () => {
  const encodings = Array.from({ length: 12 }, (_, n) => ({
    id: `own-large-${n}`,
    name: `Large ${n}`,
    gamutId: 'bt709',
    source: 'measured',
    curve: {
      family: 'table',
      entries: Array.from({ length: 4000 }, (_, i) => ({ code: i / 4000, linear: (i / 4000) ** (2 + n / 10) })),
    },
  }))
  const file = { kind: 'pale-meridian-encodings', version: 1, encodings }
  const kept = await send('/encodings/import', JSON.stringify(file))
  expect(kept.status).toBe(201)
  encodings[7]!.curve.entries[99]!.linear = 'much' as never
  const wrong = await send('/encodings/import', JSON.stringify(file))
  expect(wrong.status).toBe(422)
  expect(await refusal(wrong)).toMatchObject({ field: 'encodings.7.curve.entries.99.linear' })
  for (const { id } of encodings) expect((await call(`/encodings/${id}`, { method: 'DELETE' })).status).toBe(204)
})
