// Import: received or linked files become a stored medium and a shot on the reel, or nothing at all.
import { rename, stat, symlink, mkdir } from 'node:fs/promises'
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import type { ReadableStream } from 'node:stream/web'
import type { GuessSummary, MediaFacts } from '@contracts/index'
import { encodingById } from '@core/colour'
import type { Rate } from '@core/footage'
import { defaultGrade, setRead } from '@core/grade'
import { asItLooks, fileFactsOf } from '@core/guess'
import { carrierOfLinear } from '@core/image'
import { localActor, type ServerContext } from '../context'
import { listEncodings } from '../db/encodings'
import { findGuess, findMedia, insertMedia, keepGuess } from '../db/media'
import { transaction } from '../db/pool'
import { likenessOf } from './likeness'
import { addShot } from './shots'
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

interface Destination {
  readonly name: string
  readonly projectId: string
  readonly actor: string
  readonly known?: Known
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
 * Pixels that are decoded in a second or two: so much is gone through before it is taken. Of longer clips only a few
 * places are, so that they are seen at once; the rest while the proxy is made.
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
  const looking = lookThrough(context, file.path, to.name, report)
  looking.catch(() => undefined)
  const hash =
    file.hash ?? (await context.workers.hashFile(file.path, (done) => report('reading', done, mega(sizeBytes))))
  if (hash === undefined) return undefined
  const known = await findMedia(context.pool, hash)
  if (known && (await context.store.isKept(context.store.mediaPath(hash))))
    return addImported(context, hash, known.facts, to)
  const looked = await looking
  if (!looked) return undefined
  const { facts, frameTimes, guess, seen } = looked
  await (file.linked
    ? context.store.keepLink(file.path, context.store.mediaPath(hash))
    : context.store.keep(file.path, context.store.mediaPath(hash)))
  for (const { index, planes } of seen) context.frames.remember(hash, index, planes)
  await insertMedia(context.pool, { hash, facts, frameTimes }, sizeBytes)
  await keepGuess(context.pool, hash, guess, likenessOf(facts, guess))
  return addImported(context, hash, facts, to)
}

interface Looked extends Guessed {
  readonly facts: MediaFacts
  readonly frameTimes: readonly number[]
}

/** What a file holds, that it can be decoded, and what it was written in. Undefined when `report` stopped it. */
async function lookThrough(
  context: ServerContext,
  path: string,
  name: string,
  report: Report,
): Promise<Looked | undefined> {
  if (!(await report('looking through', 0, 1))) return undefined
  const { facts, frameTimes } = await probe(path, name)
  if (
    facts.frameCount * facts.width * facts.height <= checkedAtOnce &&
    !(await requireDecodable(path, name, facts.frameCount, (frames) => report('decoding', frames, facts.frameCount)))
  )
    return undefined
  return { facts, frameTimes, ...(await guessOf(context, path, facts, frameTimes)) }
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
    const hashes = createHash('sha256')
    let sizeBytes = 0
    for (const [i, path] of paths.entries()) {
      const hash = await context.workers.hashFile(path, async () =>
        i % 16 === 0 ? report('reading', i, paths.length) : true,
      )
      if (hash === undefined) return undefined
      hashes.update(hash)
      sizeBytes += (await stat(path)).size
      const place = join(folder, pictureName(i, extension))
      await (linked ? symlink(path, place) : rename(path, place))
    }
    const hash = hashes.update(`pictures ${rate.numerator}/${rate.denominator}`).digest('hex')
    const known = await findMedia(context.pool, hash)
    if (known && (await context.store.isKept(context.store.mediaPath(hash))))
      return await addImported(context, hash, known.facts, to)
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
    await insertMedia(context.pool, { hash, facts, frameTimes }, sizeBytes)
    await keepGuess(context.pool, hash, guess, likenessOf(facts, guess))
    return await addImported(context, hash, facts, to)
  } finally {
    await context.store.discard(folder)
  }
}

const mega = (bytes: number): number => Math.round(bytes / 1048576)

interface Guessed {
  readonly guess: GuessSummary
  /** The frames that were decoded for it. */
  readonly seen: readonly DecodedSight[]
}

/** The colour engine's answer for a few places of the medium; floating point is linear by its nature. */
export async function guessOf(
  context: ServerContext,
  path: string,
  facts: MediaFacts,
  frameTimes: readonly number[],
): Promise<Guessed> {
  if (facts.bitDepth > 16) return { guess: ofLight, seen: [] }
  const seen = await decodeSights(path, facts, frameTimes)
  const guess = await context.workers.guess({
    sights: seen.map(({ planes, next }) => ({
      source: decodedPicture(planes, facts),
      ...(next ? { next: decodedPicture(next, facts) } : {}),
    })),
    file: fileFactsOf(facts),
    own: await listEncodings(context.pool),
  })
  return { guess, seen }
}

const ofLight: GuessSummary = {
  kind: 'linear',
  kindProbability: 1,
  encodingId: carrierOfLinear,
  range: 'full',
  alike: [carrierOfLinear],
  probability: 1,
  rangeConflict: false,
  tagged: true,
  opening: { encodingId: carrierOfLinear, because: 'tag', asks: false, offers: [] },
  codeCeiling: 1,
  sentences: ['Floating point pictures hold scene-linear light; they are carried as ACEScct.'],
}

// Tags of primaries by the gamut they name (ISO/IEC 23091-2).
const gamutOfPrimaries: Readonly<Record<string, string>> = {
  bt709: 'bt709',
  bt2020: 'bt2020',
  smpte432: 'p3-d65',
  smpte431: 'p3-dci',
}

/** The gamut of a reading at first: floating point carries light, and a log's own gamut is surer than a tag. */
function gamutAtFirst({ bitDepth, primaries }: MediaFacts, encodingId: string): string {
  const tagged = gamutOfPrimaries[primaries ?? '']
  if (bitDepth > 16) return tagged ?? 'bt709'
  const { group, gamutIds } = encodingById(encodingId)
  return (group === 'log' ? undefined : tagged) ?? gamutIds[0]
}

/** Near the middle, at a frame that is decoded at once; a better one is proposed when all were looked through. */
function leadAtFirst({ frameCount, keyFrames = [] }: MediaFacts): number {
  const middle = Math.floor(frameCount / 2)
  const near = keyFrames.reduce((best, k) => (Math.abs(k - middle) < Math.abs(best - middle) ? k : best), 0)
  return Math.abs(near - middle) <= frameCount / 4 ? near : middle
}

async function addImported(
  context: ServerContext,
  hash: string,
  facts: MediaFacts,
  to: Destination,
): Promise<{ id: string }> {
  const guess = await findGuess(context.pool, hash)
  const encodingId = to.known?.encodingId ?? guess?.opening.encodingId ?? asItLooks
  const own = (await listEncodings(context.pool)).find((e) => e.id === encodingId)
  const gamutId = to.known?.gamutId ?? own?.gamutId ?? gamutAtFirst(facts, encodingId)
  const grade = defaultGrade(own ? asItLooks : encodingId, gamutId, facts.range)
  return transaction(context.pool, async (db) => {
    const shot = await addShot(db, {
      projectId: to.projectId,
      sceneId: to.known?.sceneId ?? null,
      mediaHash: hash,
      name: to.name,
      cameraName: to.known?.cameraName ?? null,
      firstFrame: 0,
      frameCount: facts.frameCount,
      leadFrame: to.known?.leadFrame ?? leadAtFirst(facts),
      leadChosen: to.known !== undefined,
      grade: own ? setRead(grade, { encodingId, gamutId, own }) : grade,
      actor: to.actor,
      summary: 'Imported',
    })
    await enqueueSurvey(db, hash, to.name, localActor)
    return shot
  })
}
