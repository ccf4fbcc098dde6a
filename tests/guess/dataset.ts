// Takes of scenes through every encoding, turned into feature rows and the index of the right answer.
import {
  candidatesFor,
  featureRows,
  measureFacts,
  measureStatistics,
  type Candidate,
  type FileFacts,
  type Sight,
} from '@core/guess'
import type { CodeRange } from '@core/image'
import { shoot, type Take } from './camera'
import { randomSource, type Light } from './scenes'

export interface Example {
  readonly candidates: readonly Candidate[]
  /** One row of features per candidate. */
  readonly rows: readonly Float64Array[]
  readonly right: (candidate: Candidate) => boolean
}

export const taken = [...new Set(candidatesFor('full').map((c) => c.encoding.id))]

/** Made-up takes are sequences of pictures: nothing has compressed them. */
export const fileOf = ({ bits, flagged }: Pick<Take, 'bits' | 'flagged'>): FileFacts => ({
  kind: 'pictures',
  bitDepth: bits,
  chroma: 'RGB',
  range: flagged,
})

export function randomTake(encodingId: string, random: () => number, wrongFlag: number, troubled: number): Take {
  const range: CodeRange = random() < 0.5 ? 'full' : 'legal'
  const other: CodeRange = range === 'full' ? 'legal' : 'full'
  const flagged: CodeRange = random() < wrongFlag ? other : range
  return {
    encodingId,
    range,
    flagged,
    exposureStops: random() * 3 - 1.5,
    noiseBlack: 0.0003 * 4 ** random(),
    noiseGrey: 0.0015 * 4 ** random(),
    bits:
      ['bt709-camera', 'srgb', 'gamma-2.2', 'gamma-2.4', 'gamma-2.6'].includes(encodingId) && random() < 0.5 ? 8 : 10,
    noiseTrouble: random() < troubled ? random() * 0.6 : 0,
    troublePhase: random() * 6.283,
    troubleRate: random(),
  }
}

export function exampleOf(
  sights: readonly Sight[],
  flagged: CodeRange,
  file: FileFacts | undefined,
  right: Example['right'],
): Example {
  const candidates = candidatesFor(flagged, file)
  const statistics = measureStatistics(sights)
  const facts = candidates.map((c) => measureFacts(c, statistics, flagged))
  return { candidates, rows: featureRows(candidates, facts, statistics, flagged), right }
}

/**
 * One to three framings of each scene by a camera that drifts, three in four as frames that follow each other, through
 * every encoding.
 */
export function* examples(
  scene: (seed: number) => Light,
  seeds: readonly number[],
  wrongFlag = 0.25,
  troubled = 0.2,
): Generator<Example> {
  for (const seed of seeds) {
    const light = scene(seed)
    const random = randomSource(seed * 7919 + 13)
    const places = Array.from({ length: 3 }, () => ({
      x: random(),
      y: random(),
      drift: random() * (random() < 0.5 ? 0.8 : mostDrift),
    }))
    const framings = places.map(({ x, y, drift }) => ({
      now: framed(light, x, y, 0),
      next: framed(light, x, y, drift),
    }))
    for (const id of taken) {
      const take = randomTake(id, random, wrongFlag, troubled)
      const follows = random() < 0.75
      const sights = framings.slice(0, 1 + Math.floor(random() * 3)).map(({ now, next }): Sight => ({
        frame: shoot(now, take, random),
        ...(follows ? { next: shoot(next, take, random) } : {}),
      }))
      yield exampleOf(
        sights,
        take.flagged,
        undefined,
        ({ encoding, range }) => encoding.id === take.encodingId && range === take.range,
      )
    }
  }
}

const framedShare = 0.86
/** Pixels that a camera moves at most from one frame to the next. */
const mostDrift = 4
/**
 * A part of the picture at a place of 0..1, moved to the right by whole and broken pixels as a drifting camera would.
 */
function framed({ width, height, data }: Light, x: number, y: number, drift: number): Light {
  const w = Math.floor(width * framedShare)
  const h = Math.floor(height * framedShare)
  const whole = Math.floor(drift)
  const part = drift - whole
  const left = Math.floor(x * (width - w - 1 - mostDrift)) + whole
  const top = Math.floor(y * (height - h))
  const out = new Float64Array(w * h * 3)
  for (let row = 0; row < h; row++)
    for (let i = 0, from = ((top + row) * width + left) * 3; i < w * 3; i++, from++)
      out[row * w * 3 + i] = data[from]! * (1 - part) + data[from + 3]! * part
  return { width: w, height: h, data: out }
}
