// Bringing footage in: uploads in parts (tus), files of the server's media folder, and the work that follows.
import { cutTo } from '@core/names'
import { FileStore } from '@tus/file-store'
import { Server as TusServer } from '@tus/server'
import { readFile, stat } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { localActor, type ServerContext } from '../context'
import { transaction } from '../db/pool'
import { findProject } from '../db/projects'
import { cancelWork, findWork, insertWork, listWork } from '../db/work'
import { findShot } from '../db/shots'
import { enqueue } from '../jobs/enqueue'
import { importClip } from '../services/import'
import { libraryPath, listLibrary } from '../services/media-folder'
import { asProblem, notFound, Problem } from '../problem'
import { largeBody, uuidParam } from './params'

const maxClipBytes = 256 * 1024 ** 3
/** Uploads that nobody went on with are removed after this long. */
const uploadLifeMs = 7 * 24 * 3600 * 1000
const cleanUpEveryMs = 3600 * 1000

export function importRoutes(context: ServerContext): Hono {
  const { pool, store, mediaFolder } = context
  const uploads = new TusServer({
    path: '/api/uploads',
    // Addresses are relative to this server, whatever the request says of its host.
    generateUrl: (_, { id }) => `/api/uploads/${id}`,
    datastore: new FileStore({ directory: store.uploadsFolder, expirationPeriodInMilliseconds: uploadLifeMs }),
    maxSize: maxClipBytes,
    relativeLocation: true,
    onUploadCreate: async (_, { size }) => {
      await context.space.require(size ?? 0).catch((error: unknown) => {
        // The library has a shape of error of its own.
        const { status, code, message, hint } = asProblem(error)
        const body = JSON.stringify({ error: { code, message, hint } })
        throw Object.assign(new Error(message), { status_code: status, body })
      })
      return {}
    },
  })
  const cleanUp = (): void => void uploads.cleanUpExpiredUploads().catch(() => 0)
  cleanUp()
  setInterval(cleanUp, cleanUpEveryMs).unref()

  /** The library answers pages of any origin; this program answers its own. */
  async function upload(request: Request): Promise<Response> {
    const { body, status, headers } = await uploads.handleWeb(request)
    const kept = [...headers].filter(([name]) => !name.startsWith('access-control-'))
    return new Response(body, { status, headers: kept })
  }

  async function projectId(given: string): Promise<string> {
    const project = await findProject(pool, given)
    if (!project) throw notFound('project')
    return project.id
  }

  return (
    new Hono()
      .all('/uploads', (c) => upload(c.req.raw))
      .all('/uploads/:id', (c) => {
        if (!/^[0-9a-f]{32}$/.test(c.req.param('id'))) throw notFound('upload')
        return upload(c.req.raw)
      })
      .post('/projects/:id/imports', bodyLimit({ maxSize: 16 * 1024 * 1024 }), async (c) => {
        const project = await projectId(uuidParam(c, 'id', 'project'))
        const wanted = await largeBody(c, context.workers, 'imports')
        const name = fileName(
          wanted.name ??
            (wanted.path !== undefined
              ? basename(wanted.path)
              : await uploadedName(store.uploadsFolder, wanted.uploads?.[0] ?? '')),
        )
        if (wanted.path !== undefined) await libraryPath(mediaFolder, wanted.path)
        else for (const id of wanted.uploads ?? []) await requireWhole(store.uploadsFolder, id)
        if (!wanted.pictures && (wanted.uploads?.length ?? 1) !== 1)
          throw new Problem(422, 'invalid', 'One clip is imported at a time.', { field: 'uploads' })
        const id = await transaction(pool, async (db) => {
          const work = (await insertWork(db, {
            kind: 'import',
            projectId: project,
            mediaHash: null,
            name,
            payload: wanted,
            actor: localActor,
          })) as string
          await enqueue(db, 'import', work)
          return work
        })
        return c.json(await findWork(pool, id), 202)
      })
      // One request, one clip: for scripts.
      .post('/projects/:id/shots', async (c) => {
        const project = await projectId(uuidParam(c, 'id', 'project'))
        const name = fileName(c.req.query('name'))
        await context.space.require(Number(c.req.header('content-length') ?? 0))
        if (!c.req.raw.body) throw new Problem(422, 'empty_file', `"${name}" is empty.`)
        const { id } = await importClip(context, {
          body: c.req.raw.body,
          maxBytes: maxClipBytes,
          name,
          projectId: project,
          actor: localActor,
        })
        return c.json(await findShot(pool, id), 201)
      })
      .get('/projects/:id/work', async (c) => c.json(await listWork(pool, uuidParam(c, 'id', 'project'))))
      .delete('/work/:id', async (c) => {
        if (!(await cancelWork(pool, uuidParam(c, 'id', 'work')))) throw notFound('work')
        return c.body(null, 204)
      })
      .get('/library', async (c) => c.json(await listLibrary(mediaFolder, c.req.query('path') ?? '')))
  )
}

interface UploadInfo {
  readonly size?: number
  readonly offset?: number
  readonly metadata?: Record<string, string | null>
}

async function uploadInfo(folder: string, id: string): Promise<UploadInfo> {
  try {
    return JSON.parse(await readFile(join(folder, `${id}.json`), 'utf8')) as UploadInfo
  } catch {
    throw new Problem(404, 'not_found', 'There is no such upload.', {
      hint: 'Uploads are kept for a week; send the file again.',
    })
  }
}
const uploadedName = async (folder: string, id: string): Promise<string> =>
  (await uploadInfo(folder, id)).metadata?.['filename'] ?? 'Untitled'

async function requireWhole(folder: string, id: string): Promise<void> {
  const { size } = await uploadInfo(folder, id)
  const have = (await stat(join(folder, id)).catch(() => undefined))?.size ?? 0
  if (size === undefined || have < size)
    throw new Problem(422, 'incomplete', `Only ${have} of ${size ?? 'all'} bytes have come.`, {
      hint: 'Go on with the upload first.',
    })
}

/** A file's name as a shot's name: only its last part, without control characters, at most 120 long. */
function fileName(given: string | undefined): string {
  const last = basename((given ?? '').replaceAll('\\', '/'))
    .replace(/[\p{Cc}\p{Cs}]/gu, '')
    .trim()
  return cutTo(last || 'Untitled', 120)
}
