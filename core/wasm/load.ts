// Starting a WebAssembly kernel that is shipped as text, where the platform has WebAssembly with SIMD.

// What is used of WebAssembly; the core is compiled without the types of a browser or of Node.js.
declare const WebAssembly: {
  readonly Module: new (bytes: Uint8Array) => object
  readonly Instance: new (module: object, imports: object) => { readonly exports: object }
  readonly Memory: new (size: { initial: number }) => KernelMemory
}
export interface KernelMemory {
  readonly buffer: ArrayBuffer
  grow(pages: number): number
}
export interface StartedKernel<Code> {
  readonly memory: KernelMemory
  readonly code: Code
}

const pageBytes = 65536

/**
 * An instance with at least `bytes` of memory; null where there is no WebAssembly with SIMD, so that the plain code
 * runs.
 */
export function startKernel<Code>(base64: string, bytes: number): StartedKernel<Code> | null {
  try {
    const memory = new WebAssembly.Memory({ initial: Math.ceil(bytes / pageBytes) + 1 })
    const instance = new WebAssembly.Instance(new WebAssembly.Module(bytesOf(base64)), { env: { memory } })
    return { memory, code: instance.exports as Code }
  } catch {
    return null
  }
}

/** Makes the memory at least `bytes` large. Views on its buffer must be taken anew afterwards. */
export function reserve(memory: KernelMemory, bytes: number): void {
  const missing = bytes - memory.buffer.byteLength
  if (missing > 0) memory.grow(Math.ceil(missing / pageBytes))
}

const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'

/** Base64 (RFC 4648, clause 4) to bytes; the core has no platform to ask. */
function bytesOf(base64: string): Uint8Array {
  const digits = base64.replaceAll('=', '')
  const bytes = new Uint8Array(Math.floor((digits.length * 3) / 4))
  let bits = 0
  let bitCount = 0
  let at = 0
  for (const digit of digits) {
    bits = ((bits << 6) | alphabet.indexOf(digit)) & 0xffffff
    bitCount += 6
    if (bitCount < 8) continue
    bitCount -= 8
    bytes[at++] = (bits >> bitCount) & 255
  }
  return bytes
}
