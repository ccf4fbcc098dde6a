import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const beside: Readonly<Record<string, string>> = {
  'stages.wasm.ts': 'core/grade/kernel',
  'scopes.wasm.ts': 'core/instruments/kernel',
  'filters.wasm.ts': 'core/image/kernel',
  'yuv.wasm.ts': 'core/image/kernel',
}

test('the binaries are what the sources compile to', () => {
  const folder = mkdtempSync(join(tmpdir(), 'pale-kernels-'))
  try {
    execFileSync(process.execPath, ['core/wasm/build.js', folder])
    expect(readdirSync(folder).sort()).toEqual(Object.keys(beside).sort())
    for (const [name, place] of Object.entries(beside))
      expect(readFileSync(join(folder, name), 'utf8')).toBe(readFileSync(join(place, name), 'utf8'))
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
})
