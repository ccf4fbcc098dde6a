// A second thread for the Bench's worker: works on the rows it is given.
import { workTile, type TileAnswer, type TileJob } from './tile'

const scope = self as unknown as { onmessage: ((e: MessageEvent<TileJob>) => void) | null; postMessage: (m: TileAnswer, transfer: Transferable[]) => void }

scope.onmessage = ({ data: { id, ...job } }) => {
  const counts = workTile(job)
  scope.postMessage({ id, counts }, counts ? [counts.waveform, counts.red, counts.green, counts.blue, counts.vector, counts.luma].map((trace) => trace.buffer) : [])
}
