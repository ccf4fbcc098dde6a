// Readings' findings of single frames through a grade, measured once and kept: a reel and a sheet ask for the same ones
// again and again.
import { LRUCache } from 'lru-cache'
import PQueue from 'p-queue'
import type { GradeDocument } from '@core/grade'
import type { Finding, Pointed } from '@core/readings'
import type { FrameWorkers } from '../workers/pool'
import type { FrameReader } from './frames'

export interface MeasuredShot {
  readonly hash: string
  readonly frame: number
  readonly bitDepth: number
  readonly grade: GradeDocument
  readonly pointed: Pointed
}
export type FindingsReader = (shot: MeasuredShot) => Promise<readonly Finding[]>

const kept = 5000
/** As the Bench measures. */
const size = { maxWidth: 960, maxHeight: 540 } as const

export function findingsReader(frames: FrameReader, workers: FrameWorkers): FindingsReader {
  const findings = new LRUCache<string, Promise<readonly Finding[]>>({ max: kept })
  // A reel asks for those of all its shots: they wait here, and leave a thread and the decoders to whoever looks.
  const line = new PQueue({ concurrency: Math.max(1, workers.threads - 1) })
  return ({ hash, frame, bitDepth, grade, pointed }) => {
    const key = JSON.stringify([hash, frame, grade, pointed])
    const known = findings.get(key)
    if (known) return known
    const measured = line.add(async () => {
      const task = await frames.gradeTask(hash, frame, grade, undefined, { byItself: true })
      return workers.findings({ ...task, sourceBits: bitDepth, pointed, ...size })
    })
    findings.set(key, measured)
    measured.catch(() => findings.delete(key))
    return measured
  }
}
