// Server state: the reel of one project, and changes to its shots and scenes. It is read again after each.
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { checked } from '@contracts/check'
import { SceneIntent } from '@contracts/recipes'
import { CutShot, JoinShots, LinkShots, MoveShots, RemoveShots, ShotChanges, UnlinkShots } from '@contracts/requests'
import type { SceneSummary, ShotSummary } from '@contracts/responses'
import { post, put, request } from '../api/client'

export interface Reel {
  readonly project: { readonly id: string; readonly name: string }
  readonly shots: readonly ShotSummary[]
  readonly scenes: readonly SceneSummary[]
}

export const useReel = defineStore('reel', () => {
  const current = shallowRef<Reel | null>(null)
  /** The project asked for last: a late answer for another one changes nothing. */
  let wanted = ''

  async function load(projectId: string): Promise<void> {
    wanted = projectId
    if (current.value?.project.id !== projectId) current.value = null
    const found = await request<Reel>(`/projects/${encodeURIComponent(projectId)}/reel`)
    if (wanted === projectId) current.value = found
  }
  async function reload(): Promise<void> {
    const projectId = current.value?.project.id
    if (projectId) await load(projectId)
  }
  async function change(path: string, body: object): Promise<void> {
    await post(path, body)
    await reload()
  }
  async function setIntent(sceneId: string, intent: string): Promise<void> {
    await put(`/scenes/${sceneId}/intent`, checked(SceneIntent, { intent: intent.replace(/\s+/g, ' ').trim() }))
    await reload()
  }
  async function addScenePicture(sceneId: string, png: Blob, name: string): Promise<void> {
    await request(`/scenes/${sceneId}/pictures?${new URLSearchParams({ name })}`, {
      method: 'POST',
      headers: { 'content-type': 'image/png' },
      body: png,
    })
    await reload()
  }
  async function removeScenePicture(id: string): Promise<void> {
    await request(`/scene-pictures/${id}`, { method: 'DELETE' })
    await reload()
  }
  return {
    current,
    load,
    setIntent,
    addScenePicture,
    removeScenePicture,
    changeShots: (changes: ShotChanges): Promise<void> => change('/shots/changes', checked(ShotChanges, changes)),
    moveShots: (projectId: string, move: MoveShots): Promise<void> =>
      change(`/projects/${projectId}/order`, checked(MoveShots, move)),
    joinShots: (shotIds: readonly string[]): Promise<void> => change('/shots/join', checked(JoinShots, { shotIds })),
    linkShots: (shotIds: readonly string[]): Promise<void> => change('/shots/link', checked(LinkShots, { shotIds })),
    unlinkShots: (shotIds: readonly string[]): Promise<void> =>
      change('/shots/unlink', checked(UnlinkShots, { shotIds })),
    removeShots: (shotIds: readonly string[]): Promise<void> =>
      change('/shots/remove', checked(RemoveShots, { shotIds })),
    cutShot: (id: string, pieces: CutShot['pieces']): Promise<void> =>
      change(`/shots/${id}/cut`, checked(CutShot, { pieces })),
  }
})
