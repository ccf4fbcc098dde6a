import { readFileSync } from 'node:fs'
import { setTimeout as pause } from 'node:timers/promises'
import { runChild, startBounded, startYieldingDecoder } from './child'

const limits = { seconds: 5, maxOutputBytes: 1000 }

test('arguments are never seen by a shell', async () => {
  const { stdout, code } = await runChild('printf', ['%s', '$(id); `id` "quoted" \'and\' ; rm -rf /nowhere'], limits)
  expect(code).toBe(0)
  expect(stdout.toString()).toBe('$(id); `id` "quoted" \'and\' ; rm -rf /nowhere')
})

test('a child that talks too much is stopped', async () => {
  const { stoppedBy, stdout } = await runChild('yes', [], limits)
  expect(stoppedBy).toBe('size')
  expect(stdout.length).toBeLessThanOrEqual(1000)
})

test('a child that takes too long is stopped', async () => {
  expect((await runChild('sleep', ['60'], { ...limits, seconds: 0.2 })).stoppedBy).toBe('time')
})

test('a child gets no secrets from the environment', async () => {
  process.env['DATABASE_URL'] = 'postgres://secret'
  expect((await runChild('env', [], limits)).stdout.toString()).not.toContain('secret')
  delete process.env['DATABASE_URL']
})

test('a program that is not there rejects', async () => {
  await expect(runChild('no-such-program-here', [], limits)).rejects.toThrow(/ENOENT/)
})

test('media programs that read and that write have bounded memory and yield to the server', async () => {
  for (const start of [startBounded.bind(null, 'ffmpeg'), startYieldingDecoder]) {
    const child = start(['-v', 'quiet', '-re', '-f', 'lavfi', '-i', 'color=s=16x16', '-f', 'null', '-'])
    try {
      const about = (file: string): string => readFileSync(`/proc/${child.pid}/${file}`, 'utf8')
      while (about('comm').trim() !== 'ffmpeg') await pause(5)
      expect(about('limits')).toMatch(/^Max address space +6442450944 /m)
      // The nineteenth field of stat (proc(5)); behind the name, which may hold blanks, it is the seventeenth.
      expect(Number(about('stat').split(') ')[1]?.split(' ')[16])).toBeGreaterThanOrEqual(5)
    } finally {
      child.kill('SIGKILL')
    }
  }
})
