// The import job: finished uploads, or files in the media folder, through the checks and onto the reel.
import { rm } from 'node:fs/promises'
import { extname, join } from 'node:path'
import { checked, NewImport } from '@contracts/index'
import type { ServerContext } from '../context'
import { findWork } from '../db/work'
import { importFile, importPictures } from '../services/import'
import { libraryPictures, libraryPath } from '../services/media-folder'
import { relink } from '../services/relink'
import { runWork } from './work'

const defaultRate = { numerator: 24, denominator: 1 }

export async function importFiles(context: ServerContext, id: string): Promise<void> {
  let paths: readonly string[] = []
  const ended = await runWork(context, id, async ({ projectId, name, payload, actor }, { progress, end }) => {
    const wanted = checked(NewImport, payload)
    if (projectId === null) return
    const { order } = wanted
    const to = { name, projectId, actor, end, ...(order === undefined ? {} : { order }) }
    if (wanted.path !== undefined) {
      const path = await libraryPath(context.mediaFolder, wanted.path)
      if (wanted.again !== undefined) return relink(context, wanted.again, { path, name }, progress, end)
      if (!wanted.pictures) await importFile(context, { path, linked: true }, to, progress)
      else
        await importPictures(
          context,
          { ...(await libraryPictures(context.mediaFolder, path)), linked: true, rate: wanted.rate ?? defaultRate },
          to,
          progress,
        )
      return
    }
    paths = (wanted.uploads ?? []).map((upload) => join(context.store.uploadsFolder, upload))
    const [only] = paths
    if (!wanted.pictures && only !== undefined) await importFile(context, { path: only, linked: false }, to, progress)
    else
      await importPictures(
        context,
        { paths, linked: false, extension: extname(name).slice(1).toLowerCase(), rate: wanted.rate ?? defaultRate },
        to,
        progress,
      )
  })
  // Uploads stay until nobody will ask for them again: their shot is there, they are no good, or they were given up.
  const over = ended === 'stopped' ? (await findWork(context.pool, id))?.state === 'cancelled' : ended !== 'broken'
  if (over)
    for (const path of paths) await Promise.all([rm(path, { force: true }), rm(`${path}.json`, { force: true })])
}
