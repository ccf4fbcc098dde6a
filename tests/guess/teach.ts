// Teaches the guess: makes examples from made-up scenes and from real photographs through real codecs, fits the model,
// and writes core/guess/model.json.
//   node dist/node/teach-guess.js [folder for the examples]
// Examples that lie in the folder are used again.
import { execFile } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { availableParallelism, tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { candidatesFor, featureNames } from '@core/guess'
import { exampleOf, examples, type Example } from './dataset'
import { fitModel, fitTemperature, mark, scoresBy, type ExampleSet } from './model'
import { guessTeachingPhotographs } from './photographs'
import { randomRealTake, recorded, recordedLogs, type Content, type RealTake } from './real-takes'
import { madeUpScene, randomSource } from './scenes'

/** How much less sure answers are made than what was kept back would allow: the world holds more than was taught. */
const caution = 1.1
/** Photographs that a first model is not taught with. */
const heldBack = [
  'home',
  'aloeL',
  'baboon',
  'LadyBird',
  'Dune',
  'Wood',
  'EveningGlow',
  'Path',
  'ColdRipple',
  'coffee',
  'rocket',
  'china',
] as const
const sceneCount = 60
/** Many photographs teach more than many takes of few. */
const takesPerPhotograph = 48
/** Takes of one view of a photograph. */
const takesPerView = 6

/** Every candidate has a place of its own in the rows, whether a file can hold it or not. */
const places = candidatesFor('full').map(({ encoding, range }) => `${encoding.id} ${range === 'full'}`)
const numbersOf = ({ candidates, rows, right }: Example, flagged: string): Float32Array => {
  const out = new Float32Array(places.length * (1 + featureNames.length))
  candidates.forEach((candidate, i) => {
    const place = places.indexOf(`${candidate.encoding.id} ${candidate.range === flagged}`)
    out[place * (1 + featureNames.length)] = right(candidate) ? mark.right : mark.wrong
    out.set(rows[i]!, place * (1 + featureNames.length) + 1)
  })
  return out
}

/** What a clip of a person's may hold, as often as it is taught. */
function contentOf(random: () => number): Content {
  const draw = random()
  if (draw < 0.28) return 'finished'
  if (draw < 0.34) return 'flat-gamma'
  if (draw < 0.42) return 'unknown flat'
  if (draw < 0.47) return 'hlg'
  if (draw < 0.52) return 'pq'
  return recordedLogs[Math.floor(random() * recordedLogs.length)]!
}

const displayAnswers = new Set(['bt709-camera', 'srgb', 'gamma-2.2', 'gamma-2.4'])
function isRight({ content, recording }: RealTake): Example['right'] {
  return ({ encoding, range }) => {
    if (range !== recording.range) return false
    if (content === 'finished') return displayAnswers.has(encoding.id)
    return encoding.id === (content === 'unknown flat' ? 'flat-gamma' : content)
  }
}

async function realExamples(photo: string, file: string): Promise<void> {
  const parts: Float32Array[] = []
  for (let n = 0; n < takesPerPhotograph; n++) {
    const seed = n * 131 + guessTeachingPhotographs.indexOf(photo) * 100_003 + 1
    const view = Math.floor(n / takesPerView)
    const take = randomRealTake(photo, contentOf(randomSource(seed + 5)), seed, view, {
      wrongFlag: 0.15,
      tagged: false,
    })
    const { sights, flagged, file: facts } = await recorded(take)
    parts.push(numbersOf(exampleOf(sights, flagged, facts, isRight(take)), flagged))
  }
  keep(file, parts)
}

function madeExamples(from: number, file: string): void {
  const seeds = Array.from({ length: sceneCount / 4 }, (_, i) => from + i)
  keep(
    file,
    [...examples(madeUpScene, seeds)].map((example) => numbersOf(example, example.candidates[0]!.range)),
  )
}

function keep(file: string, parts: readonly Float32Array[]): void {
  const all = Buffer.concat(parts.map((p) => Buffer.from(p.buffer, p.byteOffset, p.byteLength)))
  writeFileSync(`${file}.part`, all)
  renameSync(`${file}.part`, file)
}

const [first, ...rest] = process.argv.slice(2)
if (first === 'photograph') await realExamples(rest[0]!, rest[1]!)
else if (first === 'scenes') madeExamples(Number(rest[0]), rest[1]!)
else await teach(first ?? mkdtempSync(join(tmpdir(), 'pale-teach-')))

async function teach(folder: string): Promise<void> {
  mkdirSync(folder, { recursive: true })
  const tasks = [
    ...guessTeachingPhotographs.map((photo) => ({
      args: ['photograph', photo],
      file: join(folder, `${photo.replaceAll('/', ' ')}.f32`),
    })),
    ...[0, 1, 2, 3].map((n) => ({
      args: ['scenes', String(1 + (n * sceneCount) / 4)],
      file: join(folder, `scenes ${n}.f32`),
    })),
  ]
  const waiting = [...tasks]
  await Promise.all(
    Array.from({ length: availableParallelism() }, async () => {
      for (let task = waiting.shift(); task; task = waiting.shift()) {
        if (existsSync(task.file)) continue
        await promisify(execFile)(process.execPath, [process.argv[1] ?? '', ...task.args, task.file])
        console.log(`${task.args.join(' ')}: made, ${waiting.length} to go`)
      }
    }),
  )
  teachFrom(tasks.map((t) => t.file))
}

/**
 * How sure answers may be is found on photographs that a first model was not taught with: of those it was taught with
 * it is surer than it is right. The model itself is then taught on all.
 */
function teachFrom(files: readonly string[]): void {
  const { set, fileOf } = setOf(files)
  const count = set.marks.length / set.candidates
  const all = Array.from({ length: count }, (_, i) => i)
  const ofNoise = featureNames.flatMap((name, i) => (/^(noise|grain|growth|told)/.test(name) ? [i] : []))
  const isHeldBack = (i: number): boolean => heldBack.some((photo) => files[fileOf[i]!]!.includes(photo))
  const first = fitModel(
    set,
    all.filter((i) => !isHeldBack(i)),
    ofNoise,
  )
  const kept = all.filter(isHeldBack)
  const { temperature: fitted, loss } = fitTemperature(first, set, kept)
  const temperature = Number((fitted * caution).toFixed(2))
  writeFileSync(
    'core/guess/model.json',
    `${JSON.stringify({
      about:
        `Taught by tests/guess/teach.ts on ${count} takes of ${sceneCount} made-up scenes and ` +
        `${guessTeachingPhotographs.length} photographs.`,
      features: featureNames,
      temperature,
      ...fitModel(set, all, ofNoise),
    })}\n`,
  )
  const right = kept.filter((i) => {
    const s = scoresBy(first, set, i)
    return set.marks[i * set.candidates + s.indexOf(Math.max(...s))] === mark.right
  }).length
  console.log(
    `core/guess/model.json: ${count} examples, temperature ${temperature.toFixed(2)} (fitted ` +
      `${fitted.toFixed(2)}); of ${kept.length} of photographs kept back ` +
      `${((100 * right) / kept.length).toFixed(1)} % exact, cross-entropy ${loss.toFixed(3)}`,
  )
}

function setOf(files: readonly string[]): { readonly set: ExampleSet; readonly fileOf: readonly number[] } {
  const features = featureNames.length
  const candidates = places.length
  const each = (1 + features) * candidates
  const parts = files.map((file) => {
    const bytes = readFileSync(file)
    return new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4)
  })
  const count = parts.reduce((n, p) => n + p.length / each, 0)
  const rows = new Float32Array(count * features * candidates)
  const marks = new Uint8Array(count * candidates)
  const fileOf = parts.flatMap((part, n) => new Array<number>(part.length / each).fill(n))
  let at = 0
  for (const part of parts)
    for (let from = 0; from < part.length; from += 1 + features, at++) {
      marks[at] = part[from]!
      rows.set(part.subarray(from + 1, from + 1 + features), at * features)
    }
  return { set: { features, candidates, rows, marks }, fileOf }
}
