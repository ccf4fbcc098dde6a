// Room on the disk: looked at before something large is accepted, so that it is refused at its beginning.
import { statfs } from 'node:fs/promises'
import { Problem } from '../problem'

/** So much is never given away: the database must be able to write. */
export const reserveBytes = 1024 ** 3

const gigabytes = (bytes: number): string => `${(bytes / 1e9).toFixed(1)} GB`

/** Throws a Problem (507) when so many bytes would leave less than the reserve. */
export async function requireSpace(folder: string, bytes: number, free = freeBytes): Promise<void> {
  const room = (await free(folder)) - reserveBytes
  if (bytes <= room) return
  throw new Problem(
    507,
    'disk_full',
    `This needs ${gigabytes(bytes)}, and the disk has room for ${gigabytes(Math.max(0, room))}.`,
    {
      hint: 'Free some space, or link the file in the media folder instead of copying it.',
    },
  )
}

async function freeBytes(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder)
  return bavail * bsize
}
