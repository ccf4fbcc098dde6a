// Compiles every kernel (….as.ts) and writes its binary, as text, beside it (….wasm.ts), or into the folder given.
import { readFileSync, writeFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import asc from 'assemblyscript/asc'

export const kernels = [
  'core/grade/kernel/stages',
  'core/image/kernel/filters',
  'core/image/kernel/yuv',
  'core/instruments/kernel/scopes',
]
const folder = process.argv[2]

for (const kernel of kernels) {
  const { error, binary, stderr } = await asc.compileString(
    { 'kernel.ts': readFileSync(`${kernel}.as.ts`, 'utf8') },
    {
      optimizeLevel: 3,
      shrinkLevel: 0,
      noAssert: true,
      runtime: 'stub',
      importMemory: true,
      initialMemory: 1,
      enable: ['simd'],
    },
  )
  if (error || !binary) {
    console.error(String(stderr))
    process.exit(1)
  }
  const text = Buffer.from(binary)
    .toString('base64')
    .replace(/(.{120})/g, "$1' +\n  '")
  const target = folder ? join(folder, `${basename(kernel)}.wasm.ts`) : `${kernel}.wasm.ts`
  writeFileSync(
    target,
    `// Made by bin/build-kernel from ${basename(kernel)}.as.ts: WebAssembly as base64. Do not ` +
      `edit.\nexport const wasm =\n  '${text}'\n`,
  )
}
