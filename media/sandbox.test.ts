import { createServer, type Server } from 'node:net'
import { chmodSync, copyFileSync, mkdirSync, mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { runChild, runDecoder, useSandbox, type ChildResult } from './child'
import { openSandbox, withoutNetwork, type Sandbox } from './sandbox'

let scratch: string
let server: Server
let heard = 0
const limits = { seconds: 20, maxOutputBytes: 100_000 }
beforeAll(async () => {
  scratch = mkdtempSync(join(tmpdir(), 'pale-sandbox-'))
  for (const folder of ['root', 'read', 'write']) mkdirSync(join(scratch, folder))
  copyFileSync('demo/footage/potter.mov', join(scratch, 'read', 'in.mov'))
  copyFileSync('demo/footage/potter.mov', join(scratch, 'out.mov'))
  server = createServer((socket) => {
    heard++
    socket.destroy()
  })
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
})
afterEach(() => useSandbox(null))
afterAll(() => {
  server.close()
  rmSync(scratch, { recursive: true, force: true })
})
const width = (path: string): Promise<ChildResult> =>
  runDecoder('ffprobe', ['-v', 'error', '-show_entries', 'stream=width', '-of', 'csv=p=0', path], limits)
const address = (): string => `tcp://127.0.0.1:${(server.address() as AddressInfo).port}`

async function room(): Promise<Sandbox> {
  const made = await openSandbox(
    { root: join(scratch, 'root'), reads: [join(scratch, 'read')], writes: [join(scratch, 'write')] },
    () => undefined,
  )
  // These are the systems that the program is tested on; elsewhere it says that there is no room, and goes on.
  if (!made) throw new Error('This system allows no room of namespaces.')
  return made
}

test('in the room a program reads what it is shown, and nothing else', async () => {
  const made = await room()
  useSandbox(made)
  try {
    expect((await width(join(scratch, 'read', 'in.mov'))).stdout.toString().trim()).toBe('960')
    const outside = await width(join(scratch, 'out.mov'))
    expect(outside.code).not.toBe(0)
    expect(outside.stderr).toContain('No such file')
    const seen = (...words: readonly string[]): Promise<ChildResult> => {
      const [first = '', ...rest] = [...made.enter(undefined), ...words]
      return runChild(first, rest, limits)
    }
    for (const path of ['/etc/passwd', '/proc/1', '/home', '/root', join(scratch, 'out.mov')])
      expect((await seen('ls', path)).code).not.toBe(0)
    for (const path of ['/new', join(scratch, 'read', 'new'), '/usr/new'])
      expect((await seen('touch', path)).code).not.toBe(0)
    expect((await seen('touch', join(scratch, 'write', 'new'))).code).toBe(0)
    expect(readdirSync(join(scratch, 'write'))).toEqual(['new'])
  } finally {
    made.close()
  }
})

test('in the room, and without one, there is no network', async () => {
  const before = heard
  expect((await width(address())).code).not.toBe(0)
  const made = await room()
  useSandbox(made)
  try {
    expect((await width(address())).code).not.toBe(0)
  } finally {
    made.close()
  }
  expect(heard).toBe(before)
  // It would have been heard: the same program outside of both.
  await runChild('ffprobe', ['-v', 'error', address()], limits)
  expect(heard).toBe(before + 1)
  expect(withoutNetwork().length).toBeGreaterThan(0)
})

test('a program has an account of its own where the system allows one, and rights only to read', async () => {
  chmodSync(join(scratch, 'read', 'in.mov'), 0o600)
  const made = await room()
  useSandbox(made)
  const asRoot = process.getuid?.() === 0
  const run = (...words: readonly string[]): Promise<ChildResult> => {
    const [first = '', ...rest] = [...made.enter(undefined), ...words]
    return runChild(first, rest, limits)
  }
  try {
    const account = (await run('id', '-u')).stdout.toString().trim()
    // An account that is not root may run programs as itself alone; in the room it is called root.
    expect(account).toBe(asRoot ? '61999' : '0')
    expect((await width(join(scratch, 'read', 'in.mov'))).stdout.toString().trim()).toBe('960')
    const killed = await run('kill', '-0', String(process.pid))
    expect(asRoot ? killed.code : 1).not.toBe(0)
    const output = join(scratch, 'write', 'out.mov')
    const copied = await runDecoder(
      'ffmpeg',
      ['-v', 'error', '-i', join(scratch, 'read', 'in.mov'), '-c', 'copy', '-y', output],
      limits,
    )
    expect(copied).toMatchObject({ code: 0, stderr: '' })
    expect(statSync(output).uid).toBe(asRoot ? 61_999 : process.getuid?.())
    // Numbered pictures are looked for by access(2), which counts rights otherwise than open(2).
    const picture = join(scratch, 'read', '1.png')
    copyFileSync('tests/fixtures/chart.png', picture)
    chmodSync(picture, 0o600)
    expect((await width(join(scratch, 'read', '%d.png'))).stdout.toString().trim()).toBe('480')
    // It has that one right alone, and may not have another.
    const rights = (await run('setpriv', '--dump')).stdout.toString()
    if (asRoot) expect(rights).toMatch(/Ambient capabilities: dac_read_search\n/)
    expect(rights).toMatch(/Capability bounding set: (dac_read_search|\[none\])\n/)
    expect(rights).toMatch(/no_new_privs: 1\n/)
    expect((await run('mount', '-t', 'tmpfs', 'none', '/usr')).code).not.toBe(0)
    // Rights over other accounts' files, beyond reading them, it has none.
    expect((await run('chown', '0', output)).code).not.toBe(0)
    expect((await run('chmod', '644', join(scratch, 'read', 'in.mov'))).code).not.toBe(0)
  } finally {
    made.close()
  }
})

test('a program runs in the folder that it is given', async () => {
  writeFileSync(join(scratch, 'read', 'name with spaces.txt'), '')
  const made = await room()
  try {
    const [first = '', ...rest] = [...made.enter(join(scratch, 'read')), 'ls']
    expect((await runChild(first, rest, limits)).stdout.toString()).toContain('name with spaces.txt')
  } finally {
    made.close()
  }
})

test('the room goes with whoever made it, and says so when it is lost', async () => {
  let lost = 0
  const made = await openSandbox({ root: join(scratch, 'root'), reads: [], writes: [] }, () => lost++)
  const holder = Number(made?.enter(undefined).at(made.enter(undefined).indexOf('--target') + 1))
  process.kill(holder, 'SIGKILL')
  for (let n = 0; n < 100 && lost === 0; n++) await new Promise((done) => setTimeout(done, 20))
  expect(lost).toBe(1)
})
