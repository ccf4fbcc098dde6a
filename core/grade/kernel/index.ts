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
  gain(pixels: number, count: number, data: number): void
  relative(pixels: number, count: number, table: number): void
  lattice(pixels: number, count: number, nodes: number, size: number, scratch: number): void
  keep(pixels: number, before: number, count: number): void
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
const matteAt = beforeAt + chunkPixels * 16
const decodeAt = matteAt + chunkPixels * 4
const scratchAt = decodeAt + 65536 * 4
const canvasAt = scratchAt + 64
const stagesAt = canvasAt + chunkPixels * 4

interface Kernel extends StartedKernel<StageCode> {
  loadedDecode: Float32Array | null
  loaded: Passes | null
  /** Where each stage's data lies, pass by pass. */
  addresses: readonly (readonly number[])[]
}

function start(): Kernel | null {
  const started = startKernel<StageCode>(wasm, stagesAt)
  return started && { ...started, loadedDecode: null, loaded: null, addresses: [] }
}

const nothing = new Float32Array(0)
function dataOf(stage: Stage): Float32Array {
  switch (stage.kind) {
    case 'matrix': return stage.columns
    case 'curve': case 'relative': return stage.table
    case 'gain': return stage.data
    case 'lattice': return stage.lattice.nodes
    case 'neighbourhood': return nothing
  }
}

function load(k: Kernel, plan: Passes): void {
  const total = plan.passes.reduce((sum, { stages }) => sum + stages.reduce((s, stage) => s + aligned(dataOf(stage).byteLength), 0), stagesAt + 16)
  reserve(k.memory, total)
  const { buffer } = k.memory
  if (k.loadedDecode !== plan.decode) new Float32Array(buffer, decodeAt, 65536).set(plan.decode)
  let at = stagesAt
  k.addresses = plan.passes.map(({ stages }) => stages.map((stage) => {
    const data = dataOf(stage), address = at
    new Float32Array(buffer, address, data.length).set(data)
    at += aligned(data.byteLength)
    return address
  }))
  k.loadedDecode = plan.decode
  k.loaded = plan
}

const aligned = (bytes: number): number => (bytes + 15) & ~15

let kernel: Kernel | null | undefined

/**
 * Runs all passes on RGB triples of 16-bit codes, at most `chunkPixels` of them. `mattes[n]` is pass n's matte for these
 * pixels, null where it has none. Agrees with runPlain to a code or two of 16 bits, as both count in single precision.
 * `canvas` takes the result as packed canvas pixels as well.
 */
export function runChunk(plan: Passes, source: Uint16Array, target: Uint16Array, mattes: readonly (Float32Array | null)[], canvas?: Uint32Array): void {
  if (kernel === undefined) kernel = start()
  if (!kernel) {
    runPlain(plan, source, target, mattes)
    if (canvas) packSignal(target, canvas)
    return
  }
  if (kernel.loaded !== plan) load(kernel, plan)
  const { code, addresses, memory: { buffer } } = kernel
  const count = source.length / 3
  new Uint16Array(buffer, sourceAt, source.length).set(source)
  code.decode(sourceAt, pixelsAt, count, decodeAt)
  for (let n = 0; n < plan.passes.length; n++) {
    const matte = mattes[n], { stages } = plan.passes[n]!, at = addresses[n]!
    if (!matte) {
      for (let s = 0; s < stages.length; s++) runStage(code, stages[s]!, at[s]!, pixelsAt, count)
      continue
    }
    // Only what the region holds is worked on: most of a row often lies outside.
    const held = new Float32Array(buffer, matteAt, (count + 3) & ~3)
    held.fill(0, count)
    held.set(matte)
    for (let from = code.nextHeld(matteAt, 0, count); from < count; ) {
      const to = code.runEnd(matteAt, from, count, shortestGap), pixels = pixelsAt + from * 16
      code.keep(pixels, beforeAt, to - from)
      for (let s = 0; s < stages.length; s++) runStage(code, stages[s]!, at[s]!, pixels, to - from)
      code.mix(pixels, beforeAt, matteAt + from * 4, to - from)
      from = code.nextHeld(matteAt, to, count)
    }
  }
  code.encode(pixelsAt, count, targetAt)
  target.set(new Uint16Array(buffer, targetAt, source.length))
  if (!canvas) return
  code.show(pixelsAt, count, canvasAt)
  canvas.set(new Uint32Array(buffer, canvasAt, count))
}

/** Gaps shorter than this are not worth another run. */
const shortestGap = 64

function runStage(code: StageCode, stage: Stage, at: number, pixels: number, count: number): void {
  switch (stage.kind) {
    case 'matrix': return code.matrix(pixels, count, at)
    case 'curve': return code.curve(pixels, count, at, stage.table.length > tableEntries ? tableEntries * 4 : 0)
    case 'gain': return code.gain(pixels, count, at)
    case 'relative': return code.relative(pixels, count, at)
    case 'lattice': return code.lattice(pixels, count, at, stage.lattice.size, scratchAt)
    case 'neighbourhood': throw new RangeError('A stage that looks at neighbours is not run on a chunk of pixels.')
  }
}

/** Runs a pass's stages `from` up to `to` on RGBA floats in place, at most `chunkPixels` of them; none may look at neighbours. */
export function runStages(plan: Passes, pass: number, from: number, to: number, pixels: Float32Array): void {
  if (kernel === undefined) kernel = start()
  const stages = plan.passes[pass]!.stages
  if (!kernel) {
    for (let s = from; s < to; s++) runPlainStage(stages[s]!, pixels)
    return
  }
  if (kernel.loaded !== plan) load(kernel, plan)
  const { code, addresses, memory: { buffer } } = kernel
  new Float32Array(buffer, pixelsAt, pixels.length).set(pixels)
  for (let s = from; s < to; s++) runStage(code, stages[s]!, addresses[pass]![s]!, pixelsAt, pixels.length / 4)
  pixels.set(new Float32Array(buffer, pixelsAt, pixels.length))
}

/** 16-bit codes to packed canvas pixels (ABGR, as little-endian memory holds RGBA), rounded to nearest. */
export function packSignal(signal: Uint16Array, canvas: Uint32Array): void {
  for (let o = 0, i = 0; o < canvas.length; o++, i += 3) {
    const red = (signal[i]! * 255 + 32768) >>> 16, green = (signal[i + 1]! * 255 + 32768) >>> 16, blue = (signal[i + 2]! * 255 + 32768) >>> 16
    canvas[o] = (0xff000000 | (blue << 16) | (green << 8) | red) >>> 0
  }
}
