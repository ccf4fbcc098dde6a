// Teaches the guess: makes examples from made-up scenes, fits the model, and writes core/guess/model.json.
//   node dist/node/teach-guess.js [scenes]
import { execFile } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { availableParallelism, tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { candidatesFor, featureNames } from '@core/guess'
import { examples, taken } from './dataset'
import { fitModel, fitTemperature, scoresBy, type ExampleSet } from './model'
import { madeUpScene } from './scenes'

/**
 * How much less sure answers are made than made-up scenes would allow: real clips are compressed, which spoils the
 * noise that tells slopes apart, and on the demo clips themselves the fitted confidence was too high.
 */
const caution = 1.15

const [first, ...rest] = process.argv.slice(2)
if (first === 'examples') {
  // One share of the examples, in a process of its own: for each the index of the right candidate, then its features.
  const [from = 0, to = 0] = rest.map(Number)
  const file = rest[2]
  const numbers: number[][] = []
  for (const { right, rows } of examples(
    madeUpScene,
    Array.from({ length: to - from }, (_, i) => from + i),
  ))
    numbers.push([right, ...rows.flatMap((r) => [...r])])
  if (file) writeFileSync(file, new Uint8Array(Float32Array.from(numbers.flat()).buffer))
} else if (first === 'from') {
  // From examples that were made before, to try another model on them.
  teachFrom(rest)
} else {
  await teach(Number(first ?? 240))
}

async function teach(scenes: number): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'pale-teach-'))
  try {
    const shares = availableParallelism()
    const per = Math.ceil(scenes / shares)
    const files = await Promise.all(
      Array.from({ length: shares }, async (_, n) => {
        const file = join(folder, `${n}.f32`)
        await promisify(execFile)(process.execPath, [
          process.argv[1] ?? '',
          'examples',
          String(1 + n * per),
          String(1 + (n + 1) * per),
          file,
        ])
        return file
      }),
    )
    teachFrom(files)
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

function teachFrom(files: readonly string[]): void {
  const set = setOf(files)
  // Every eighth scene is kept back to judge confidence by, never to fit.
  const all = [...set.right.keys()]
  const heldBack = (i: number): boolean => Math.floor(i / taken.length) % 8 === 7
  const ofNoise = featureNames.flatMap((name, i) => (/^(noise|grain|growth|told)/.test(name) ? [i] : []))
  const model = fitModel(
    set,
    all.filter((i) => !heldBack(i)),
    ofNoise,
  )
  const kept = all.filter(heldBack)
  const { temperature: fitted, loss } = fitTemperature(model, set, kept)
  const temperature = Number((fitted * caution).toFixed(2))
  writeFileSync(
    'core/guess/model.json',
    `${JSON.stringify({
      about:
        `Taught by tests/guess/teach.ts on ${all.length} takes of ${all.length / taken.length} made-up ` + 'scenes.',
      features: featureNames,
      temperature,
      ...model,
    })}\n`,
  )
  const right = kept.filter((i) => {
    const s = scoresBy(model, set, i)
    return s.indexOf(Math.max(...s)) === set.right[i]
  }).length
  console.log(
    `core/guess/model.json: ${all.length} examples, temperature ${temperature.toFixed(2)} (fitted ` +
      `${fitted.toFixed(2)}); of those kept back ${((100 * right) / kept.length).toFixed(1)} % exact, ` +
      `cross-entropy ${loss.toFixed(3)}`,
  )
}

function setOf(files: readonly string[]): ExampleSet {
  const features = featureNames.length
  const candidates = candidatesFor('full').length
  const each = 1 + features * candidates
  const parts = files.map((file) => {
    const bytes = readFileSync(file)
    return new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4)
  })
  const count = parts.reduce((n, p) => n + p.length / each, 0)
  const rows = new Float32Array(count * features * candidates)
  const right = new Uint16Array(count)
  let at = 0
  for (const part of parts)
    for (let from = 0; from < part.length; from += each, at++) {
      right[at] = part[from]!
      rows.set(part.subarray(from + 1, from + each), at * features * candidates)
    }
  return { features, candidates, rows, right }
}
