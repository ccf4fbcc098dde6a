import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { applyFast } from '.'
import { compile } from '../compile'
import { defaultGrade } from '../defaults'
import { setParameter } from '../edits'
import { applyLattice } from '../lattice'

const grade = setParameter(setParameter(defaultGrade('log-351-128'), 'contrast', 'contrast', 1.4), 'saturation', 'saturation', 1.3)
const lattices = ([17, 33, 65] as const).map((size) => compile(grade, () => undefined, { low: -0.25, high: 1.25 }, size).passes[0]!.lattice)

/** Codes that visit every tetrahedron, both ends of the range, and more pixels than one chunk holds. */
function codes(pixels: number): Uint16Array {
  let seed = 77
  return Uint16Array.from({ length: pixels * 3 }, (_, i) => {
    seed = (Math.imul(seed, 1103515245) + 12345) >>> 0
    return i < 30 ? [0, 65535][(i >> (i % 3)) & 1]! : seed >>> 16
  })
}

test.each([0, 1, 2])('the fast kernel agrees with the plain one to four codes of 16 bits (lattice %p)', (n) => {
  const source = codes(70_001), plain = new Uint16Array(source.length), fast = new Uint16Array(source.length)
  applyLattice(lattices[n]!, source, plain)
  applyFast(lattices[n]!, source, fast)
  const steep = plain.filter((v, i) => Math.abs(v - fast[i]!) > 4 && v > 600)
  expect(steep).toHaveLength(0)
  // Below one percent the display's curve is so steep that one entry of the table is many codes of it.
  expect(plain.reduce((worst, v, i) => Math.max(worst, Math.abs(v - fast[i]!)), 0)).toBeLessThan(200)
})

test('source and target may be the same, and lattices may change between calls', () => {
  const source = codes(500)
  for (const lattice of [lattices[1]!, lattices[0]!, lattices[2]!, lattices[1]!]) {
    const apart = new Uint16Array(source.length), same = source.slice()
    applyFast(lattice, source, apart)
    applyFast(lattice, same, same)
    expect(same).toEqual(apart)
  }
})

test('the binary is what the source compiles to', () => {
  const folder = mkdtempSync(join(tmpdir(), 'pale-kernel-'))
  try {
    const fresh = join(folder, 'fresh.ts')
    execFileSync(process.execPath, ['core/grade/kernel/build.js', fresh])
    expect(readFileSync(fresh, 'utf8')).toBe(readFileSync('core/grade/kernel/lattice-wasm.ts', 'utf8'))
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
})
