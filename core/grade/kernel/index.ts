// The lattice kernel that runs: WebAssembly with SIMD where it can be had, else the plain one.
import { applyLattice, type Lattice } from '../lattice'
import { latticeWasm } from './lattice-wasm'

// What is used of WebAssembly; the core is compiled without the types of a browser or of Node.js.
declare const WebAssembly: {
  readonly Module: new (bytes: Uint8Array) => object
  readonly Instance: new (module: object, imports: object) => { readonly exports: object }
  readonly Memory: new (size: { initial: number }) => { readonly buffer: ArrayBuffer; grow(pages: number): number }
}

type ApplyPixels = (source: number, target: number, pixels: number, positions: number, nodes: number, size: number, codes: number) => void

// Byte addresses in the kernel's memory: tables, a chunk of pixels in and out, then the nodes.
const chunkPixels = 32768
const positionsAt = 0
const codesAt = positionsAt + 65536 * 4
const sourceAt = codesAt + 65536 * 2
const targetAt = sourceAt + chunkPixels * 6
const nodesAt = targetAt + chunkPixels * 6
const pageBytes = 65536

interface Kernel {
  readonly memory: { readonly buffer: ArrayBuffer; grow(pages: number): number }
  readonly apply: ApplyPixels
  loaded: Lattice | null
}

function startKernel(): Kernel | null {
  try {
    const memory = new WebAssembly.Memory({ initial: Math.ceil(nodesAt / pageBytes) + 10 })
    const instance = new WebAssembly.Instance(new WebAssembly.Module(bytesOf(latticeWasm)), { env: { memory } })
    return { memory, apply: (instance.exports as { apply: ApplyPixels }).apply, loaded: null }
  } catch {
    // No WebAssembly, or none with SIMD: the plain kernel does the same, slower.
    return null
  }
}

const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'

/** Base64 (RFC 4648, clause 4) to bytes; the core has no platform to ask. */
function bytesOf(base64: string): Uint8Array {
  const digits = base64.replace(/=+$/, '')
  const bytes = new Uint8Array(Math.floor((digits.length * 3) / 4))
  let bits = 0, held = 0, at = 0
  for (const digit of digits) {
    bits = ((bits << 6) | alphabet.indexOf(digit)) & 0xffffff
    held += 6
    if (held < 8) continue
    held -= 8
    bytes[at++] = (bits >> held) & 255
  }
  return bytes
}

let kernel: Kernel | null | undefined

function load(k: Kernel, lattice: Lattice): void {
  const needed = nodesAt + lattice.nodes.byteLength - k.memory.buffer.byteLength
  if (needed > 0) k.memory.grow(Math.ceil(needed / pageBytes))
  const { buffer } = k.memory
  new Float32Array(buffer, positionsAt, 65536).set(lattice.positionOfCode)
  new Uint16Array(buffer, codesAt, 65536).set(lattice.codeOfOutput)
  new Float32Array(buffer, nodesAt, lattice.nodes.length).set(lattice.nodes)
  k.loaded = lattice
}

/** As applyLattice, on whole arrays; agrees with it to four codes of 16 bits, as it counts in single precision. `source` and `target` may be the same; `target` may be longer. */
export function applyFast(lattice: Lattice, source: Uint16Array, target: Uint16Array): void {
  kernel ??= startKernel()
  if (!kernel) return applyLattice(lattice, source, target)
  if (kernel.loaded !== lattice) load(kernel, lattice)
  const { buffer } = kernel.memory
  for (let from = 0; from < source.length; from += chunkPixels * 3) {
    const chunk = source.subarray(from, from + chunkPixels * 3)
    new Uint16Array(buffer, sourceAt, chunk.length).set(chunk)
    kernel.apply(sourceAt, targetAt, chunk.length / 3, positionsAt, nodesAt, lattice.size, codesAt)
    target.set(new Uint16Array(buffer, targetAt, chunk.length), from)
  }
}
