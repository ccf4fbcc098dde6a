// Pictures: exact frames for the Bench, thumbnails for lists, stills and LUTs to take away.
import { Hono, type Context } from 'hono'
import { checkExport, defaultExport, type ExportSettings } from '@core/bake'
import { encodingById, isEncodingId } from '@core/colour'
import { setRead, type GradeDocument } from '@core/grade'
import type { ServerContext } from '../context'
import { listEncodings } from '../db/encodings'
import { findRevision, type RevisionRow } from '../db/revisions'
import { notFound } from '../problem'
import { thumbnailOf, thumbnailThrough } from '../services/thumbnails'
import { frameWithin, hashParam, mostFrame, oneOf, uuidParam, wholeNumber } from './params'

// Everything here is addressed by content or by revision, so it never changes.
const forever = 'private, max-age=31536000, immutable'

/** The frames that the shot of a revision is now, as an address names them. */
const rangeOf = ({ firstFrame, frameCount }: RevisionRow): string => `${firstFrame}-${frameCount}`

/** The frame of the medium that is asked for. */
const frameOf = (c: Context, { shotName: name, ...range }: RevisionRow): number =>
  frameWithin(c.req.query('frame'), { name, ...range })

const pieceBytes = 128 * 1024

/** Megabytes handed to the system at once hold up everyone else meanwhile: they go in pieces, with room between. */
function inPieces(bytes: Uint8Array): ReadableStream<Uint8Array> {
  let at = 0
  return new ReadableStream({
    async pull(controller) {
      await new Promise((done) => setImmediate(done))
      controller.enqueue(bytes.subarray(at, at + pieceBytes))
      at += pieceBytes
      if (at >= bytes.byteLength) controller.close()
    },
  })
}

export function pictureRoutes(context: ServerContext): Hono {
  const { pool, workers, frames, previews } = context

  async function revisionOf(c: Context): Promise<RevisionRow> {
    const revision = await findRevision(pool, uuidParam(c, 'id', 'revision'))
    if (!revision) throw notFound('revision')
    return revision
  }

  /** The grade with its footage read by another encoding, one that ships or one of the user's own. */
  async function readAs(grade: GradeDocument, encodingId: string): Promise<GradeDocument> {
    const own = (await listEncodings(pool)).find((e) => e.id === encodingId)
    if (!own && !isEncodingId(encodingId)) throw notFound('encoding')
    const gamutId = own?.gamutId ?? encodingById(encodingId).gamutIds[0]
    return setRead(grade, { method: 'formula', encodingId, gamutId, ...(own ? { own } : {}) })
  }

  return new Hono()
    .get('/media/:hash/frames/:index', async (c) => {
      const hash = hashParam(c, 'hash', 'clip')
      const index = wholeNumber(c.req.param('index'), 'frame', mostFrame)
      const range = oneOf(c.req.query('range'), 'range', ['full', 'legal'] as const)
      const size = oneOf(c.req.query('size') ?? 'bench', 'size', ['bench', 'sheet'] as const)
      const etag = `"${hash}-${index}-${range}-${size}"`
      if (c.req.header('if-none-match') === etag) return c.body(null, 304)
      const frame = await previews.of(hash, index, range, size, { signal: c.req.raw.signal })
      return c.body(inPieces(frame.bytes), 200, {
        'content-type': 'application/octet-stream',
        'content-length': String(frame.bytes.byteLength),
        'cache-control': forever,
        etag,
        'x-frame-width': String(frame.width),
        'x-frame-height': String(frame.height),
        'x-frame-low': String(frame.low),
        'x-frame-high': String(frame.high),
      })
    })
    .get('/revisions/:id/read-as/:encodingId', async (c) => {
      const revision = await revisionOf(c)
      const index = frameOf(c, revision)
      const grade = await readAs(revision.grade, c.req.param('encodingId'))
      const png = await thumbnailThrough(context, { ...revision, index, grade })
      return c.body(Buffer.from(png) as unknown as ArrayBuffer, 200, {
        'content-type': 'image/png',
        'cache-control': c.req.query('range') === rangeOf(revision) ? forever : 'no-store',
      })
    })
    .get('/revisions/:id/thumbnail', async (c) => {
      const revision = await revisionOf(c)
      const index = frameOf(c, revision)
      const as = oneOf(c.req.query('as'), 'as', ['shot', 'graded'] as const)
      const png = await thumbnailOf(context, { ...revision, revisionId: revision.id, index, as })
      return c.body(Buffer.from(png) as unknown as ArrayBuffer, 200, {
        'content-type': 'image/png',
        // Of another range of frames than the address names, it is good only now.
        'cache-control': c.req.query('range') === rangeOf(revision) ? forever : 'no-store',
      })
    })
    .get('/revisions/:id/still.png', async (c) => {
      const revision = await revisionOf(c)
      const index = frameOf(c, revision)
      const png = await workers.stillPng(
        await frames.gradeTask(revision.mediaHash, index, revision.grade, revision, { signal: c.req.raw.signal }),
      )
      return c.body(Buffer.from(png) as unknown as ArrayBuffer, 200, {
        'content-type': 'image/png',
        ...attachment(`${revision.shotName} frame ${index}.png`),
      })
    })
    .get('/revisions/:id/lut', async (c) => {
      const revision = await revisionOf(c)
      const query = (name: keyof ExportSettings): string => c.req.query(name) ?? String(defaultExport[name])
      const index = frameOf(c, revision)
      const format = oneOf(query('format'), 'format', ['cube', 'clf', 'hald'] as const)
      const settings: ExportSettings = {
        format,
        size: wholeNumber(query('size'), 'size', 129),
        shaper: oneOf(query('shaper'), 'shaper', ['true', 'false'] as const) === 'true',
        input: oneOf(query('input'), 'input', ['camera', 'working-log', 'display'] as const),
        output: oneOf(query('output'), 'output', ['display', 'under'] as const),
        range: oneOf(query('range'), 'range', ['full', 'legal'] as const),
      }
      checkExport(settings)
      const task = await frames.gradeTask(revision.mediaHash, index, revision.grade, revision)
      const { file, leftOut, error } = await workers.bakeFile({
        ...task,
        grade: revision.grade,
        index,
        settings,
        title: revision.shotName,
      })
      if (c.req.query('report') === 'only') return c.json({ leftOut, error })
      return c.body(typeof file === 'string' ? file : (file as unknown as ArrayBuffer), 200, {
        'content-type': format === 'hald' ? 'image/png' : 'text/plain; charset=utf-8',
        ...attachment(`${revision.shotName}.${format === 'hald' ? 'png' : format}`),
      })
    })
}

/** Content-Disposition with an ASCII name and the full name beside it (RFC 6266). */
export function attachment(name: string): Record<string, string> {
  const plain = name.replace(/[^A-Za-z0-9 ._-]/g, '_')
  return { 'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}` }
}
