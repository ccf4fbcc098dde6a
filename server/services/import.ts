// Import: received or linked files become a stored medium and a shot on the reel, or nothing at all.
import { link, mkdir, stat, symlink } from 'node:fs/promises'
import { join } from 'node:path'
import type { ReadableStream } from 'node:stream/web'
import type { GuessSummary, MediaFacts } from '@contracts/index'
import type { Rate } from '@core/footage'
import { same } from '@core/grade'
import { asItLooks } from '@core/guess'
import { localActor, type ServerContext } from '../context'
import { findGuess, findMedia, insertMedia, keepGuess } from '../db/media'
import { transaction, type Queryable } from '../db/pool'
import { headOf } from '../db/revisions'
import { guessAndSettle, guessOf } from './guess'
import { likenessOf } from './likeness'
import { knownAtFirst, leadAtFirst, openingGrade, type KnownOfMedium } from './opening'
import { hashOfPictures, sealOf, type Seal } from './originals'
import { addShot } from './shots'
import { drawThumbnail, keepThumbnail } from './thumbnails'
import { enqueueSurvey } from '../jobs/enqueue'
import { Problem } from '../problem'
import { decodedPicture, pictureName } from '@media/decode'
import { decodeSights, type DecodedSight } from '@media/sights'
import { unreadableMedia } from '@media/fault'
import { requireDecodable, requirePictures } from '@media/integrity'
import { probe } from '@media/probe'

/** Told of each stage; answers false when the import is to stop. */
export type Report = (stage: string, done: number, total: number) => Promise<boolean>
const unreported: Report = () => Promise.resolve(true)

/** What is known beforehand, for the demo data. */
export interface Known {
  readonly sceneId: string | null
  readonly cameraName: string | null
  readonly encodingId: string
  readonly gamutId: string
  readonly leadFrame: number
}

export interface Destination {
  readonly name: string
  readonly projectId: string
  readonly actor: string
  readonly known?: Known
  /** See NewImport. */
  readonly order?: number
  /** Ends the work that imports, in the transaction that makes its shot. False when the work is no longer ours. */
  readonly end?: (db: Queryable) => Promise<boolean>
}

export interface ClipToImport extends Destination {
  readonly body: unknown
  readonly maxBytes: number
}

/** One request's body as a clip. */
export async function importClip(context: ServerContext, clip: ClipToImport): Promise<{ id: string }> {
  const received = await context.store.receive(clip.body as ReadableStream<Uint8Array>, clip.maxBytes, clip.name)
  try {
    const shot = await importFile(
      context,
      { path: received.path, hash: received.hash, sizeBytes: received.sizeBytes, linked: false },
      clip,
    )
    return shot as { id: string }
  } finally {
    await context.store.discard(received.path)
  }
}

/** A file on this machine's disk; a linked one stays where it is. */
export interface FileToImport {
  readonly path: string
  readonly hash?: string
  readonly sizeBytes?: number
  readonly linked: boolean
}

/**
 * Pixels that are decoded in a second or two: so much is gone through, and guessed from, before it is taken. Of longer
 * clips only a few places are looked at, so that they are seen at once; the rest comes when their shot is there.
 */
const checkedAtOnce = 6e8

/** Undefined when `report` stopped it. Throws a Problem for files that cannot be used. */
export async function importFile(
  context: ServerContext,
  file: FileToImport,
  to: Destination,
  report = unreported,
): Promise<{ id: string } | undefined> {
  const sizeBytes = file.sizeBytes ?? (await stat(file.path)).size
  if (sizeBytes === 0) throw new Problem(422, 'empty_file', `"${to.name}" is empty.`)
  // What the picture says needs no hash, and reading a large file takes as long as looking at a few of its places.
  let drawing: Promise<Uint8Array | undefined> = Promise.resolve(undefined)
  const looking = lookThrough(context, file.path, to.name, report, (facts, known, sight) => {
    if (sight.index !== (to.known?.leadFrame ?? leadAtFirst(facts))) return
    drawing = drawFirst(context, facts, known, sight, to)
    drawing.catch(() => undefined)
  })
  looking.catch(() => undefined)
  const seal = file.linked ? await sealOf(file.path) : undefined
  const hash =
    file.hash ?? (await context.workers.hashFile(file.path, (done) => report('reading', done, mega(sizeBytes))))
  if (hash === undefined) return undefined
  if (file.linked) requireStill(seal, await sealOf(file.path), to.name)
  const known = await findMedia(context.pool, hash)
  if (known && (await isUsable(context, hash)))
    return addImported(context, hash, known.facts, to, await knownOf(context.pool, hash, known.facts))
  const looked = await looking
  if (!looked) return undefined
  const { facts, frameTimes, seen, guess } = looked
  await (file.linked
    ? context.store.keepLink(file.path, context.store.mediaPath(hash))
    : context.store.keepAlso(file.path, context.store.mediaPath(hash)))
  for (const { index, planes } of seen) context.frames.remember(hash, index, planes)
  await insertMedia(context.pool, { hash, sizeBytes, facts, frameTimes, seal: seal ?? null })
  if (guess) await keepGuess(context.pool, hash, guess, likenessOf(facts, guess))
  const shot = await addImported(context, hash, facts, to, looked, await drawing)
  // Of a large picture, to make it small takes as long as to decode it: the Bench finds it done.
  if (seen.some(({ index }) => index === leadAtFirst(facts)))
    context.previews.prepare(hash, leadAtFirst(facts), facts.range)
  // Where the guess fails, the survey makes another.
  if (!guess)
    await guessAndSettle(context, { hash, facts, path: file.path, frameTimes }, seen).catch((error: unknown) =>
      context.log.warn({ err: error, media: hash }, 'a medium could not be guessed yet'),
    )
  return shot
}

/** The thumbnail that the shot will begin with, while the file is still being read. */
async function drawFirst(
  context: ServerContext,
  facts: MediaFacts,
  known: KnownOfMedium,
  { planes }: DecodedSight,
  to: Destination,
): Promise<Uint8Array> {
  const grade = await openingGrade(context, facts, known, to)
  return drawThumbnail(context, { source: decodedPicture(planes, facts, grade.read.range), grade, luts: [] })
}

interface Looked extends KnownOfMedium {
  readonly facts: MediaFacts
  readonly frameTimes: readonly number[]
  /** Frames that were decoded. */
  readonly seen: readonly DecodedSight[]
  /** Null for what takes long: the guess comes when the shot is there. */
  readonly guess: GuessSummary | null
}

/**
 * What a file holds, that it can be decoded, and what it was written in. Undefined when `report` stopped it.
 * @param onSight told of every frame that was decoded, once it is known what a shot opens with
 */
async function lookThrough(
  context: ServerContext,
  path: string,
  name: string,
  report: Report,
  onSight: (facts: MediaFacts, known: KnownOfMedium, sight: DecodedSight) => void,
): Promise<Looked | undefined> {
  if (!(await report('looking through', 0, 1))) return undefined
  const { facts, frameTimes } = await probe(path, name)
  if (facts.frameCount * facts.width * facts.height > checkedAtOnce) {
    const known = knownAtFirst(facts)
    // The brightest light counts only where there is a shoulder; elsewhere the first frame is drawn as it comes.
    const isFinished = known.opening.encodingId === asItLooks
    const draw = (sight: DecodedSight): void => onSight(facts, known, sight)
    const seen = await decodeSights(path, facts, frameTimes, undefined, isFinished ? draw : undefined)
    if (isFinished) return { facts, frameTimes, seen, guess: null, ...known }
    const codeCeiling = await context.workers.codeCeiling({ source: decodedPicture(seen[0].planes, facts) })
    for (const sight of seen) onSight(facts, { ...known, codeCeiling }, sight)
    return { facts, frameTimes, seen, guess: null, ...known, codeCeiling }
  }
  if (!(await requireDecodable(path, name, facts.frameCount, (frames) => report('decoding', frames, facts.frameCount))))
    return undefined
  const { guess, seen } = await guessOf(context, path, facts, frameTimes)
  for (const sight of seen) onSight(facts, guess, sight)
  return { facts, frameTimes, seen, guess, ...guess }
}

export interface PicturesToImport {
  readonly paths: readonly string[]
  readonly linked: boolean
  readonly extension: string
  readonly rate: Rate
}

/** Numbered pictures as one medium: a folder of them, named by their order. */
export async function importPictures(
  context: ServerContext,
  { paths, linked, extension, rate }: PicturesToImport,
  to: Destination,
  report = unreported,
): Promise<{ id: string } | undefined> {
  const folder = context.store.temporaryPath()
  try {
    await mkdir(folder)
    for (const [i, path] of paths.entries()) {
      const place = join(folder, pictureName(i, extension))
      await (linked ? symlink(path, place) : link(path, place))
    }
    const seal = linked ? await sealOf(folder) : undefined
    const hash = await hashOfPictures(paths, rate, (path, i) =>
      context.workers.hashFile(path, async () => i % 16 !== 0 || report('reading', i, paths.length)),
    )
    if (hash === undefined) return undefined
    if (linked) requireStill(seal, await sealOf(folder), to.name)
    const known = await findMedia(context.pool, hash)
    if (known && (await isUsable(context, hash)))
      return await addImported(context, hash, known.facts, to, await knownOf(context.pool, hash, known.facts))
    const { facts: first } = await probe(join(folder, pictureName(0, extension)), pictureName(0, extension))
    if (first.kind !== 'still')
      throw unreadableMedia(
        `"${to.name}" holds files that are no pictures.`,
        'PNG, TIFF, DPX, EXR and JPEG pictures are read as sequences.',
      )
    const frameTimes = paths.map((_, i) => (i * rate.denominator) / rate.numerator)
    const facts: MediaFacts = {
      ...first,
      kind: 'pictures',
      container: extension,
      frameCount: paths.length,
      rateNumerator: rate.numerator,
      rateDenominator: rate.denominator,
      durationSeconds: (paths.length * rate.denominator) / rate.numerator,
    }
    if (!(await requirePictures(folder, facts, to.name, (done) => report('decoding', done, paths.length))))
      return undefined
    const { guess, seen } = await guessOf(context, folder, facts, frameTimes)
    for (const { index, planes } of seen) context.frames.remember(hash, index, planes)
    await context.store.keep(folder, context.store.mediaPath(hash))
    let sizeBytes = 0
    for (const path of paths) sizeBytes += (await stat(path)).size
    await insertMedia(context.pool, { hash, sizeBytes, facts, frameTimes, seal: seal ?? null })
    await keepGuess(context.pool, hash, guess, likenessOf(facts, guess))
    return await addImported(context, hash, facts, to, guess)
  } finally {
    await context.store.discard(folder)
  }
}

/** Of a medium that is there: its guess, or what is known before it. */
const knownOf = async (db: Queryable, hash: string, facts: MediaFacts): Promise<KnownOfMedium> =>
  (await findGuess(db, hash)) ?? knownAtFirst(facts)

/** Whether a medium is there that is still what it was: its file need not be looked through again. */
const isUsable = async ({ store, requireOriginal }: ServerContext, hash: string): Promise<boolean> =>
  (await store.isKept(store.mediaPath(hash))) &&
  requireOriginal(hash).then(
    () => true,
    () => false,
  )

/** A file that somebody is still writing is not what was hashed. */
function requireStill(before: Seal | undefined, after: Seal | undefined, name: string): void {
  if (!before || !after || !same(before, after))
    throw new Problem(422, 'still_changing', `"${name}" changed while it was read.`, {
      hint: 'Import it again when nobody writes to it any more.',
    })
}

const mega = (bytes: number): number => Math.round(bytes / 1048576)

/** `thumbnail` shows the lead frame as the shot opens. Undefined when the work is no longer to be done. */
async function addImported(
  context: ServerContext,
  hash: string,
  facts: MediaFacts,
  to: Destination,
  known: KnownOfMedium,
  thumbnail?: Uint8Array,
): Promise<{ id: string } | undefined> {
  const grade = await openingGrade(context, facts, known, to)
  const leadFrame = to.known?.leadFrame ?? leadAtFirst(facts)
  const range = { firstFrame: 0, frameCount: facts.frameCount }
  const adding = transaction(context.pool, async (db) => {
    if (to.end && !(await to.end(db))) throw new NoLongerOurs()
    const shot = await addShot(db, {
      projectId: to.projectId,
      sceneId: to.known?.sceneId ?? null,
      mediaHash: hash,
      name: to.name,
      cameraName: to.known?.cameraName ?? null,
      ...range,
      leadFrame,
      leadChosen: to.known !== undefined,
      grade,
      actor: to.actor,
      summary: 'Imported',
      ...(to.order === undefined ? {} : { importOrder: to.order }),
    })
    await enqueueSurvey(db, hash, to.name, localActor)
    const head = await headOf(db, shot.id)
    // A look of the scene changes the picture: that is drawn when it is asked for.
    if (thumbnail && head && same(head.grade, grade))
      await keepThumbnail(
        context,
        { revisionId: head.id, mediaHash: hash, index: leadFrame, grade, as: 'graded', ...range },
        thumbnail,
      )
    return shot
  })
  return adding.catch((error: unknown) => {
    if (error instanceof NoLongerOurs) return undefined
    throw error
  })
}

/** The work was cancelled, or another process took it up: nothing of this try is kept. */
class NoLongerOurs extends Error {}
