// LUT files of any kind that is read, from the shell.
import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { FormatError, parseLutFile } from '@core/formats'
import type { Lut } from '@core/luts'
import { UsageError } from './usage'

export interface ReadLutFile {
  readonly format: string
  readonly lut: Lut
  /** Sentences about what of the file was left out of account. */
  readonly notes: readonly string[]
  /** SHA-256 of its bytes: how grades refer to it. */
  readonly hash: string
}

/** Throws UsageError when there is no such file. */
export const bytesOf = (path: string): Promise<Buffer> =>
  readFile(path).catch(() => {
    throw new UsageError(`"${path}" cannot be read.`)
  })

/** Throws UsageError with the file's name, the line and the reason. */
export async function readLutFile(path: string): Promise<ReadLutFile> {
  const content = await bytesOf(path)
  try {
    const read = parseLutFile(content, (bytes) => Buffer.from(bytes).toString('utf8'))
    return { ...read, hash: createHash('sha256').update(content).digest('hex') }
  } catch (error) {
    if (error instanceof FormatError) throw new UsageError(`"${path}": ${error.message}`)
    throw error
  }
}
