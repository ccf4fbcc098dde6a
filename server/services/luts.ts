// LUT files on their way in, and what is found in them: read and inspected by the workers, kept by content.
import { cutTo } from '@core/names'
import type { ReadableStream } from 'node:stream/web'
import { lutFileBytes } from '@core/formats'
import type { LutInspection, LutSummary } from '@contracts/index'
import { localActor, type ServerContext } from '../context'
import { findInspection, findLut, insertLut, keepInspection } from '../db/luts'
import { Problem } from '../problem'
import { packedBeside } from '../store/store'

type Context = Pick<ServerContext, 'pool' | 'store' | 'workers' | 'log'>

/** Keeps a LUT file, and packed beside it. Throws Problem with the line and the reason where it cannot be read. */
export async function keepLut(
  { pool, store, workers }: Context,
  body: ReadableStream<Uint8Array>,
  name: string,
  folder: string,
): Promise<LutSummary> {
  const received = await store.receive(body, lutFileBytes, name)
  const packed = store.temporaryPath()
  try {
    const read = await workers.readLutFile({ path: received.path, packedPath: packed })
    if ('fault' in read) throw new Problem(422, 'unreadable_file', read.fault)
    const place = store.lutPath(received.hash)
    await store.keep(packed, packedBeside(place))
    await store.keep(received.path, place)
    const lut = { hash: received.hash, name, folder, ...read, title: cutTo(read.title.replaceAll('\0', ''), 200) }
    await insertLut(pool, lut, localActor)
    return (await findLut(pool, received.hash)) ?? { ...lut, expects: null, removed: false }
  } finally {
    await Promise.all([store.discard(received.path), store.discard(packed)])
  }
}

/** What is found in a kept LUT: once, and then kept. */
export async function inspectionOf({ pool, store, workers }: Context, hash: string): Promise<LutInspection> {
  const kept = await findInspection(pool, hash)
  if (kept) return kept
  const found = await workers.inspectFile({ path: store.lutPath(hash) })
  await keepInspection(pool, hash, found)
  return found
}

/** A function that has LUTs looked at one after the other, behind everything else. */
export function inspectingLater(context: Context): (hash: string) => void {
  let line: Promise<void> = Promise.resolve()
  return (hash) => {
    line = line
      .then(async () => {
        await inspectionOf(context, hash)
      })
      .catch((error: unknown) => context.log.warn({ err: error, lut: hash }, 'A LUT could not be inspected.'))
  }
}
