import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { MediaFault } from './fault'
import { probe } from './probe'
import { decodeFrame, decodeFrames, type FrameAsked } from './single-frames'

let folder: string
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'pale-frames-'))
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

async function clip(name: string, size: string, coding: readonly string[]): Promise<Omit<FrameAsked, 'index'>> {
  const path = join(folder, name)
  const source = `testsrc2=size=${size}:rate=24:duration=2`
  execFileSync('ffmpeg', ['-v', 'error', '-f', 'lavfi', '-i', source, ...coding, path])
  const { facts, frameTimes } = await probe(path, name)
  return { path, facts, frameTimes }
}

test('frames of several files decoded together are those decoded by themselves', async () => {
  const clips = [
    await clip('b-frames.mp4', '320x180', ['-c:v', 'libx264', '-g', '24', '-bf', '3', '-pix_fmt', 'yuv420p']),
    await clip('deep.mov', '160x90', ['-c:v', 'libx264', '-g', '12', '-pix_fmt', 'yuv422p10le']),
    await clip('whole.mkv', '128x72', ['-c:v', 'ffv1', '-pix_fmt', 'yuv444p12le']),
  ]
  const asked = [clips[0], clips[1], clips[2], clips[0]].map((one, n) => ({ ...one!, index: [31, 7, 40, 0][n]! }))
  const told: (Buffer | undefined)[] = []
  const together = await decodeFrames(asked, { onFrame: (n, planes) => (told[n] = planes) })
  expect(told).toEqual(together)
  for (const [n, frame] of asked.entries()) {
    const alone = await decodeFrame(frame.path, frame.facts, frame.frameTimes, frame.index)
    expect(alone.equals(together[n] as Buffer)).toBe(true)
  }
  expect((together[0] as Buffer).equals(together[3] as Buffer)).toBe(false)
})

test('a file that spoils the decoder costs the others nothing but time', async () => {
  const good = await clip('good.mp4', '160x90', ['-c:v', 'libx264', '-pix_fmt', 'yuv420p'])
  const bad = await clip('bad.mp4', '160x90', ['-c:v', 'libx264', '-pix_fmt', 'yuv420p'])
  writeFileSync(bad.path, readFileSync(bad.path).subarray(0, 400))
  const [first, fault, missing, last] = await decodeFrames([
    { ...good, index: 3 },
    { ...bad, index: 3 },
    { ...good, index: 480 },
    { ...good, index: 20 },
  ])
  expect(first).toEqual(await decodeFrame(good.path, good.facts, good.frameTimes, 3))
  expect(fault).toBeInstanceOf(MediaFault)
  expect(fault).toMatchObject({ code: 'undecodable_frame' })
  expect(missing).toMatchObject({ code: 'no_such_frame' })
  expect(last).toEqual(await decodeFrame(good.path, good.facts, good.frameTimes, 20))
})

test('who gives up gets their own reason', async () => {
  const one = await clip('left.mp4', '160x90', ['-c:v', 'libx264', '-pix_fmt', 'yuv420p'])
  const gone = new AbortController()
  const frames = decodeFrames([{ ...one, index: 3 }], { signal: gone.signal })
  gone.abort(new Error('left'))
  await expect(frames).rejects.toThrow('left')
})
