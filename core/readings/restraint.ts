// Restraint: how far the look has moved the picture from the corrected one.
import { differenceMeasure } from '../colour'
import { buildChain, evaluateDirect, positionsIn, stationOf, type Chain } from '../grade'
import { sampleSignal } from '../image'
import type { MeasuredPicture } from './picture'
import type { Finding } from './reading'

const lookStations: ReadonlySet<string> = new Set(['regions', 'look', 'finish'])

/**
 * Mean colour difference and ratio of mean chroma between the picture with and without what stands in Regions, Look and
 * Finish.
 */
export function measureRestraint({
  source,
  grade,
  lut,
  chain,
}: Pick<MeasuredPicture, 'source' | 'grade' | 'lut' | 'chain'>): {
  readonly difference: number
  readonly measure: string
  readonly chromaRatio: number
} {
  const { name, place, difference } = differenceMeasure(chain.displayId)
  const steps = grade.steps.filter((s) => !lookStations.has(stationOf(s)))
  if (steps.length === grade.steps.length) return { difference: 0, measure: name, chromaRatio: 1 }
  const stride = Math.max(1, Math.floor((source.width * source.height) / 4000)) | 1
  const through = (c: Chain): Float64Array => {
    const pixels = sampleSignal(source, stride)
    evaluateDirect(c, pixels, positionsIn(c, source, stride))
    return pixels
  }
  const graded = through(chain)
  const corrected = through(buildChain({ ...grade, steps }, lut))
  let moved = 0
  let chromaAfter = 0
  let chromaBefore = 0
  for (let i = 0; i < graded.length; i += 3) {
    const a = place(corrected[i], corrected[i + 1], corrected[i + 2])
    const b = place(graded[i], graded[i + 1], graded[i + 2])
    moved += difference(a, b)
    chromaBefore += Math.hypot(a[1], a[2])
    chromaAfter += Math.hypot(b[1], b[2])
  }
  return {
    difference: moved / (graded.length / 3),
    measure: name,
    chromaRatio: chromaBefore > 1e-9 ? chromaAfter / chromaBefore : 1,
  }
}

export function restraintFindings(picture: MeasuredPicture): readonly Finding[] {
  const { difference, measure, chromaRatio } = measureRestraint(picture)
  return [
    {
      id: 'restraint',
      value: difference,
      confidence: 1,
      detail: difference > 0 ? `Mean ${measure}; chroma ×${chromaRatio.toFixed(2)}.` : 'No look yet.',
    },
  ]
}
