// The lattice kernel against ffmpeg's lut3d filter on the same picture, here and in Chromium; rebuilding; and the
// scopes pass.
import { execFileSync } from 'node:child_process'
import { mkdirSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { join, resolve } from 'node:path'
import type { Browser } from '@playwright/test'
import { build } from 'vite'
import { lumaWeights } from '@core/colour'
import { printCube } from '@core/formats'
import { compile, defaultGrade, setParameter, setShow, setStep, type GradeDocument, type PlanCache } from '@core/grade'
import type { Frame } from '@core/image'
import { countScopes } from '@core/instruments'
import type { LutTable } from '@core/luts'
import { rounds } from './effort'
import { benchTable, kernelSpeeds, testFrame, type KernelSpeeds } from './kernel-work'
import { median, quantile, timed } from './median'

const turns = rounds(5)

/** Ours and theirs in turn, round by round, so that a machine that grows slower meanwhile is slower for both. */
export async function measureKernel(scratch: string, browser: Browser): Promise<string[]> {
  const code = await workerText()
  const frame = testFrame(1920, 1080)
  const table = benchTable()
  const theirs: number[] = []
  const here: KernelSpeeds[] = []
  const inBrowser: KernelSpeeds[] = []
  for (let round = 0; round < turns; round++) {
    theirs.push(ffmpegMegapixels(scratch, frame, table))
    here.push(kernelSpeeds(rounds(7)))
    inBrowser.push(await inChromium(browser, code))
  }
  const line = (where: string, ours: readonly KernelSpeeds[]): string => {
    const speed = (kind: keyof KernelSpeeds): string => median(ours.map((o) => o[kind])).toFixed(1)
    const ratio = (kind: keyof KernelSpeeds): string => median(ours.map((o, i) => o[kind] / theirs[i]!)).toFixed(2)
    return (
      `${where}: ${speed('fast')} Mpx/s, ratio to ffmpeg lut3d=interp=tetrahedral ${ratio('fast')} ` +
      `(plain TypeScript ${speed('plain')} Mpx/s, ratio ${ratio('plain')}; a grade without a table ` +
      `${speed('grade')} Mpx/s)`
    )
  }
  return [`ffmpeg: ${median(theirs).toFixed(1)} Mpx/s`, line('Node.js', here), line('Chromium worker', inBrowser)]
}

/** The worker as one file for a browser, packages included. */
async function workerText(): Promise<string> {
  const made = await build({
    configFile: false,
    logLevel: 'error',
    resolve: { alias: { '@core': resolve('core') } },
    build: {
      write: false,
      target: 'es2022',
      lib: { entry: resolve('tests/bench/kernel-worker.ts'), formats: ['es'], fileName: 'kernel-worker' },
    },
  })
  const chunks = [made].flat().flatMap((m) => ('output' in m ? m.output : []))
  const [chunk] = chunks.flatMap((c) => (c.type === 'chunk' ? [c.code] : []))
  if (chunk === undefined || chunks.length !== 1) throw new Error('The worker was not built as one file.')
  return chunk
}

/** The worker in a page of its own, served from a server of its own. */
async function inChromium(browser: Browser, code: string): Promise<KernelSpeeds> {
  const server = createServer((request, response) => {
    if (request.url !== '/kernel-worker.js')
      return void response.writeHead(200, { 'content-type': 'text/html' }).end('<title>bench</title>')
    response.writeHead(200, { 'content-type': 'text/javascript' }).end(code)
  })
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready))
  const port = (server.address() as { port: number }).port
  const page = await browser.newPage()
  try {
    await page.goto(`http://127.0.0.1:${port}/`)
    return await page.evaluate(
      () =>
        new Promise<KernelSpeeds>((done, fail) => {
          const worker = new Worker('/kernel-worker.js', { type: 'module' })
          worker.onmessage = ({ data }) => done(data as KernelSpeeds)
          worker.onerror = (e) => fail(new Error(`The worker in Chromium did not start: ${e.message || 'not loaded'}`))
        }),
    )
  } finally {
    await page.close()
    server.close()
  }
}

/** ffmpeg's time for many repeats with the filter, less the time for the same repeats without it. */
function ffmpegMegapixels(scratch: string, frame: Frame, table: LutTable): number {
  mkdirSync(scratch, { recursive: true })
  const picture = join(scratch, 'bench.rgb')
  const cube = join(scratch, 'bench.cube')
  const repeats = rounds(40, 4)
  writeFileSync(picture, Buffer.from(frame.data.buffer))
  writeFileSync(cube, printCube(table))
  const run = (filter: string): number => {
    const start = performance.now()
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-nostdin',
      '-filter_threads',
      '1',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgb48le',
      '-s',
      `${frame.width}x${frame.height}`,
      '-i',
      picture,
      '-vf',
      `loop=${repeats - 1}:1${filter}`,
      '-threads',
      '1',
      '-f',
      'null',
      '-',
    ])
    return performance.now() - start
  }
  const ms = run(`,lut3d=file=${cube}:interp=tetrahedral`) - run('')
  return (frame.width * frame.height * repeats) / 1e6 / (ms / 1000)
}

/** Ten steps: two of each hand control. */
export function tenSteps(): GradeDocument {
  let g = setParameter(defaultGrade('log-420-95', 'w766'), 'white-balance', 'temperatureMired', 9)
  g = setParameter(setParameter(g, 'contrast', 'contrast', 1.15), 'saturation', 'saturation', 1.1)
  g = setParameter(setParameter(g, 'exposure', 'exposureStops', 0.4), 'tone-curve', 'points', [
    { x: 0.07, y: 0.07 },
    { x: 0.35, y: 0.33 },
    { x: 0.55, y: 0.57 },
    { x: 0.87, y: 0.86 },
  ])
  const again = g.steps.filter((s) => s.kind !== 'lut').map((s) => ({ ...s, id: `${s.id}-2` }))
  return setShow({ ...g, steps: [...g.steps, ...again] }, { method: 'rolloff', gamutMethod: 'compress' })
}

/** Time to compile again after one slider moved. */
export function measureRebuild(): string[] {
  const table = benchTable()
  const span = { low: -0.25, high: 1.25 }
  const withLut = setStep(setParameter(tenSteps(), 'lut', 'lutHash', 'a'.repeat(64)), 'lut', { strength: 0.7 })
  return (
    [
      ['ten steps', tenSteps()],
      ['ten steps and a LUT of 33 per axis', withLut],
    ] as const
  ).map(([name, grade]) => {
    const cache: PlanCache = new Map()
    let n = 0
    const times = timed(
      rounds(40, 2),
      () => void compile(setParameter(grade, 'exposure', 'exposureStops', ++n / 100), () => table, span, 33, cache),
    )
    return `${name}: median ${median(times).toFixed(1)} ms, 95th percentile ${quantile(times, 0.95).toFixed(1)} ms`
  })
}

/**
 * Ours and ffmpeg's four filters in turn, on the same picture. ffmpeg gets 10 bits: fewer than we count, more than a
 * screen shows.
 */
export function measureScopes(scratch: string): string[] {
  const frame = testFrame(960, 540)
  const repeats = rounds(12, 2)
  const ours: number[] = []
  const theirs: number[] = []
  mkdirSync(scratch, { recursive: true })
  const picture = join(scratch, 'scopes.yuv')
  writeFileSync(picture, planes10(frame))
  const maps = ['a', 'b', 'c', 'd']
  const outputs = (suffix: string): string[] => maps.flatMap((m) => ['-map', `[${m}${suffix}]`, '-f', 'null', '-'])
  const run = (filters: string, suffix: string): number => {
    const start = performance.now()
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-nostdin',
      '-filter_threads',
      '1',
      '-filter_complex_threads',
      '1',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'yuv444p10le',
      '-s',
      '960x540',
      '-i',
      picture,
      '-filter_complex',
      `loop=${repeats - 1}:1,split=4[a][b][c][d]${filters}`,
      ...outputs(suffix),
    ])
    return performance.now() - start
  }
  for (let round = 0; round < turns; round++) {
    ours.push(
      median(
        timed(
          rounds(30, 2),
          () => void countScopes(frame, lumaWeights('bt709'), { columns: 240, levels: 180, vectorCells: 180 }),
        ),
      ),
    )
    theirs.push(
      (run(
        ';[a]waveform=components=1[a2];[b]waveform=components=7:display=parade[b2]' +
          ';[c]vectorscope=mode=color[c2];[d]histogram[d2]',
        '2',
      ) -
        run('', '')) /
        repeats,
    )
  }
  const ratio = median(theirs.map((t, i) => t / ours[i]!))
  return [
    `${median(ours).toFixed(1)} ms, least ${Math.min(...ours).toFixed(1)} ms (bound 8); ffmpeg's ` +
      `waveform, parade, vectorscope and histogram at 10 bits ${median(theirs).toFixed(1)} ms: ` +
      `${ratio.toFixed(1)} times as long (aim 6)`,
  ]
}

/** A frame as planes of Y, Cb, Cr of 10 bits in full range (BT.709). */
function planes10({ width, height, data }: Frame): Buffer {
  const w = lumaWeights('bt709')
  const pixels = width * height
  const out = new Uint16Array(pixels * 3)
  for (let p = 0, i = 0; p < pixels; p++, i += 3) {
    const r = data[i]! / 65535
    const g = data[i + 1]! / 65535
    const b = data[i + 2]! / 65535
    const luma = w.red * r + w.green * g + w.blue * b
    out[p] = Math.round(luma * 1023)
    out[pixels + p] = Math.round(((b - luma) / w.cbDivisor) * 1023 + 512)
    out[2 * pixels + p] = Math.round(((r - luma) / w.crDivisor) * 1023 + 512)
  }
  return Buffer.from(out.buffer)
}
