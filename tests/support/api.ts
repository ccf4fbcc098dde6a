// Talking to the running program as a page of its own would.
import type { GradeDocument } from '@core/grade'
import { readdirSync, readFileSync } from 'node:fs'
import { request } from 'node:http'
import { basename, join } from 'node:path'
import type {
  ProjectSummary,
  RevisionState,
  ShotDetail,
  ShotRecord,
  ShotSummary,
  WorkSummary,
} from '@contracts/responses'
import { until } from './until'

export function address(): string {
  const found = process.env['PALE_TEST_ADDRESS']
  if (!found) throw new Error('The program is not running.')
  return found
}

export const call = (path: string, init?: RequestInit): Promise<Response> => fetch(`${address()}/api${path}`, init)

/**
 * What a body is answered with that says it has so many bytes. None of them but the first is sent: a body that is
 * refused by its size is not read, and writing on would fail.
 */
export const answerToSize = (path: string, type: string, bytes: number): Promise<number | undefined> =>
  new Promise((done, fail) => {
    const sent = request(
      `${address()}/api${path}`,
      { method: 'POST', headers: { 'content-type': type, 'content-length': String(bytes) } },
      (response) => {
        response.resume()
        done(response.statusCode)
        sent.destroy()
      },
    )
    sent.once('error', fail)
    sent.write('{')
  })

export async function get<T>(path: string): Promise<T> {
  const response = await call(path)
  if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`)
  return (await response.json()) as T
}

export const postJson = (path: string, body: unknown): Promise<Response> =>
  call(path, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })

/** The status and message of a refusal. */
export async function refusal(
  response: Response,
): Promise<{ status: number; code: string; message: string; field?: string }> {
  const { error } = (await response.json()) as { error: { code: string; message: string; field?: string } }
  return { status: response.status, ...error }
}

export async function demoReel(): Promise<{ project: ProjectSummary; shots: readonly ShotSummary[] }> {
  const project = (await get<readonly ProjectSummary[]>('/projects')).find((p) => p.name === 'Ashglaze')!
  return { project, shots: (await get<{ shots: readonly ShotSummary[] }>(`/projects/${project.id}/reel`)).shots }
}

export const shotById = (id: string): Promise<ShotDetail> => get<ShotDetail>(`/shots/${id}`)

/** Puts a revision on top of the present one. */
export async function save(
  shotId: string,
  change: (grade: GradeDocument) => GradeDocument,
  summary = 'test',
): Promise<RevisionState> {
  const { revision } = await shotById(shotId)
  const response = await postJson(`/shots/${shotId}/revisions`, {
    parentId: revision.headId,
    summary,
    grade: change(revision.grade),
  })
  if (!response.ok) throw new Error(await response.text())
  return (await response.json()) as RevisionState
}

/** A project of its own with a copy of a demo clip, so that tests do not disturb each other. */
export async function ownShot(clip: Uint8Array, name = 'own.mov'): Promise<ShotDetail> {
  const { id } = (await (await postJson('/projects', { name: 'Test' })).json()) as { id: string }
  const response = await call(`/projects/${id}/shots?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    body: clip as BodyInit,
  })
  if (!response.ok) throw new Error(await response.text())
  return (await response.json()) as ShotDetail
}

export async function projectNamed(name: string): Promise<string> {
  return ((await (await postJson('/projects', { name })).json()) as { id: string }).id
}

/** Sends a file in parts, as the browser does (tus 1.0.0), and returns the upload's id. */
export async function sendInParts(name: string, body: Uint8Array, partBytes = 1024 * 1024): Promise<string> {
  const tus = { 'tus-resumable': '1.0.0' }
  const made = await call('/uploads', {
    method: 'POST',
    headers: {
      ...tus,
      'upload-length': String(body.length),
      'upload-metadata': `filename ${Buffer.from(name).toString('base64')}`,
    },
  })
  const place = made.headers.get('location')?.replace(/^.*\/api/, '')
  if (made.status !== 201 || !place) throw new Error(`${made.status} ${await made.text()}`)
  for (let offset = 0; offset < body.length; offset += partBytes) {
    const sent = await call(place, {
      method: 'PATCH',
      headers: { ...tus, 'content-type': 'application/offset+octet-stream', 'upload-offset': String(offset) },
      body: body.subarray(offset, offset + partBytes) as BodyInit,
    })
    if (sent.status !== 204) throw new Error(`${sent.status} ${await sent.text()}`)
  }
  return place.split('/').at(-1)!
}

/** Waits until work is no longer to be done; throws its fault. */
export async function workDone(projectId: string, id: string): Promise<void> {
  await until('the work is done', async () => {
    const found = (await get<readonly WorkSummary[]>(`/projects/${projectId}/work`)).find((w) => w.id === id)
    if (found?.state === 'failed') throw new Error(`${found.error} ${found.hint ?? ''}`)
    return !found
  })
}

/** Uploads files and imports them; the newest shot of the project. */
export async function importUploads(
  projectId: string,
  files: readonly string[],
  how: { pictures: boolean; name?: string; rate?: { numerator: number; denominator: number } },
): Promise<ShotDetail> {
  const uploads: string[] = []
  for (const file of files) uploads.push(await sendInParts(basename(file), readFileSync(file)))
  const response = await postJson(`/projects/${projectId}/imports`, { uploads, ...how })
  if (response.status !== 202) throw new Error(await response.text())
  await workDone(projectId, ((await response.json()) as WorkSummary).id)
  const { shots } = await get<{ shots: readonly ShotSummary[] }>(`/projects/${projectId}/reel`)
  return shotById(shots.at(-1)!.id)
}

/** Waits until a shot's medium was looked through and has its proxy. */
export async function surveyed(shotId: string): Promise<ShotDetail> {
  return until('the proxy is made', async () => {
    const shot = await shotById(shotId)
    return shot.proxy && shot
  })
}

/** A record of any length, page by page; of this test's program, or of another that `ask` asks. */
export async function wholeRecord(shotId: string, ask: typeof get = get): Promise<ShotRecord['revisions']> {
  let page = await ask<ShotRecord>(`/shots/${shotId}/record`)
  const all = [...page.revisions]
  while (page.next !== null) {
    page = await ask<ShotRecord>(`/shots/${shotId}/record?behind=${encodeURIComponent(page.next)}`)
    all.push(...page.revisions)
  }
  return all
}

/** What the program has under way and not finished, by its names. */
export function unfinished(): string[] {
  const incoming = join(process.env['PALE_TEST_DATA']!, 'incoming')
  return readdirSync(incoming).flatMap((mark) => readdirSync(join(incoming, mark)))
}
