// Where files lie: named by the hash of their content in a data folder. The one place that knows paths.
import { createHash, randomUUID } from 'node:crypto'
import { constants, createWriteStream } from 'node:fs'
import { chmod, copyFile, link, lstat, mkdir, open, readdir, rename, rm, stat, symlink } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream } from 'node:stream/web'
import { Problem } from '../problem'
import { isRunning, ownMark } from './process-mark'

export interface Received {
  readonly path: string
  readonly hash: string
  readonly sizeBytes: number
}

export interface Store {
  readonly mediaPath: (hash: string) => string
  readonly lutPath: (hash: string) => string
  readonly renderPath: (id: string) => string
  readonly thumbnailPath: (key: string) => string
  readonly proxyPath: (hash: string) => string
  /** Where what can be collected lies. */
  readonly folders: Readonly<Record<'media' | 'renders' | 'thumbnails' | 'proxies', string>>
  /** Where uploads wait, in parts, until they are imported. */
  readonly uploadsFolder: string
  /** A fresh path on the same disk for something not yet finished. */
  readonly temporaryPath: () => string
  /** A fresh path on the same disk that a media program writes to; these lie in folders that it may write in. */
  readonly outputPath: () => string
  /** Writes a body to a temporary file, hashing it on the way. Removes it again when anything fails. */
  readonly receive: (body: ReadableStream<Uint8Array>, maxBytes: number, name: string) => Promise<Received>
  /** Moves a finished temporary file or folder to its place. An equal one that is there already stays. */
  readonly keep: (temporary: string, place: string) => Promise<void>
  /** Moves what a media program wrote to its place, once it is known for a plain file, and makes it this account's. */
  readonly keepOutput: (output: string, place: string) => Promise<void>
  /** Gives a file a second place, on disk before this returns; the first stays until it is discarded. */
  readonly keepAlso: (original: string, place: string) => Promise<void>
  /** Puts a link at `place` to a file or folder that stays where it is. */
  readonly keepLink: (original: string, place: string) => Promise<void>
  readonly isKept: (place: string) => Promise<boolean>
  readonly discard: (path: string) => Promise<void>
  readonly sizeOf: (path: string) => Promise<number | undefined>
}

/** Where a kept LUT lies in this program's own bytes. */
export const packedBeside = (lutPath: string): string => `${lutPath}.packed`

const hashPattern = /^[0-9a-f]{64}$/
const uuidPattern = /^[0-9a-f-]{36}$/

function named(folder: string, name: string, pattern: RegExp, suffix: string): string {
  if (!pattern.test(name)) throw new RangeError('That is not the name of a stored file.')
  return join(folder, name + suffix)
}

const codeOf = (error: unknown): string => String((error as { code?: unknown } | null)?.code ?? '')
const isThere = (error: unknown): boolean => /^(ENOTEMPTY|EEXIST)$/.test(codeOf(error))

/** Waits until a file or the names in a folder are on the disk itself. */
async function onDisk(path: string): Promise<void> {
  const file = await open(path, 'r')
  try {
    await file.sync()
  } finally {
    await file.close()
  }
}

/** What is not finished lies in a folder of its process; what belongs to no running one is left over. */
async function ownFolder(parent: string): Promise<string> {
  for (const left of await readdir(parent))
    if (!isRunning(left)) await rm(join(parent, left), { force: true, recursive: true })
  const own = join(parent, ownMark)
  await mkdir(own, { recursive: true })
  return own
}

/** Opens the store in a data folder; leftovers of interrupted work are removed. */
export async function openStore(dataFolder: string): Promise<Store> {
  const folder = (name: string): string => join(dataFolder, name)
  await mkdir(folder('library'), { recursive: true })
  for (const name of ['media', 'luts', 'renders', 'thumbnails', 'proxies', 'uploads', 'incoming', 'outputs']) {
    await mkdir(folder(name), { recursive: true })
    // Other accounts of the machine have no business in it, whatever it was made with.
    await chmod(folder(name), 0o700)
  }
  const [incoming, outputs] = [await ownFolder(folder('incoming')), await ownFolder(folder('outputs'))]
  const temporaryPath = (): string => join(incoming, randomUUID())
  const discard = (path: string): Promise<void> => rm(path, { force: true, recursive: true })
  return {
    mediaPath: (hash) => named(folder('media'), hash, hashPattern, ''),
    lutPath: (hash) => named(folder('luts'), hash, hashPattern, '.cube'),
    renderPath: (id) => named(folder('renders'), id, uuidPattern, '.mp4'),
    thumbnailPath: (key) => named(folder('thumbnails'), key, hashPattern, '.png'),
    proxyPath: (hash) => named(folder('proxies'), hash, hashPattern, '.mp4'),
    folders: {
      media: folder('media'),
      renders: folder('renders'),
      thumbnails: folder('thumbnails'),
      proxies: folder('proxies'),
    },
    uploadsFolder: folder('uploads'),
    temporaryPath,
    outputPath: () => join(outputs, randomUUID()),
    discard,
    keepLink: async (original, place) => {
      const link = temporaryPath()
      await symlink(original, link)
      await rename(link, place)
    },
    isKept: async (place) =>
      (await lstat(place).catch(() => undefined)) !== undefined &&
      (await stat(place).catch(() => undefined)) !== undefined,
    keep: async (temporary, place) => {
      try {
        await rename(temporary, place)
      } catch (error) {
        // A folder does not take the place of one that is there; its name says that it holds the same.
        if (!isThere(error)) throw error
        await discard(temporary)
      }
    },
    keepOutput: async (output, place) => {
      // A program that was led astray by its file could leave a link there, to any file of this account.
      const file = await open(output, constants.O_RDONLY | constants.O_NOFOLLOW | constants.O_NONBLOCK)
      try {
        const found = await file.stat()
        if (!found.isFile() || found.nlink !== 1) throw new Error('A media program left something else than a file.')
        if (process.getuid?.() === 0) await file.chown(0, 0)
        await file.chmod(0o600)
        await file.sync()
      } finally {
        await file.close()
      }
      await rename(output, place)
    },
    keepAlso: async (original, place) => {
      const copy = temporaryPath()
      try {
        await link(original, copy)
      } catch (error) {
        if (!/^(EXDEV|EPERM|ENOTSUP|EMLINK)$/.test(codeOf(error))) throw error
        await copyFile(original, copy)
      }
      await onDisk(copy)
      await rename(copy, place)
      // Two names of one file: a rename onto the other does nothing.
      await discard(copy)
      await onDisk(dirname(place))
    },
    sizeOf: async (path) => (await stat(path).catch(() => undefined))?.size,
    receive: async (body, maxBytes, name) => {
      const path = temporaryPath()
      const hash = createHash('sha256')
      let sizeBytes = 0
      const counted = new Transform({
        transform(chunk: Buffer, _, done) {
          sizeBytes += chunk.length
          if (sizeBytes > maxBytes)
            return done(new Problem(413, 'too_large', `"${name}" is larger than ${Math.floor(maxBytes / 1048576)} MB.`))
          hash.update(chunk)
          done(null, chunk)
        },
      })
      try {
        await pipeline(Readable.fromWeb(body), counted, createWriteStream(path, { flags: 'wx' }))
        if (sizeBytes === 0) throw new Problem(422, 'empty_file', `"${name}" is empty.`)
        return { path, hash: hash.digest('hex'), sizeBytes }
      } catch (error) {
        await discard(path)
        throw error
      }
    },
  }
}
