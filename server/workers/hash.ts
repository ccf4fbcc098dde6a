// The hash of a file, on a thread of its own, so that nobody waits while a large file is read.
import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { setTimeout as rest } from 'node:timers/promises'

/** What the thread and whoever waits share: mebibytes read so far, and whether it is to stop. */
const readSoFar = 0
const toStop = 1

export interface HashTask {
  readonly path: string
  readonly shared: SharedArrayBuffer
}

/** SHA-256 of a file in hexadecimal; undefined when it was stopped. Runs on the worker thread. */
export async function hashOf({ path, shared }: HashTask): Promise<string | undefined> {
  const told = new Int32Array(shared)
  const hash = createHash('sha256')
  let bytes = 0
  for await (const chunk of createReadStream(path, { highWaterMark: 4 * 1024 * 1024 }) as AsyncIterable<Buffer>) {
    if (Atomics.load(told, toStop) === 1) return undefined
    hash.update(chunk)
    bytes += chunk.length
    Atomics.store(told, readSoFar, Math.round(bytes / 1048576))
  }
  return hash.digest('hex')
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
