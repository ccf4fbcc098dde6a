// A second thread for the Bench's worker: works on the rows it is given.
import { workTile, type TileAnswer, type TileJob, type Work } from './tile'

/** A job as it is sent: without its work when that is the same as before. */
export type SentJob = Omit<TileJob, 'work'> & { readonly work: Work | null }

const scope = self as unknown as {
  onmessage: ((e: MessageEvent<SentJob>) => void) | null
  postMessage: (m: TileAnswer, transfer: Transferable[]) => void
}

/** The last work that was sent: tables are large, and most pictures go through the same. */
let kept: Work = { kind: 'asShot' }

scope.onmessage = ({ data: { id, work, ...job } }) => {
  kept = work ?? kept
  const counts = workTile({ ...job, work: kept })
  // The counts themselves lie in shared memory.
  scope.postMessage(
    { id, counts },
    counts
      ? [counts.end, counts.tap, counts.part].flatMap((c) =>
          c?.chromaticity ? [c.chromaticity.buffer as ArrayBuffer] : [],
        )
      : [],
  )
}
