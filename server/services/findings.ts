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
/** `waitedFor`: somebody sits before an empty page until it is there. Else it goes on by itself, behind all else. */
export type FindingsReader = (shot: MeasuredShot, waitedFor?: boolean) => Promise<readonly Finding[]>

interface Kept {
  readonly measured: Promise<readonly Finding[]>
  /** Far behind until it is done. */
  waits: boolean
}
const kept = 5000
/** As the Bench measures. */
const size = { maxWidth: 960, maxHeight: 540 } as const

export function findingsReader(frames: FrameReader, workers: FrameWorkers): FindingsReader {
  const findings = new LRUCache<string, Kept>({ max: kept })
  // A reel asks for those of all its shots: they wait here, and leave a thread and the decoders to whoever looks.
  const line = new PQueue({ concurrency: Math.max(1, workers.threads - 1) })
  return ({ hash, frame, bitDepth, grade, pointed }, waitedFor = false) => {
    const key = JSON.stringify([hash, frame, grade, pointed])
    const known = findings.get(key)
    if (known && !(known.waits && waitedFor)) return known.measured
    const measure = async (): Promise<readonly Finding[]> => {
      const task = await frames.gradeTask(hash, frame, grade, undefined, { byItself: !waitedFor })
      return workers.findings({ ...task, sourceBits: bitDepth, pointed, ...size }, waitedFor ? 'asked' : 'byItself')
    }
    const measured = waitedFor ? measure() : line.add(measure)
    const made: Kept = { measured, waits: !waitedFor }
    findings.set(key, made)
    measured.then(
      () => {
        made.waits = false
      },
      () => {
        if (findings.peek(key) === made) findings.delete(key)
      },
    )
    return measured
  }
}
