// Thumbnails of revisions: made once, kept under a name that says all they depend on.
import { createHash } from 'node:crypto'
import { readFile, writeFile } from 'node:fs/promises'
import type { GradeDocument } from '@core/grade'
import type { ServerContext } from '../context'
import type { GradeTask } from '../workers/frame-worker'
import type { ShotRange } from './frames'

const thumbnailSize = { maxWidth: 384, maxHeight: 216 } as const

export interface ThumbnailOf extends ShotRange {
  readonly revisionId: string
  readonly mediaHash: string
  /** The number of the frame in its medium. */
  readonly index: number
  readonly grade: GradeDocument
  readonly as: 'shot' | 'graded'
}

/** As shot, only the footage and its range matter: every revision shares the picture. */
const keyOf = ({
  revisionId,
  mediaHash,
  index,
  grade,
  as,
  firstFrame,
  frameCount,
}: ThumbnailOf): readonly unknown[] => [
  mediaHash,
  index,
  as,
  as === 'shot' ? grade.read.range : revisionId,
  `${firstFrame}-${frameCount}`,
]

type Context = Pick<ServerContext, 'store' | 'workers' | 'frames'>

/** The PNG of a revision's frame. */
export const thumbnailOf = (context: Context, of: ThumbnailOf): Promise<Uint8Array> =>
  made(context, keyOf(of), async () => ({
    ...(await context.frames.gradeTask(of.mediaHash, of.index, of.grade, of)),
    asShot: of.as === 'shot',
  }))

/** The PNG of a frame through a grade that is no revision's. */
export const thumbnailThrough = (
  context: Context,
  { mediaHash, index, grade, ...range }: Omit<ThumbnailOf, 'revisionId' | 'as'>,
): Promise<Uint8Array> =>
  made(context, [mediaHash, index, 'graded', grade], async () => ({
    ...(await context.frames.gradeTask(mediaHash, index, grade, range)),
    asShot: false,
  }))

/** The PNG of a frame that is at hand, before there is a revision to keep it for. */
export const drawThumbnail = ({ workers }: Context, task: GradeTask): Promise<Uint8Array> =>
  workers.thumbnailPng({ ...task, asShot: false, ...thumbnailSize })

/** Keeps a picture that was drawn beforehand. */
export const keepThumbnail = (context: Context, of: ThumbnailOf, png: Uint8Array): Promise<void> =>
  keep(context, placeOf(context, keyOf(of)), png)

const placeOf = ({ store }: Context, key: readonly unknown[]): string =>
  store.thumbnailPath(
    createHash('sha256')
      .update(JSON.stringify([...key, thumbnailSize]))
      .digest('hex'),
  )

async function keep({ store }: Context, place: string, png: Uint8Array): Promise<void> {
  const temporary = store.temporaryPath()
  await writeFile(temporary, png)
  await store.keep(temporary, place)
}

async function made(
  context: Context,
  key: readonly unknown[],
  task: () => Promise<GradeTask & { asShot: boolean }>,
): Promise<Uint8Array> {
  const place = placeOf(context, key)
  const known = await readFile(place).catch(() => undefined)
  if (known) return known
  const png = await context.workers.thumbnailPng({ ...(await task()), ...thumbnailSize })
  await keep(context, place, png)
  return png
}
