// Room for what is stored: looked at before something large is accepted, so that it is refused at its beginning. A part
// of the disk is never given away, and the program may be told how much it may keep at all.
import { lstat, readdir, rm, statfs, writeFile } from 'node:fs/promises'
import { randomFillSync } from 'node:crypto'
import { join } from 'node:path'
import { Problem } from '../problem'

/** So much is never given away: the database must be able to write. */
export const reserveBytes = 1024 ** 3
/** A file of this size is kept, and given up once the disk is full: what frees room needs a little of it. */
const ballastBytes = 32 * 1024 ** 2
/** How much is kept is counted anew after so long. */
const countedMs = 5000

export interface Space {
  /** Throws a Problem (507) when so many bytes would leave less than the reserve, or be over the quota. */
  readonly require: (bytes: number) => Promise<void>
  /** The disk is full: gives up the ballast, so that something can be removed. */
  readonly giveUpBallast: () => Promise<void>
  /** Lays the ballast down again where there is room. */
  readonly keepBallast: () => Promise<void>
}

const gigabytes = (bytes: number): string => `${(Math.max(0, bytes) / 1e9).toFixed(1)} GB`

/** @param quotaBytes the most that the data folder may hold; null for all that the disk has */
export function openSpace(dataFolder: string, quotaBytes: number | null, free = freeBytes): Space {
  const ballast = join(dataFolder, 'ballast')
  let counted: { readonly at: number; readonly bytes: Promise<number> } | null = null
  const kept = (): Promise<number> => {
    if (!counted || Date.now() - counted.at > countedMs) counted = { at: Date.now(), bytes: bytesIn(dataFolder) }
    return counted.bytes
  }
  return {
    require: async (bytes) => {
      const room = (await free(dataFolder)) - reserveBytes
      if (bytes > room)
        throw new Problem(
          507,
          'disk_full',
          `This needs ${gigabytes(bytes)}, and the disk has room for ${gigabytes(room)}.`,
          { hint: 'Free some space, or link the file in the media folder instead of copying it.' },
        )
      if (quotaBytes === null) return
      const allowed = quotaBytes - (await kept())
      if (bytes > allowed)
        throw new Problem(
          507,
          'quota',
          `This needs ${gigabytes(bytes)}; of the ${gigabytes(quotaBytes)} that may be kept, ` +
            `${gigabytes(allowed)} are left.`,
          { hint: 'Remove projects or renders, link files instead of copying them, or set PALE_QUOTA_GB higher.' },
        )
    },
    giveUpBallast: () => rm(ballast, { force: true }),
    keepBallast: async () => {
      const there = await lstat(ballast).catch(() => undefined)
      if (there?.size === ballastBytes || (await free(dataFolder)) < reserveBytes) return
      // Nothing that a file system could keep in less.
      await writeFile(ballast, randomFillSync(Buffer.allocUnsafe(ballastBytes)))
    },
  }
}

/** What a folder and all below it hold; links count as themselves. */
async function bytesIn(folder: string): Promise<number> {
  let bytes = 0
  for (const entry of await readdir(folder, { withFileTypes: true }).catch(() => [])) {
    const path = join(folder, entry.name)
    bytes += entry.isDirectory() ? await bytesIn(path) : ((await lstat(path).catch(() => undefined))?.size ?? 0)
  }
  return bytes
}

async function freeBytes(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder)
  return bavail * bsize
}
