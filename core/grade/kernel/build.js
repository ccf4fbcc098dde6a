// Compiles stages.as.ts and writes the binary, as text, into stages-wasm.ts (or to the path given).
import { readFileSync, writeFileSync } from 'node:fs'
import asc from 'assemblyscript/asc'

const target = process.argv[2] ?? 'core/grade/kernel/stages-wasm.ts'
const { error, binary, stderr } = await asc.compileString({ 'stages.ts': readFileSync('core/grade/kernel/stages.as.ts', 'utf8') }, {
  optimizeLevel: 3, shrinkLevel: 0, noAssert: true, runtime: 'stub', importMemory: true, initialMemory: 1, enable: ['simd'],
})
if (error || !binary) {
  console.error(String(stderr))
  process.exit(1)
}
const text = Buffer.from(binary).toString('base64').replace(/(.{120})/g, "$1' +\n  '")
writeFileSync(target, `// Made by bin/build-kernel from stages.as.ts: WebAssembly as base64. Do not edit.\nexport const stagesWasm =\n  '${text}'\n`)
