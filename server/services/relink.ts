// A linked original that was moved: the same file from another place takes its place again. It must be the same.
import { mkdir, symlink } from 'node:fs/promises'
import { join } from 'node:path'
import { pictureName } from '@media/decode'
import type { ServerContext } from '../context'
import { findMedia, keepSeal } from '../db/media'
import { transaction, type Queryable } from '../db/pool'
import { notFound, Problem } from '../problem'
import type { Report } from './import'
import { libraryPictures } from './media-folder'
import { hashOfPictures, sealOf } from './originals'

interface Found {
  /** A file, or a folder of numbered pictures. */
  readonly path: string
  readonly name: string
}

/** Throws a Problem when it is another file. `end` ends the work with the change. */
export async function relink(
  context: ServerContext,
  hash: string,
  { path, name }: Found,
  report: Report,
  end: (db: Queryable) => Promise<boolean>,
): Promise<void> {
  const { pool, store, workers } = context
  const media = await findMedia(pool, hash)
  if (!media) throw notFound('clip')
  const { facts } = media
  const pictures = facts.kind === 'pictures' ? await libraryPictures(context.mediaFolder, path) : undefined
  const read = (file: string): Promise<string | undefined> =>
    workers.hashFile(file, (done) => report('reading', done, Math.round(media.sizeBytes / 1048576)))
  const found = pictures
    ? await hashOfPictures(pictures.paths, { numerator: facts.rateNumerator, denominator: facts.rateDenominator }, read)
    : await read(path)
  if (found === undefined) return
  if (found !== hash)
    throw new Problem(409, 'another_file', `"${name}" is not the file that this clip was made from.`, {
      hint: 'Link the file that it was made from, or import this one as a clip of its own.',
    })
  const place = store.mediaPath(hash)
  if (pictures) {
    const folder = store.temporaryPath()
    await mkdir(folder)
    for (const [i, file] of pictures.paths.entries())
      await symlink(file, join(folder, pictureName(i, pictures.extension)))
    await store.discard(place)
    await store.keep(folder, place)
  } else await store.keepLink(path, place)
  const seal = await sealOf(place)
  await transaction(pool, async (db) => {
    if (seal && (await end(db))) await keepSeal(db, hash, seal)
  })
}
