// The kernel that filters planes: WebAssembly with SIMD where it can be had. Without it, null: the plain functions do
// the same.
import { reserve, startKernel, type StartedKernel } from '../../wasm/load'
import type { Plane } from '../filters'
import { wasm } from './filters.wasm'

interface FilterCode {
  meanDown(source: number, target: number, width: number, rows: number, whole: number, part: number, by: number): void
  extremesDown(
    source: number,
    target: number,
    width: number,
    rows: number,
    radius: number,
    most: number,
    ahead: number,
    behind: number,
  ): void
  turn(source: number, target: number, width: number, height: number): void
  product(a: number, b: number, target: number, count: number): void
  slopes(guide: number, values: number, products: number, squares: number, flat: number, count: number): void
  stretch(plane: number, low: number, by: number, count: number): void
  finer(
    coarse: number,
    target: number,
    line: number,
    width: number,
    top: number,
    bottom: number,
    stride: number,
    from: number,
    to: number,
  ): void
  along(slope: number, offset: number, guide: number, count: number): void
}
let kernel: StartedKernel<FilterCode> | null | undefined

const fours = (n: number): number => (n + 3) & ~3
const planeAt = 64

/** Planes in the kernel's memory, their rows padded to whole fours; each has the room of one that is turned over. */
interface Room {
  readonly code: FilterCode
  readonly wide: number
  readonly tall: number
  readonly buffer: ArrayBuffer
  /** The address of the n-th plane. */ readonly at: (n: number) => number
}

function roomFor({ width, height }: Pick<Plane, 'width' | 'height'>, planes: number, spare = 0): Room | null {
  if (kernel === undefined) kernel = startKernel<FilterCode>(wasm, planeAt)
  if (!kernel) return null
  const wide = fours(width)
  const tall = fours(height)
  const bytes = wide * tall * 4
  reserve(kernel.memory, planeAt + planes * bytes + spare)
  return { code: kernel.code, wide, tall, buffer: kernel.memory.buffer, at: (n) => planeAt + n * bytes }
}

function put({ wide, tall, buffer }: Room, at: number, { width, height, values }: Plane): void {
  const into = new Float32Array(buffer, at, wide * tall)
  if (wide === width) into.set(values)
  else for (let y = 0; y < height; y++) into.set(values.subarray(y * width, (y + 1) * width), y * wide)
}

function taken({ wide, buffer }: Room, at: number, { width, height }: Pick<Plane, 'width' | 'height'>): Plane {
  const from = new Float32Array(buffer, at, wide * height)
  if (wide === width) return { width, height, values: from.slice() }
  const values = new Float32Array(width * height)
  for (let y = 0; y < height; y++) values.set(from.subarray(y * wide, y * wide + width), y * width)
  return { width, height, values }
}

/**
 * `times` means over squares of the plane at one address, one behind the other, in place; another plane's room is used.
 */
function meansAt(
  { code, wide, tall }: Room,
  at: number,
  room: number,
  { width, height }: Pick<Plane, 'width' | 'height'>,
  radius: number,
  times: number,
): void {
  down(code, at, room, wide, height, radius, times)
  code.turn(at, room, wide, tall)
  // Now the plane lies in the room, columns as rows.
  down(code, room, at, tall, width, radius, times)
  code.turn(room, at, tall, wide)
}

/** The result lies where the source lay. */
function down(
  code: FilterCode,
  source: number,
  target: number,
  width: number,
  rows: number,
  wanted: number,
  times: number,
): void {
  const radius = Math.min(wanted, rows - 1)
  const whole = Math.floor(radius)
  const part = radius - whole
  const by = 1 / (2 * radius + 1)
  let from = source
  let to = target
  for (let n = 0; n < times; n++) {
    code.meanDown(from, to, width, rows, whole, part, by)
    const last = from
    from = to
    to = last
  }
  // A mean over one row is a copy.
  if (from !== source) code.meanDown(from, source, width, rows, 0, 0, 1)
}

/** `times` means over squares, one behind the other; null without a kernel. */
export function meansByKernel(plane: Plane, radius: number, times: number): Plane | null {
  const room = roomFor(plane, 2)
  if (!room) return null
  put(room, room.at(0), plane)
  meansAt(room, room.at(0), room.at(1), plane, radius, times)
  return taken(room, room.at(0), plane)
}

/** The largest or smallest within squares of a whole radius; null without a kernel. */
export function extremesByKernel(plane: Plane, radius: number, most: boolean): Plane | null {
  const { width, height } = plane
  const longest = Math.max(fours(width), fours(height))
  const scan = (longest + 3 * (2 * radius + 1)) * longest * 4
  const room = roomFor(plane, 2, 2 * scan)
  if (!room) return null
  const { code, wide, tall } = room
  const a = room.at(0)
  const b = room.at(1)
  const ahead = room.at(2)
  const behind = ahead + scan
  put(room, a, plane)
  code.extremesDown(a, b, wide, height, radius, most ? 1 : 0, ahead, behind)
  code.turn(b, a, wide, tall)
  code.extremesDown(a, b, tall, width, radius, most ? 1 : 0, ahead, behind)
  code.turn(b, a, tall, wide)
  return taken(room, a, plane)
}

/**
 * A guide's own means, and those of its square, by the radius they were made with: while a matte is worked on the guide
 * stays.
 */
const guideMeans = new WeakMap<
  Float32Array,
  { readonly radius: number; readonly means: Float32Array; readonly squares: Float32Array }
>()

/** The guided filter of ../filters.ts; null without a kernel. */
export function guidedByKernel(plane: Plane, guide: Plane, radius: number, flat: number): Plane | null {
  const room = roomFor(plane, 6)
  if (!room) return null
  const { code, wide, tall, at, buffer } = room
  const count = wide * tall
  const [p, g, gp, gg, own, spare] = [0, 1, 2, 3, 4, 5].map(at) as [number, number, number, number, number, number]
  const memory = (address: number): Float32Array => new Float32Array(buffer, address, count)
  const known = guideMeans.get(guide.values)
  put(room, p, plane)
  put(room, own, guide)
  code.product(own, p, gp, count)
  if (known?.radius === radius && known.means.length === count) {
    memory(g).set(known.means)
    memory(gg).set(known.squares)
  } else {
    memory(g).set(memory(own))
    code.product(own, own, gg, count)
    for (const each of [g, gg]) meansAt(room, each, spare, plane, radius, 1)
    guideMeans.set(guide.values, { radius, means: memory(g).slice(), squares: memory(gg).slice() })
  }
  for (const each of [p, gp]) meansAt(room, each, spare, plane, radius, 1)
  code.slopes(g, p, gp, gg, flat, count)
  for (const each of [gp, gg]) meansAt(room, each, spare, plane, radius, 1)
  code.along(gp, gg, own, count)
  return taken(room, gp, plane)
}

/** As held in ../filters.ts; null without a kernel. */
export function stretchedByKernel(plane: Plane, low: number, high: number): Plane | null {
  const room = roomFor(plane, 1)
  if (!room) return null
  put(room, room.at(0), plane)
  room.code.stretch(room.at(0), low, 1 / (high - low), room.wide * plane.height)
  return taken(room, room.at(0), plane)
}

/** As finer in ../filters.ts; null without a kernel, and for a fine grid that is not just twice as wide. */
export function finerByKernel(
  { width, height, values }: Plane,
  top: number,
  fineWidth: number,
  from: number,
  to: number,
): Float32Array | null {
  const stride = (fineWidth + 7) & ~7
  const rows = to - from
  const coarse = planeAt
  const coarseBytes = fours(values.length + 4) * 4
  const lineBytes = (fours(width) + 8) * 4
  if (fineWidth !== width * 2) return null
  const room = roomFor({ width: 4, height: 4 }, 1, coarseBytes + lineBytes + stride * rows * 4)
  if (!room) return null
  const { buffer, code } = room
  const line = coarse + coarseBytes
  const target = line + lineBytes
  new Float32Array(buffer, coarse, values.length).set(values)
  code.finer(coarse, target, line, width, top, top + height, stride, from, to)
  return taken({ ...room, wide: stride }, target, { width: fineWidth, height: rows }).values
}
