// What nobody uses any more goes: removed projects after some days, media without shots, files without rows, and what
// can be made again once it takes too much room.
import { lstat, readdir, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import type { ServerContext } from '../context'
import { forgetProxy } from '../db/media'
import { deleteRemoved, deleteRemovedLuts, deleteUnusedMedia, knownMedia, knownRenders } from '../db/removal'
import { packedBeside } from '../store/store'

const dayMs = 24 * 3600 * 1000
/** What can be made again may take so much room, in bytes. */
export const roomFor = { thumbnails: 1024 ** 3, proxies: 64 * 1024 ** 3 } as const

/** Names in a folder that have been there for a while: what is being made has no row yet. */
async function oldNames(folder: string, days: number): Promise<readonly string[]> {
  const old: string[] = []
  for (const name of await readdir(folder)) {
    const info = await lstat(join(folder, name)).catch(() => undefined)
    if (info && Date.now() - info.mtimeMs >= days * dayMs) old.push(name)
  }
  return old
}

interface Kept {
  readonly name: string
  readonly bytes: number
  readonly usedMs: number
}

/** The files that were not used for longest, until the rest fits. */
export function leastUsed(files: readonly Kept[], room: number): readonly string[] {
  let total = files.reduce((sum, file) => sum + file.bytes, 0)
  const over: string[] = []
  for (const file of [...files].sort((a, b) => a.usedMs - b.usedMs)) {
    if (total <= room) break
    total -= file.bytes
    over.push(file.name)
  }
  return over
}

async function filesIn(folder: string): Promise<readonly Kept[]> {
  const files: Kept[] = []
  for (const name of await readdir(folder)) {
    const info = await stat(join(folder, name)).catch(() => undefined)
    if (info?.isFile()) files.push({ name, bytes: info.size, usedMs: Math.max(info.atimeMs, info.mtimeMs) })
  }
  return files
}

const stem = (name: string): string => name.split('.')[0] ?? ''

/** Goes through all of it once. What is removed can be brought back for `days`, and what is unused stays as long. */
export async function collect({ pool, store, log }: ServerContext, days: number): Promise<void> {
  const projects = await deleteRemoved(pool, 'projects', days)
  await deleteRemoved(pool, 'renders', days)
  const luts = await deleteRemovedLuts(pool, days)
  const media = await deleteUnusedMedia(pool, days)
  const remove = async (folder: string, names: readonly string[]): Promise<number> => {
    for (const name of names) await rm(join(folder, name), { force: true, recursive: true })
    return names.length
  }
  let files = 0
  for (const place of luts.map(store.lutPath)) await Promise.all([place, packedBeside(place)].map(store.discard))
  for (const folder of [store.folders.media, store.folders.proxies]) {
    const old = await oldNames(folder, days)
    const known = await knownMedia(pool, old.map(stem))
    files += await remove(
      folder,
      old.filter((name) => !known.has(stem(name))),
    )
  }
  const renders = (await oldNames(store.folders.renders, days)).filter((name) => /^[0-9a-f-]{36}\.mp4$/.test(name))
  const known = await knownRenders(pool, renders.map(stem))
  files += await remove(
    store.folders.renders,
    renders.filter((name) => !known.has(stem(name))),
  )
  files += await remove(
    store.folders.thumbnails,
    leastUsed(await filesIn(store.folders.thumbnails), roomFor.thumbnails),
  )
  for (const name of leastUsed(await filesIn(store.folders.proxies), roomFor.proxies)) {
    await forgetProxy(pool, stem(name))
    files += await remove(store.folders.proxies, [name])
  }
  if (projects + media.length + luts.length + files > 0)
    log.info({ projects, media: media.length, luts: luts.length, files }, 'collected')
}
