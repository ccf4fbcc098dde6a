// Takes of scenes through every encoding, turned into feature rows and the index of the right answer.
import { candidatesFor, featureRows, measureFacts, measureStatistics, type Candidate } from '@core/guess'
import type { CodeRange, Frame } from '@core/index'
import { shoot, type Take } from './camera'
import { randomSource, type Light } from './scenes'

export interface Example { readonly rows: readonly Float64Array[]; readonly right: number }

export const taken = [...new Set(candidatesFor('full').map((c) => c.encoding.id))]

export function randomTake(encodingId: string, random: () => number, wrongFlag: number): Take {
  const range: CodeRange = random() < 0.5 ? 'full' : 'legal'
  const flagged: CodeRange = random() < wrongFlag ? (range === 'full' ? 'legal' : 'full') : range
  return {
    encodingId, range, flagged, exposureStops: random() * 3 - 1.5,
    noiseBlack: 0.0003 * 4 ** random(), noiseGrey: 0.0015 * 4 ** random(),
    bits: ['bt709-camera', 'srgb', 'gamma-2.2', 'gamma-2.4', 'gamma-2.6'].includes(encodingId) && random() < 0.5 ? 8 : 10,
    noiseTrouble: random() < 0.5 ? random() * 0.6 : 0,
  }
}

export function exampleOf(frame: Frame, take: Take): Example {
  const candidates: readonly Candidate[] = candidatesFor(take.flagged)
  const statistics = measureStatistics(frame)
  const facts = candidates.map((c) => measureFacts(c, statistics, take.flagged))
  return { rows: featureRows(candidates, facts, statistics, take.flagged), right: candidates.findIndex((c) => c.encoding.id === take.encodingId && c.range === take.range) }
}

export function* examples(scene: (seed: number) => Light, seeds: readonly number[], wrongFlag = 0.25): Generator<Example> {
  for (const seed of seeds) {
    const light = scene(seed), random = randomSource(seed * 7919 + 13)
    for (const id of taken) {
      const take = randomTake(id, random, wrongFlag)
      yield exampleOf(shoot(light, take, random), take)
    }
  }
}
