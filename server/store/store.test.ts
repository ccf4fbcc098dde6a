import { createHash } from 'node:crypto'
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { ReadableStream } from 'node:stream/web'
import { openStore } from './store'

let folder = ''
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'pale-store-'))
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

const body = (...parts: readonly string[]): ReadableStream<Uint8Array> =>
  new Blob([...parts]).stream() as unknown as ReadableStream<Uint8Array>

test('a body is received whole and named by its content', async () => {
  const store = await openStore(folder)
  const received = await store.receive(body('ash', 'glaze'), 100, 'a.mov')
  expect(received.sizeBytes).toBe(8)
  expect(received.hash).toBe(createHash('sha256').update('ashglaze').digest('hex'))
  await store.keep(received.path, store.mediaPath(received.hash))
  expect(readFileSync(store.mediaPath(received.hash), 'utf8')).toBe('ashglaze')
  expect(readdirSync(join(folder, 'incoming'))).toEqual([])
})

test.each([
  ['empty', [''], 100, /is empty/],
  ['too large', ['x'.repeat(50)], 10, /is larger than/],
] as const)('%s bodies are refused and leave nothing', async (_, parts, max, reason) => {
  const store = await openStore(folder)
  await expect(store.receive(body(...parts), max, 'a.mov')).rejects.toThrow(reason)
  expect(readdirSync(join(folder, 'incoming'))).toEqual([])
})

test.each(['../../etc/passwd', 'A'.repeat(64), '', `${'a'.repeat(63)}/`, `${'a'.repeat(64)}\0`])(
  '%j is no name of a stored file',
  async (name) => {
    const store = await openStore(folder)
    expect(() => store.mediaPath(name)).toThrow(RangeError)
    expect(() => store.renderPath(name)).toThrow(RangeError)
  },
)

test('leftovers of interrupted work are removed at the next start', async () => {
  const store = await openStore(folder)
  writeFileSync(store.temporaryPath(), 'half a clip')
  await openStore(folder)
  expect(readdirSync(join(folder, 'incoming'))).toEqual([])
  expect(existsSync(join(folder, 'media'))).toBe(true)
})
