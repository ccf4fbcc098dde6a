// The kernel that runs passes on a chunk of pixels: WebAssembly with SIMD where it can be had, else the plain one.
import { tableEntries } from '../curve-table'
import { reserve, startKernel, type StartedKernel } from '../../wasm/load'
import type { Passes, Stage } from '../stage'
import { runPlain, runPlainStage } from './plain'
import { wasm } from './stages.wasm'

export { runPlain }

interface StageCode {
  decode(source: number, pixels: number, count: number, table: number): void
  matrix(pixels: number, count: number, columns: number): void
  curve(pixels: number, count: number, table: number, channelStride: number): void
  curveMixed(pixels: number, matte: number, count: number, table: number, channelStride: number): void
  gain(pixels: number, count: number, data: number): void
  relative(pixels: number, count: number, table: number): void
  lattice(pixels: number, count: number, nodes: number, size: number, scratch: number): void
  keep(pixels: number, before: number, count: number): void
  union(into: number, matte: number, count: number): void
  nextHeld(matte: number, from: number, count: number): number
  runEnd(matte: number, from: number, count: number, gap: number): number
  mix(pixels: number, before: number, matte: number, count: number): void
  encode(pixels: number, count: number, target: number): void
  show(pixels: number, count: number, target: number): void
}

/** Pixels treated at a time: their floats stay in the nearest cache. */
export const chunkPixels = 2048
// Byte addresses in the kernel's memory: a chunk in all its forms, then the decoding table, then the stages of a plan.
const sourceAt = 0
const targetAt = sourceAt + chunkPixels * 8
const pixelsAt = targetAt + chunkPixels * 8
const beforeAt = pixelsAt + chunkPixels * 16
const unionAt = beforeAt + chunkPixels * 16
const decodeAt = unionAt + chunkPixels * 4
const scratchAt = decodeAt + 65536 * 4
const canvasAt = scratchAt + 64
const stagesAt = canvasAt + chunkPixels * 4

interface Kernel extends StartedKernel<StageCode> {
  loadedDecode: Float32Array | null
  loaded: Passes | null
  /** Where each stage's data lies, pass by pass. */
  addresses: readonly (readonly number[])[]
  /** The same for what stands for all passes where no region holds anything. */
  outside: { readonly decode: number; readonly stages: readonly number[] } | null
  /** Where the mattes of all passes begin, a chunk for each. */
  mattesAt: number
}

function start(): Kernel | null {
  const started = startKernel<StageCode>(wasm, stagesAt)
  return started && { ...started, loadedDecode: null, loaded: null, addresses: [], outside: null, mattesAt: 0 }
}

const nothing = new Float32Array(0)
function dataOf(stage: Stage): Float32Array {
  switch (stage.kind) {
    case 'matrix':
      return stage.columns
    case 'curve':
    case 'relative':
      return stage.table
    case 'gain':
      return stage.data
    case 'lattice':
      return stage.lattice.nodes
    case 'neighbourhood':
      return nothing
  }
}

function load(k: Kernel, plan: Passes): void {
  const { outside } = plan
  const ownDecode = outside && outside.decode !== plan.decode
  const room = (stages: readonly Stage[]): number =>
    stages.reduce((sum, stage) => sum + aligned(dataOf(stage).byteLength), 0)
  const total = plan.passes.reduce(
    (sum, { stages }) => sum + room(stages),
    outside ? room(outside.stages) + (ownDecode ? outside.decode.byteLength : 0) : 0,
  )
  reserve(k.memory, stagesAt + total + plan.passes.length * chunkPixels * 4 + 16)
  const { buffer } = k.memory
  if (k.loadedDecode !== plan.decode) new Float32Array(buffer, decodeAt, 65536).set(plan.decode)
  let at = stagesAt
  const put = (data: Float32Array): number => {
    const address = at
    new Float32Array(buffer, address, data.length).set(data)
    at += aligned(data.byteLength)
    return address
  }
  k.addresses = plan.passes.map(({ stages }) => stages.map((stage) => put(dataOf(stage))))
  k.outside = outside
    ? { decode: ownDecode ? put(outside.decode) : decodeAt, stages: outside.stages.map((stage) => put(dataOf(stage))) }
    : null
  k.mattesAt = at
  k.loadedDecode = plan.decode
  k.loaded = plan
}

const aligned = (bytes: number): number => (bytes + 15) & ~15

let kernel: Kernel | null | undefined

/**
 * Runs all passes on RGB triples of 16-bit codes, at most `chunkPixels` of them. `mattes[n]` is pass n's matte for
 * these pixels, null where it has none. Agrees with runPlain to a code or two of 16 bits, as both count in single
 * precision. `canvas` takes the result as packed canvas pixels as well.
 */
export function runChunk(
  plan: Passes,
  source: Uint16Array,
  target: Uint16Array,
  mattes: readonly (Float32Array | null)[],
  canvas?: Uint32Array,
): void {
  if (kernel === undefined) kernel = start()
  if (!kernel) {
    runPlain(plan, source, target, mattes)
    if (canvas) packSignal(target, canvas)
    return
  }
  if (kernel.loaded !== plan) load(kernel, plan)
  const {
    code,
    addresses,
    memory: { buffer },
  } = kernel
  const count = source.length / 3
  new Uint16Array(buffer, sourceAt, source.length).set(source)
  if (mattes.some((matte) => matte)) runRegions(kernel, plan, mattes, count)
  else {
    code.decode(sourceAt, pixelsAt, count, decodeAt)
    plan.passes.forEach(({ stages }, n) => runAll(code, stages, addresses[n], pixelsAt, count))
  }
  code.encode(pixelsAt, count, targetAt)
  target.set(new Uint16Array(buffer, targetAt, source.length))
  if (!canvas) return
  code.show(pixelsAt, count, canvasAt)
  canvas.set(new Uint32Array(buffer, canvasAt, count))
}

/** Gaps shorter than this are not worth another run. */
const shortestGap = 64

/**
 * A chunk with mattes: each pass is run where its region holds something, and where none does what stands for all of
 * them.
 */
function runRegions(
  { code, memory: { buffer }, addresses, outside, mattesAt }: Kernel,
  plan: Passes,
  mattes: readonly (Float32Array | null)[],
  count: number,
): void {
  const matteAt = (n: number): number => mattesAt + n * chunkPixels * 4
  const whole = (count + 3) & ~3
  mattes.forEach((matte, n) => {
    if (!matte) return
    const padded = new Float32Array(buffer, matteAt(n), whole)
    padded.fill(0, count)
    padded.set(matte)
  })
  const inside = (from: number, to: number): void => {
    code.decode(sourceAt + from * 6, pixelsAt + from * 16, to - from, decodeAt)
    plan.passes.forEach(({ stages }, n) =>
      mattes[n]
        ? runHeld(code, stages, addresses[n], matteAt(n), from, to)
        : runAll(code, stages, addresses[n], pixelsAt + from * 16, to - from),
    )
  }
  if (!outside || !plan.outside) return inside(0, count)
  new Float32Array(buffer, unionAt, whole).fill(0)
  mattes.forEach((matte, n) => {
    if (matte) code.union(unionAt, matteAt(n), count)
  })
  for (let at = 0; at < count;) {
    const from = code.nextHeld(unionAt, at, count)
    const to = from < count ? code.runEnd(unionAt, from, count, shortestGap) : count
    if (from > at) {
      code.decode(sourceAt + at * 6, pixelsAt + at * 16, from - at, outside.decode)
      runAll(code, plan.outside.stages, outside.stages, pixelsAt + at * 16, from - at)
    }
    if (to > from) inside(from, to)
    at = to
  }
}

/** Only what the region holds is worked on: most of a row often lies outside. */
function runHeld(
  code: StageCode,
  stages: readonly Stage[],
  at: readonly number[],
  matte: number,
  first: number,
  end: number,
): void {
  const [only] = stages
  const curve = stages.length === 1 && only?.kind === 'curve' ? only : null
  for (let from = code.nextHeld(matte, first, end); from < end;) {
    const to = code.runEnd(matte, from, end, shortestGap)
    const pixels = pixelsAt + from * 16
    if (curve) code.curveMixed(pixels, matte + from * 4, to - from, at[0], channelStride(curve.table))
    else {
      code.keep(pixels, beforeAt, to - from)
      runAll(code, stages, at, pixels, to - from)
      code.mix(pixels, beforeAt, matte + from * 4, to - from)
    }
    from = code.nextHeld(matte, to, end)
  }
}

const channelStride = (table: Float32Array): number => (table.length > tableEntries ? tableEntries * 4 : 0)

function runAll(code: StageCode, stages: readonly Stage[], at: readonly number[], pixels: number, count: number): void {
  for (let s = 0; s < stages.length; s++) runStage(code, stages[s], at[s], pixels, count)
}

function runStage(code: StageCode, stage: Stage, at: number, pixels: number, count: number): void {
  switch (stage.kind) {
    case 'matrix':
      return code.matrix(pixels, count, at)
    case 'curve':
      return code.curve(pixels, count, at, channelStride(stage.table))
    case 'gain':
      return code.gain(pixels, count, at)
    case 'relative':
      return code.relative(pixels, count, at)
    case 'lattice':
      return code.lattice(pixels, count, at, stage.lattice.size, scratchAt)
    case 'neighbourhood':
      throw new RangeError('A stage that looks at neighbours is not run on a chunk of pixels.')
  }
}

/**
 * Runs a pass's stages `from` up to `to` on RGBA floats in place, at most `chunkPixels` of them; none may look at
 * neighbours.
 */
export function runStages(plan: Passes, pass: number, from: number, to: number, pixels: Float32Array): void {
  if (kernel === undefined) kernel = start()
  const stages = plan.passes[pass].stages
  if (!kernel) {
    for (let s = from; s < to; s++) runPlainStage(stages[s], pixels)
    return
  }
  if (kernel.loaded !== plan) load(kernel, plan)
  const {
    code,
    addresses,
    memory: { buffer },
  } = kernel
  new Float32Array(buffer, pixelsAt, pixels.length).set(pixels)
  for (let s = from; s < to; s++) runStage(code, stages[s], addresses[pass][s], pixelsAt, pixels.length / 4)
  pixels.set(new Float32Array(buffer, pixelsAt, pixels.length))
}

/** 16-bit codes to packed canvas pixels (ABGR, as little-endian memory holds RGBA), rounded to nearest. */
export function packSignal(signal: Uint16Array, canvas: Uint32Array): void {
  for (let o = 0, i = 0; o < canvas.length; o++, i += 3) {
    const red = (signal[i] * 255 + 32768) >>> 16
    const green = (signal[i + 1] * 255 + 32768) >>> 16
    const blue = (signal[i + 2] * 255 + 32768) >>> 16
    canvas[o] = (0xff000000 | (blue << 16) | (green << 8) | red) >>> 0
  }
}
