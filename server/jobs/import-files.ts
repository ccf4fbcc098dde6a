// The import job: finished uploads, or files in the media folder, through the checks and onto the reel.
import { rm } from 'node:fs/promises'
import { extname, join } from 'node:path'
import { checked, NewImport } from '@contracts/index'
import type { ServerContext } from '../context'
import { importFile, importPictures } from '../services/import'
import { libraryPictures, libraryPath } from '../services/media-folder'
import { runWork } from './work'

const defaultRate = { numerator: 24, denominator: 1 }

export function importFiles(context: ServerContext, id: string): Promise<void> {
  return runWork(context, id, async ({ projectId, name, payload, actor }, progress) => {
    const wanted = checked(NewImport, payload)
    if (projectId === null) return
    const to = { name, projectId, actor }
    if (wanted.path !== undefined) {
      const path = await libraryPath(context.mediaFolder, wanted.path)
      if (!wanted.pictures) await importFile(context, { path, linked: true }, to, progress)
      else
        await importPictures(
          context,
          { ...(await libraryPictures(path)), linked: true, rate: wanted.rate ?? defaultRate },
          to,
          progress,
        )
      return
    }
    const uploads = wanted.uploads ?? []
    const paths = uploads.map((upload) => join(context.store.uploadsFolder, upload))
    try {
      const [only] = paths
      if (!wanted.pictures && only !== undefined) await importFile(context, { path: only, linked: false }, to, progress)
      else
        await importPictures(
          context,
          { paths, linked: false, extension: extname(name).slice(1).toLowerCase(), rate: wanted.rate ?? defaultRate },
          to,
          progress,
        )
    } finally {
      for (const path of paths) await Promise.all([rm(path, { force: true }), rm(`${path}.json`, { force: true })])
    }
  })
}
