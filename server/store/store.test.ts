import { createHash } from 'node:crypto'
import { execFileSync } from 'node:child_process'
import {
  existsSync,
  linkSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  readlinkSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { open, type FileHandle } from 'node:fs/promises'
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

/** Files that are not finished, of whichever process. */
const unfinished = (): string[] =>
  readdirSync(join(folder, 'incoming')).flatMap((mark) => readdirSync(join(folder, 'incoming', mark)))

test('a body is received whole and named by its content', async () => {
  const store = await openStore(folder)
  const received = await store.receive(body('ash', 'glaze'), 100, 'a.mov')
  expect(received.sizeBytes).toBe(8)
  expect(received.hash).toBe(createHash('sha256').update('ashglaze').digest('hex'))
  await store.keep(received.path, store.mediaPath(received.hash))
  expect(readFileSync(store.mediaPath(received.hash), 'utf8')).toBe('ashglaze')
  expect(unfinished()).toEqual([])
})

test.each([
  ['empty', [''], 100, /is empty/],
  ['too large', ['x'.repeat(50)], 10, /is larger than/],
] as const)('%s bodies are refused and leave nothing', async (_, parts, max, reason) => {
  const store = await openStore(folder)
  await expect(store.receive(body(...parts), max, 'a.mov')).rejects.toThrow(reason)
  expect(unfinished()).toEqual([])
})

test.each(['../../etc/passwd', 'A'.repeat(64), '', `${'a'.repeat(63)}/`, `${'a'.repeat(64)}\0`])(
  '%j is no name of a stored file',
  async (name) => {
    const store = await openStore(folder)
    expect(() => store.mediaPath(name)).toThrow(RangeError)
    expect(() => store.renderPath(name)).toThrow(RangeError)
  },
)

test('what a process left that is gone is removed at the next start; what a running one has stays', async () => {
  const store = await openStore(folder)
  writeFileSync(store.temporaryPath(), 'half a clip')
  const left = join(folder, 'incoming', '1-1')
  mkdirSync(left)
  writeFileSync(join(left, 'half'), 'half a clip')
  await openStore(folder)
  expect(existsSync(left)).toBe(false)
  expect(unfinished()).toHaveLength(1)
  expect(existsSync(join(folder, 'media'))).toBe(true)
})

test('a file is given a second place and keeps its first, also when it has the second already', async () => {
  const store = await openStore(folder)
  const original = join(folder, 'uploads', 'a')
  const place = store.mediaPath('a'.repeat(64))
  writeFileSync(original, 'ash')
  for (let tries = 0; tries < 2; tries++) {
    await store.keepAlso(original, place)
    expect([readFileSync(original, 'utf8'), readFileSync(place, 'utf8')]).toEqual(['ash', 'ash'])
  }
  await store.discard(original)
  expect(readFileSync(place, 'utf8')).toBe('ash')
  expect(unfinished()).toEqual([])
})

test('a file is on the disk before it has its place, and the place before it is said to be kept', async () => {
  const store = await openStore(folder)
  const original = join(folder, 'uploads', 'a')
  const place = store.mediaPath('c'.repeat(64))
  writeFileSync(original, 'ash')
  const handle = await open(original, 'r')
  const handles = Object.getPrototypeOf(handle) as FileHandle
  await handle.close()
  const steps: string[] = []
  const sync = handles.sync
  const spy = jest.spyOn(handles, 'sync').mockImplementation(async function (this: FileHandle) {
    await sync.call(this)
    const name = readlinkSync(`/proc/self/fd/${this.fd}`)
    steps.push(
      `${name === join(folder, 'media') ? 'the folder' : 'the file'}, ${existsSync(place) ? 'in' : 'before its'} place`,
    )
  })
  await store.keepAlso(original, place)
  expect(steps).toEqual(['the file, before its place', 'the folder, in place'])
  steps.length = 0
  const output = store.outputPath()
  writeFileSync(output, 'film')
  const proxy = store.proxyPath('c'.repeat(64))
  await store.keepOutput(output, proxy)
  expect(steps).toHaveLength(1)
  expect(readFileSync(proxy, 'utf8')).toBe('film')
  spy.mockRestore()
})

test.each(['link', 'pipe', 'folder', 'second name'])('a %s that a media program leaves is not kept', async (kind) => {
  const store = await openStore(folder)
  const secret = join(folder, 'uploads', 'secret')
  writeFileSync(secret, 'secret')
  const output = store.outputPath()
  if (kind === 'link') symlinkSync(secret, output)
  if (kind === 'pipe') execFileSync('mkfifo', [output])
  if (kind === 'folder') mkdirSync(output)
  if (kind === 'second name') linkSync(secret, output)
  const place = store.renderPath('00000000-0000-4000-8000-000000000000')
  await expect(store.keepOutput(output, place)).rejects.toThrow()
  expect(existsSync(place)).toBe(false)
})

test('a folder that is kept already stays as it is', async () => {
  const store = await openStore(folder)
  const place = store.mediaPath('b'.repeat(64))
  for (const words of ['first', 'second']) {
    const made = store.temporaryPath()
    mkdirSync(made)
    writeFileSync(join(made, 'picture'), words)
    await store.keep(made, place)
  }
  expect(readFileSync(join(place, 'picture'), 'utf8')).toBe('first')
  expect(unfinished()).toEqual([])
})
