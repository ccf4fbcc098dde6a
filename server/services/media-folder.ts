// The server's media folder: files that lie there can be linked without copying. Paths never leave it.
import { readdir, realpath, stat } from 'node:fs/promises'
import { extname, join, relative, resolve, sep } from 'node:path'
import type { FolderEntry } from '@contracts/index'
import { Problem } from '../problem'

const pictureExtensions = new Set(['png', 'tif', 'tiff', 'dpx', 'exr', 'jpg', 'jpeg'])
const mostEntries = 2000

const absent = (path: string): Problem =>
  new Problem(404, 'not_found', `There is nothing at "${path}" in the media folder.`)

/** The real place of a path below the folder, links followed. Throws a Problem when it is not there or lies outside. */
export async function libraryPath(folder: string, path: string): Promise<string> {
  if (path.includes('\0')) throw absent(path)
  const root = await realpath(folder).catch(() => {
    throw new Problem(404, 'not_found', 'There is no media folder on this server.', { hint: 'Set PALE_MEDIA to one.' })
  })
  const place = await realpath(resolve(root, `.${sep}${path}`)).catch(() => {
    throw absent(path)
  })
  if (place !== root && !place.startsWith(root + sep)) throw absent(path)
  return place
}

/**
 * What lies in a folder of the library. A folder that holds little else than numbered pictures is offered as a
 * sequence.
 */
export async function listLibrary(folder: string, path: string): Promise<readonly FolderEntry[]> {
  const root = await realpath(folder).catch(() => folder)
  const place = await libraryPath(folder, path)
  const entries: FolderEntry[] = []
  for (const entry of (await readdir(place, { withFileTypes: true })).slice(0, mostEntries)) {
    if (entry.name.startsWith('.')) continue
    const full = join(place, entry.name)
    const info = await stat(full).catch(() => undefined)
    if (!info || (!info.isFile() && !info.isDirectory())) continue
    const folderKind = async (): Promise<'pictures' | 'folder'> => ((await holdsPictures(full)) ? 'pictures' : 'folder')
    const kind = info.isFile() ? 'file' : await folderKind()
    entries.push({ name: entry.name, path: relative(root, full), kind, sizeBytes: info.isFile() ? info.size : 0 })
  }
  return entries.sort(
    (a, b) =>
      Number(a.kind === 'file') - Number(b.kind === 'file') || a.name.localeCompare(b.name, 'en', { numeric: true }),
  )
}

async function holdsPictures(folder: string): Promise<boolean> {
  const names = await readdir(folder).catch(() => [])
  return numberedPictures(names).length >= 2
}

interface Numbered {
  readonly name: string
  readonly number: number
  readonly stem: string
  readonly extension: string
}

/** The largest set of names that differ only in their number, in its order. */
function numberedPictures(names: readonly string[]): readonly Numbered[] {
  const sets = new Map<string, Numbered[]>()
  for (const name of names) {
    const extension = extname(name).slice(1).toLowerCase()
    const match = /^(.*?)(?<!\d)(\d+)$/.exec(name.slice(0, -extname(name).length))
    if (!match || !pictureExtensions.has(extension)) continue
    const key = `${match[1]}.${extension}`
    sets.set(key, [...(sets.get(key) ?? []), { name, number: Number(match[2]), stem: match[1] ?? '', extension }])
  }
  const largest = [...sets.values()].sort((a, b) => b.length - a.length)[0] ?? []
  return largest.sort((a, b) => a.number - b.number)
}

/**
 * The pictures of a folder below `library`, in order. Throws a Problem when there are none, when some are missing
 * between, and when one is a link that leads out of the library or to no file.
 */
export async function libraryPictures(
  library: string,
  folder: string,
): Promise<{ readonly paths: readonly string[]; readonly extension: string }> {
  const pictures = numberedPictures(await readdir(folder))
  const first = pictures[0]
  if (!first) throw new Problem(422, 'no_pictures', 'The folder holds no numbered pictures.')
  let before = first
  for (const picture of pictures.slice(1)) {
    if (picture.number !== before.number + 1)
      throw new Problem(
        422,
        'missing_pictures',
        `Picture ${before.number + 1} is missing: ${before.name} is followed by ${picture.name}.`,
        { hint: 'Copy the missing pictures, or import the parts on their own.' },
      )
    before = picture
  }
  const root = await realpath(library)
  const paths = await Promise.all(
    pictures.map(async ({ name }) => {
      const place = await realpath(join(folder, name)).catch(() => '')
      const isFile = place.startsWith(root + sep) && (await stat(place)).isFile()
      if (!isFile)
        throw new Problem(422, 'not_a_file', `"${name}" is no file of the media folder.`, {
          hint: 'Put the picture itself there instead of a link.',
        })
      return place
    }),
  )
  return { paths, extension: first.extension }
}
