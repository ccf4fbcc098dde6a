// The hash of a file, on a thread of its own, so that nobody waits while a large file is read.
import { createHash } from 'node:crypto'
import { closeSync, openSync, readSync } from 'node:fs'
import { setTimeout as rest } from 'node:timers/promises'

/** What the thread and whoever waits share: mebibytes read so far, and whether it is to stop. */
const readSoFar = 0
const toStop = 1

export interface HashTask {
  readonly path: string
  readonly shared: SharedArrayBuffer
}

/** So much is read at once: it stays in the cache until it is hashed. */
const chunkBytes = 1024 * 1024

/** SHA-256 of a file in hexadecimal; undefined when it was stopped. Runs on a worker thread of its own: it blocks. */
export function hashOf({ path, shared }: HashTask): string | undefined {
  const told = new Int32Array(shared)
  const hash = createHash('sha256')
  const chunk = Buffer.allocUnsafe(chunkBytes)
  const file = openSync(path, 'r')
  try {
    for (let bytes = 0; ;) {
      const read = readSync(file, chunk, 0, chunkBytes, null)
      if (read === 0) return hash.digest('hex')
      hash.update(read === chunkBytes ? chunk : chunk.subarray(0, read))
      bytes += read
      Atomics.store(told, readSoFar, Math.round(bytes / 1048576))
      if (Atomics.load(told, toStop) === 1) return undefined
    }
  } finally {
    closeSync(file)
  }
}

const tellEveryMs = 250

/** Waits for a hash and tells how far it has come, in mebibytes; `onRead` may stop it by answering false. */
export async function hashAndTell(
  start: (task: HashTask) => Promise<string | undefined>,
  path: string,
  onRead: (mebibytes: number) => Promise<boolean>,
): Promise<string | undefined> {
  const shared = new SharedArrayBuffer(8)
  const told = new Int32Array(shared)
  let done = false
  const hash = start({ path, shared }).finally(() => {
    done = true
  })
  const telling = (async () => {
    while (!done) {
      await Promise.race([rest(tellEveryMs), hash.catch(() => undefined)])
      if (!(await onRead(Atomics.load(told, readSoFar)))) Atomics.store(told, toStop, 1)
    }
  })()
  const [answer] = await Promise.all([hash, telling])
  return Atomics.load(told, toStop) === 1 ? undefined : answer
}
