// The process that starts media programs for the server: the built one.
import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { runChild } from '@media/child'
import { openRunner, type MediaRunner, type SendableLimits } from '@media/runner/client'
import { until } from '../support/until'

const limits = { seconds: 20, maxOutputBytes: 1_000_000 }
let runner: MediaRunner
beforeEach(() => {
  runner = openRunner(resolve('dist/node/media-runner.js'))
})
afterEach(() => runner.close())

const shell = (script: string, more: Partial<SendableLimits> = {}): ReturnType<MediaRunner['run']> =>
  runner.run('sh', ['-c', script], { ...limits, ...more })
/** The process that started the one that prints its parent's number. */
const runnerPid = async (): Promise<number> => Number((await shell('echo $PPID')).stdout.toString())
const isThere = (pid: number): boolean => {
  try {
    // A process that ended and was not yet waited for is not there.
    return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'))
  } catch {
    return false
  }
}

test('gives what a child of this process would give', async () => {
  const script = 'printf out; printf more >&3; printf said >&2; exit 3'
  const own = await runChild('sh', ['-c', script], { ...limits, moreOutputs: 1 })
  expect(await shell(script, { moreOutputs: 1 })).toEqual(own)
  expect(own).toMatchObject({ code: 3, stderr: 'said', stoppedBy: null })
  expect((await shell('exec yes', { maxOutputBytes: 1000 })).stoppedBy).toBe('size')
  expect((await shell('exec sleep 60', { seconds: 0.2 })).stoppedBy).toBe('time')
  await expect(runner.run('no-such-program-here', [], limits)).rejects.toThrow('ENOENT')
})

test('an output is told as soon as it is whole', async () => {
  const told: string[] = []
  const whole = { bytes: [5], tell: (_: number, bytes: Buffer) => told.push(bytes.toString()) }
  const run = shell('printf frame; exec sleep 2', { whole })
  let over = false
  void run.then(() => (over = true))
  await until('the output is told', () => Promise.resolve(told.length > 0))
  expect([told, over]).toEqual([['frame'], false])
  expect((await run).stdout.toString()).toBe('frame')
  expect(told).toEqual(['frame'])
})

test('what is given up is ended', async () => {
  const gone = new AbortController()
  const told: number[] = []
  const whole = { bytes: [8], tell: (_: number, bytes: Buffer) => told.push(Number(bytes.toString())) }
  const run = shell('printf "%08d" $$; exec sleep 60', { whole, signal: gone.signal })
  await until('it runs', () => Promise.resolve(told.length > 0))
  gone.abort(new Error('left'))
  await expect(run).rejects.toThrow('left')
  await until('it has ended', () => Promise.resolve(!isThere(told[0]!)))
})

test('it dies: who waits is told, and the next run starts it again', async () => {
  const first = await runnerPid()
  const run = shell('exec sleep 60')
  process.kill(first, 'SIGKILL')
  await expect(run).rejects.toThrow('The process that starts media programs ended.')
  const second = await runnerPid()
  expect(second).not.toBe(first)
  expect(isThere(second)).toBe(true)
})

test('it ends when its server does, with all that it runs', async () => {
  const pid = await runnerPid()
  const told: number[] = []
  const whole = { bytes: [8], tell: (_: number, bytes: Buffer) => told.push(Number(bytes.toString())) }
  const run = shell('printf "%08d" $$; exec sleep 60', { whole })
  await until('it runs', () => Promise.resolve(told.length > 0))
  runner.close()
  await expect(run).rejects.toThrow('The server is ending.')
  await until('both have ended', () => Promise.resolve(!isThere(pid) && !isThere(told[0]!)))
})
