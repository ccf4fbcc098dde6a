// Linked originals lie where others can change them. Before one is used it is looked at: its size, its time and a
// sample of its bytes. Where the time alone is another, the whole is hashed; where it is another file, nobody is shown
// the wrong pictures.
import { createHash } from 'node:crypto'
import { lstat, open, readdir, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { LRUCache } from 'lru-cache'
import { findMedia, keepSeal, type MediaRow } from '../db/media'
import type { Pool } from '../db/pool'
import { Problem } from '../problem'
import type { Store } from '../store/store'
import type { FrameWorkers } from '../workers/pool'

/** How a file, or a folder of pictures, looks from outside. */
export interface Seal {
  /** Hash of every file's size. */
  readonly sizes: string
  /** Hash of every file's time of change. */
  readonly times: string
  /** Hash of bytes from the beginning, the middle and the end. */
  readonly sample: string
}

const sampleBytes = 64 * 1024

async function addSample(path: string, bytes: number, to: ReturnType<typeof createHash>): Promise<void> {
  const file = await open(path, 'r')
  try {
    for (const from of [0, Math.floor(bytes / 2), Math.max(0, bytes - sampleBytes)]) {
      const { buffer, bytesRead } = await file.read(Buffer.alloc(sampleBytes), 0, sampleBytes, from)
      to.update(buffer.subarray(0, bytesRead))
    }
  } finally {
    await file.close()
  }
}

/** The files of a medium: itself, or its pictures in order. */
async function filesOf(place: string): Promise<readonly string[]> {
  if (!(await stat(place)).isDirectory()) return [place]
  return (await readdir(place)).sort().map((name) => join(place, name))
}

/** The seal of what lies at a place, links followed. Undefined when it, or a part of it, is not there. */
export async function sealOf(place: string): Promise<Seal | undefined> {
  const [sizes, times, sample] = [createHash('sha256'), createHash('sha256'), createHash('sha256')]
  try {
    const files = await filesOf(place)
    const sampled = new Set([0, Math.floor(files.length / 2), files.length - 1])
    for (const [i, path] of files.entries()) {
      const { size, mtimeMs } = await stat(path)
      sizes.update(`${size} `)
      times.update(`${mtimeMs} `)
      if (sampled.has(i)) await addSample(path, size, sample)
    }
  } catch (error) {
    const { code } = error as { code?: string }
    if (code === 'ENOENT' || code === 'ENOTDIR' || code === 'ELOOP') return undefined
    throw error
  }
  return { sizes: sizes.digest('hex'), times: times.digest('hex'), sample: sample.digest('hex') }
}

/** Whether a medium of the store is a link, or a folder of links. */
async function isLinked(place: string): Promise<boolean> {
  const info = await lstat(place).catch(() => undefined)
  if (!info?.isDirectory()) return info?.isSymbolicLink() ?? false
  const [first] = await readdir(place)
  return first !== undefined && (await lstat(join(place, first))).isSymbolicLink()
}

/** The hash of numbered pictures as one medium: of their own hashes in order, and the rate. */
export async function hashOfPictures(
  paths: readonly string[],
  rate: { readonly numerator: number; readonly denominator: number },
  hashFile: (path: string, index: number) => Promise<string | undefined>,
): Promise<string | undefined> {
  const hashes = createHash('sha256')
  for (const [i, path] of paths.entries()) {
    const hash = await hashFile(path, i)
    if (hash === undefined) return undefined
    hashes.update(hash)
  }
  return hashes.update(`pictures ${rate.numerator}/${rate.denominator}`).digest('hex')
}

/** Throws a Problem when a linked original is not there, or is another than what was imported. */
export type RequireOriginal = (hash: string) => Promise<void>

/** What was looked at so shortly ago is not looked at again. */
const freshMs = 1000

const away = new Problem(409, 'original_away', 'The linked file of this clip is not where it was.', {
  hint: 'Put it back under its old name, or choose the clip on the Reel and link it from where it is now.',
})
const changed = new Problem(409, 'original_changed', 'The linked file of this clip was replaced by another.', {
  hint: 'Put the old one back; the new one can be imported as a clip of its own.',
})

export function originalsGuard(pool: Pool, store: Store, workers: Pick<FrameWorkers, 'hashFile'>): RequireOriginal {
  const looking = new LRUCache<string, Promise<void>>({ max: 1000, ttl: freshMs })

  async function hashNow({ facts }: MediaRow, place: string): Promise<string | undefined> {
    const whole = (path: string): Promise<string | undefined> => workers.hashFile(path, () => Promise.resolve(true))
    if (facts.kind !== 'pictures') return whole(place)
    const rate = { numerator: facts.rateNumerator, denominator: facts.rateDenominator }
    return hashOfPictures(await filesOf(place), rate, whole)
  }

  async function look(hash: string): Promise<void> {
    const place = store.mediaPath(hash)
    const row = await findMedia(pool, hash)
    if (!row || !(await isLinked(place))) return
    const now = await sealOf(place)
    if (!now) throw away
    const { seal } = row
    if (seal && seal.sizes === now.sizes && seal.sample === now.sample && seal.times === now.times) return
    if (seal && (seal.sizes !== now.sizes || seal.sample !== now.sample)) throw changed
    if ((await hashNow(row, place)) !== hash) throw changed
    await keepSeal(pool, hash, now)
  }

  return (hash) => {
    const known = looking.get(hash)
    if (known) return known
    const begun = look(hash)
    looking.set(hash, begun)
    // A fault is told to all who asked meanwhile, and looked for again by the next.
    begun.catch(() => looking.delete(hash))
    return begun
  }
}
