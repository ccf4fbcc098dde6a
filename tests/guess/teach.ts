// Teaches the guess: makes examples from made-up scenes, fits the model, and writes core/guess/model.json.
//   node dist/node/teach-guess.js [scenes]
import { execFile } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { availableParallelism, tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { featureNames } from '@core/guess'
import { examples, type Example } from './dataset'
import { fitModel, fitTemperature } from './model'
import { madeUpScene } from './scenes'

/**
 * How much less sure answers are made than made-up scenes would allow: real clips are compressed, which spoils the noise that
 * tells slopes apart, and on the demo clips themselves the fitted confidence was too high.
 */
const caution = 1.7

const [first, ...rest] = process.argv.slice(2)
if (first === 'examples') {
  // One share of the examples, in a process of its own.
  const [from = 0, to = 0] = rest.map(Number), file = rest[2]
  const list = [...examples(madeUpScene, Array.from({ length: to - from }, (_, i) => from + i))]
  if (file) writeFileSync(file, JSON.stringify(list.map((e) => [e.right, e.rows.map((r) => [...r].map((v) => Number(v.toFixed(4))))])))
} else {
  await teach(Number(first ?? 90))
}

async function teach(scenes: number): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'pale-teach-'))
  try {
    const shares = availableParallelism(), per = Math.ceil(scenes / shares)
    const files = await Promise.all(Array.from({ length: shares }, async (_, n) => {
      const file = join(folder, `${n}.json`)
      await promisify(execFile)(process.execPath, [process.argv[1] ?? '', 'examples', String(1 + n * per), String(1 + (n + 1) * per), file])
      return file
    }))
    const all = files.flatMap((file) => (JSON.parse(readFileSync(file, 'utf8')) as [number, number[][]][]).map(([right, rows]): Example => ({ right, rows: rows.map((r) => Float64Array.from(r)) })))
    // Every eighth scene is kept back to judge confidence by, never to fit.
    const perScene = Math.round(all.length / (per * shares)), heldBack = (_: Example, i: number): boolean => Math.floor(i / perScene) % 8 === 7
    const model = fitModel(all.filter((e, i) => !heldBack(e, i)), featureNames.length)
    const temperature = Number((fitTemperature(model, all.filter(heldBack)) * caution).toFixed(2))
    writeFileSync('core/guess/model.json', `${JSON.stringify({ about: `Taught by tests/guess/teach.ts on ${all.length} takes of ${per * shares} made-up scenes.`, features: featureNames, temperature, ...model })}\n`)
    console.log(`core/guess/model.json: ${all.length} examples, temperature ${temperature.toFixed(2)}`)
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}
