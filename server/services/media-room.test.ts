import { copyFileSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pino } from 'pino'
import { runDecoder } from '@media/child'
import { openStore } from '../store/store'
import { keepMediaRoom, type MediaRoom } from './media-room'

let scratch: string
let room: MediaRoom
let outside: string
const warnings: string[] = []
beforeAll(async () => {
  scratch = mkdtempSync(join(tmpdir(), 'pale-media-room-'))
  outside = join(scratch, 'outside.mov')
  copyFileSync('demo/footage/potter.mov', outside)
  mkdirSync(join(scratch, 'library'))
  const log = pino(
    { level: 'warn' },
    { write: (line: string) => warnings.push((JSON.parse(line) as { msg: string }).msg) },
  )
  room = await keepMediaRoom(await openStore(join(scratch, 'data')), join(scratch, 'library'), log)
})
afterAll(async () => {
  await room.close()
  rmSync(scratch, { recursive: true, force: true })
})

/** Programs in the room do not see this file; others do. */
const isSeen = async (): Promise<boolean> =>
  (await runDecoder('ffprobe', ['-v', 'error', outside], { seconds: 20, maxOutputBytes: 10_000 })).code === 0

/** The program that holds the room open. */
function holder(): number | undefined {
  const children = readFileSync(`/proc/self/task/${process.pid}/children`, 'utf8').trim().split(' ').filter(Boolean)
  return children.map(Number).find((pid) => readFileSync(`/proc/${pid}/comm`, 'utf8').trim() === 'cat')
}

async function until(what: () => Promise<boolean> | boolean): Promise<void> {
  for (let tries = 0; tries < 500; tries++) {
    if (await what()) return
    await new Promise((done) => setTimeout(done, 20))
  }
  throw new Error('It did not come.')
}

test('a room that is lost is made again; one that does not last, a second later', async () => {
  expect(await isSeen()).toBe(false)
  for (const lost of [1, 2]) {
    const pid = holder()!
    const begun = Date.now()
    process.kill(pid, 'SIGKILL')
    await until(() => holder() !== undefined && holder() !== pid)
    await until(async () => !(await isSeen()))
    expect(Date.now() - begun).toBeGreaterThan(900)
    expect(warnings).toEqual(Array<string>(lost).fill('the room of the media programs was lost, and is made again'))
  }
})

test('closed, it is not made again', async () => {
  await room.close()
  await until(() => holder() === undefined)
  expect(await isSeen()).toBe(true)
  expect(warnings).toHaveLength(2)
})
