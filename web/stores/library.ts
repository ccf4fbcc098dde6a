// Server state: projects, reels, LUTs, and the shot that is open.
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { EncodingDefinition } from '@core/colour'
import { standardById, type HouseStandard } from '@core/readings'
import { checked } from '@contracts/check'
import { checkedEncoding, EncodingFile } from '@contracts/encodings'
import { NewSubject, NewWaiver, OwnStandard, Pick, StandardFile } from '@contracts/readings'
import { SceneIntent } from '@contracts/recipes'
import {
  CutShot,
  JoinShots,
  LeadFrame,
  LinkShots,
  MoveShots,
  NewProject,
  RemoveShots,
  ShotChanges,
  UnlinkShots,
} from '@contracts/requests'
import type { LutSummary, ProjectSummary, SceneSummary, ShotDetail, ShotSummary } from '@contracts/responses'
import { post, request } from '../api/client'
import { upload } from '../api/upload'

export interface Reel {
  readonly project: { readonly id: string; readonly name: string }
  readonly shots: readonly ShotSummary[]
  readonly scenes: readonly SceneSummary[]
}

export const useLibrary = defineStore('library', () => {
  const projects = shallowRef<readonly ProjectSummary[]>([])
  const reel = shallowRef<Reel | null>(null)
  const luts = shallowRef<readonly LutSummary[]>([])
  const shot = shallowRef<ShotDetail | null>(null)
  /** Encodings of the user's own. */
  const encodings = shallowRef<readonly EncodingDefinition[]>([])

  /** House standards of the user's own. */
  const standards = shallowRef<readonly HouseStandard[]>([])

  async function loadProjects(): Promise<void> {
    projects.value = await request<readonly ProjectSummary[]>('/projects')
  }
  async function makeProject(name: string): Promise<string> {
    const { id } = await post<{ id: string }>('/projects', checked(NewProject, { name }))
    await loadProjects()
    return id
  }
  async function loadReel(projectId: string): Promise<void> {
    if (reel.value?.project.id !== projectId) reel.value = null
    reel.value = await request<Reel>(`/projects/${encodeURIComponent(projectId)}/reel`)
  }
  /** The reel is read again after a change. */
  async function againReel(): Promise<void> {
    const projectId = reel.value?.project.id
    if (projectId) await loadReel(projectId)
  }
  /** One change for many shots. */
  async function onReel(path: string, body: object): Promise<void> {
    await post(path, body)
    await againReel()
  }
  const changeShots = (change: ShotChanges): Promise<void> => onReel('/shots/changes', checked(ShotChanges, change))
  const moveShots = (projectId: string, move: MoveShots): Promise<void> =>
    onReel(`/projects/${projectId}/order`, checked(MoveShots, move))
  const joinShots = (shotIds: readonly string[]): Promise<void> =>
    onReel('/shots/join', checked(JoinShots, { shotIds }))
  const linkShots = (shotIds: readonly string[]): Promise<void> =>
    onReel('/shots/link', checked(LinkShots, { shotIds }))
  const unlinkShots = (shotIds: readonly string[]): Promise<void> =>
    onReel('/shots/unlink', checked(UnlinkShots, { shotIds }))
  async function setIntent(sceneId: string, intent: string): Promise<void> {
    await putJson(`/scenes/${sceneId}/intent`, checked(SceneIntent, { intent: intent.replace(/\s+/g, ' ').trim() }))
    await againReel()
  }
  async function addScenePicture(sceneId: string, png: Blob, name: string): Promise<void> {
    await request(`/scenes/${sceneId}/pictures?${new URLSearchParams({ name })}`, {
      method: 'POST',
      headers: { 'content-type': 'image/png' },
      body: png,
    })
    await againReel()
  }
  async function removeScenePicture(id: string): Promise<void> {
    await request(`/scene-pictures/${id}`, { method: 'DELETE' })
    await againReel()
  }
  const removeShots = (shotIds: readonly string[]): Promise<void> =>
    onReel('/shots/remove', checked(RemoveShots, { shotIds }))
  const cutShot = (id: string, pieces: CutShot['pieces']): Promise<void> =>
    onReel(`/shots/${id}/cut`, checked(CutShot, { pieces }))
  async function loadLuts(): Promise<void> {
    luts.value = await request<readonly LutSummary[]>('/luts')
  }
  async function importLut(file: File, folder = ''): Promise<LutSummary> {
    const lut = await upload<LutSummary>(
      `/luts?${new URLSearchParams({ name: file.name, folder })}`,
      file,
      () => undefined,
    ).done
    await loadLuts()
    return lut
  }
  async function loadEncodings(): Promise<void> {
    encodings.value = await request<readonly EncodingDefinition[]>('/encodings')
  }
  async function keepEncoding(definition: EncodingDefinition): Promise<void> {
    await post('/encodings', checkedEncoding(definition))
    await loadEncodings()
  }
  async function importEncodings(file: File): Promise<void> {
    const data: unknown = JSON.parse(await file.text())
    encodings.value = await post<readonly EncodingDefinition[]>('/encodings/import', checked(EncodingFile, data))
  }
  async function removeEncoding(id: string): Promise<void> {
    await request(`/encodings/${encodeURIComponent(id)}`, { method: 'DELETE' })
    await loadEncodings()
  }
  async function loadStandards(): Promise<void> {
    standards.value = await request<readonly HouseStandard[]>('/standards')
  }
  const putJson = <T>(path: string, body: object): Promise<T> =>
    request<T>(path, { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
  async function keepStandard(standard: HouseStandard): Promise<void> {
    await putJson(`/standards/${encodeURIComponent(standard.id)}`, checked(OwnStandard, standard))
    await loadStandards()
  }
  async function importStandards(file: File): Promise<void> {
    const data: unknown = JSON.parse(await file.text())
    standards.value = await post<readonly HouseStandard[]>('/standards/import', checked(StandardFile, data))
  }
  async function removeStandard(id: string): Promise<void> {
    await request(`/standards/${encodeURIComponent(id)}`, { method: 'DELETE' })
    await loadStandards()
  }
  const standardOf = (id: string): HouseStandard => standardById(id, standards.value)

  /** Changes to what is pointed out in the open shot; each answers with the shot as it is now. */
  async function onShot(change: (shotId: string, projectId: string) => Promise<ShotDetail>): Promise<void> {
    const open = shot.value
    if (!open) return
    const now = await change(open.id, open.projectId)
    if (shot.value?.id === open.id) shot.value = { ...now, revision: shot.value.revision }
  }
  const pickCard = (pick: Pick | null): Promise<void> =>
    onShot((id) =>
      pick
        ? putJson(`/shots/${id}/card`, checked(Pick, pick))
        : request<ShotDetail>(`/shots/${id}/card`, { method: 'DELETE' }),
    )
  const makeSubject = (subject: Omit<NewSubject, 'shotId'>): Promise<void> =>
    onShot((id, projectId) =>
      post<ShotDetail>(`/projects/${projectId}/subjects`, checked(NewSubject, { ...subject, shotId: id })),
    )
  const placeSubject = (subjectId: string, pick: Pick | null): Promise<void> =>
    onShot((id) =>
      pick
        ? putJson(`/shots/${id}/subjects/${subjectId}`, checked(Pick, pick))
        : request<ShotDetail>(`/shots/${id}/subjects/${subjectId}`, { method: 'DELETE' }),
    )
  const waive = (waiver: NewWaiver): Promise<void> =>
    onShot((id) => post<ShotDetail>(`/shots/${id}/waivers`, checked(NewWaiver, waiver)))

  async function openShot(shotId: string): Promise<ShotDetail> {
    const found = await request<ShotDetail>(`/shots/${encodeURIComponent(shotId)}`)
    shot.value = found
    return found
  }
  async function setLeadFrame(leadFrame: number): Promise<void> {
    const open = shot.value
    if (!open) return
    await request(`/shots/${open.id}/lead-frame`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(checked(LeadFrame, { leadFrame })),
    })
    if (shot.value?.id === open.id) shot.value = { ...open, leadFrame }
  }
  return {
    standards,
    standardOf,
    loadStandards,
    keepStandard,
    importStandards,
    removeStandard,
    pickCard,
    makeSubject,
    placeSubject,
    waive,
    changeShots,
    moveShots,
    joinShots,
    setIntent,
    addScenePicture,
    removeScenePicture,
    linkShots,
    unlinkShots,
    removeShots,
    cutShot,
    projects,
    reel,
    luts,
    shot,
    encodings,
    loadEncodings,
    keepEncoding,
    importEncodings,
    removeEncoding,
    loadProjects,
    makeProject,
    loadReel,
    loadLuts,
    importLut,
    openShot,
    setLeadFrame,
  }
})
