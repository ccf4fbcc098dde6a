// Talking to the running program as a page of its own would.
import type { GradeDocument } from '@core/index'
import type { ProjectSummary, RevisionState, ShotDetail, ShotSummary } from '@contracts/responses'

export function address(): string {
  const found = process.env['PALE_TEST_ADDRESS']
  if (!found) throw new Error('The program is not running.')
  return found
}

export const call = (path: string, init?: RequestInit): Promise<Response> => fetch(`${address()}/api${path}`, init)

export async function get<T>(path: string): Promise<T> {
  const response = await call(path)
  if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`)
  return (await response.json()) as T
}

export const postJson = (path: string, body: unknown): Promise<Response> =>
  call(path, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })

/** The status and message of a refusal. */
export async function refusal(response: Response): Promise<{ status: number; code: string; message: string; field?: string }> {
  const { error } = (await response.json()) as { error: { code: string; message: string; field?: string } }
  return { status: response.status, ...error }
}

export async function demoReel(): Promise<{ project: ProjectSummary; shots: readonly ShotSummary[] }> {
  const project = (await get<readonly ProjectSummary[]>('/projects')).find((p) => p.name === 'Ashglaze')!
  return { project, shots: (await get<{ shots: readonly ShotSummary[] }>(`/projects/${project.id}/reel`)).shots }
}

export const shotById = (id: string): Promise<ShotDetail> => get<ShotDetail>(`/shots/${id}`)

/** Puts a revision on top of the present one. */
export async function save(shotId: string, change: (grade: GradeDocument) => GradeDocument, summary = 'test'): Promise<RevisionState> {
  const { revision } = await shotById(shotId)
  const response = await postJson(`/shots/${shotId}/revisions`, { parentId: revision.headId, summary, grade: change(revision.grade) })
  if (!response.ok) throw new Error(await response.text())
  return (await response.json()) as RevisionState
}

/** A project of its own with a copy of a demo clip, so that tests do not disturb each other. */
export async function ownShot(clip: Uint8Array, name = 'own.mov'): Promise<ShotDetail> {
  const { id } = (await (await postJson('/projects', { name: 'Test' })).json()) as { id: string }
  const response = await call(`/projects/${id}/shots?name=${encodeURIComponent(name)}`, { method: 'POST', body: clip as BodyInit })
  if (!response.ok) throw new Error(await response.text())
  return (await response.json()) as ShotDetail
}
