// One program at a time owns a folder: its mark stands in a file there, and whoever comes while it runs is refused.
import { linkSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { dirname } from 'node:path'
import { isRunning, ownMark } from './process-mark'

export interface FolderLock {
  readonly release: () => void
}

/** The process that holds a lock, when it still runs and is not this one. */
export function holderOf(file: string): number | undefined {
  const mark = markIn(file)
  return mark !== undefined && mark !== ownMark && isRunning(mark) ? Number(mark.split('-')[0]) : undefined
}

/** Takes the lock, also from a process that is gone. Undefined when another running process has it. */
export function takeLock(file: string): FolderLock | undefined {
  mkdirSync(dirname(file), { recursive: true })
  // Written whole elsewhere and linked to its place, so that nobody ever reads half of it.
  const written = `${file}.${ownMark}`
  writeFileSync(written, ownMark)
  try {
    for (let tries = 0; tries < 5; tries++) {
      try {
        linkSync(written, file)
        return { release: () => releaseLock(file) }
      } catch (error) {
        if ((error as { code?: string }).code !== 'EEXIST') throw error
      }
      const mark = markIn(file)
      if (mark === ownMark) return { release: () => releaseLock(file) }
      if (mark !== undefined && isRunning(mark)) return undefined
      rmSync(file, { force: true })
    }
    return undefined
  } finally {
    rmSync(written, { force: true })
  }
}

function releaseLock(file: string): void {
  if (markIn(file) === ownMark) rmSync(file, { force: true })
}

function markIn(file: string): string | undefined {
  try {
    return readFileSync(file, 'utf8').trim()
  } catch {
    return undefined
  }
}
