// Server state: the reel of one project, and changes to its shots and scenes. It is read again after each.
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { checked } from '@contracts/check'
import { SceneIntent } from '@contracts/recipes'
import {
  CutShot,
  DefaultsChange,
  JoinShots,
  LinkShots,
  MoveShots,
  RemoveShots,
  ShotChanges,
  UnlinkShots,
} from '@contracts/requests'
import type { DefaultsMoved, FrameRange, ProjectDefaults, SceneSummary, ShotSummary } from '@contracts/responses'
import { changeSeen, ifSeen, post, put, request } from '../api/client'

export interface Reel {
  readonly project: { readonly id: string; readonly name: string }
  readonly shots: readonly ShotSummary[]
  readonly scenes: readonly SceneSummary[]
  readonly defaults: ProjectDefaults
}

interface ReelPage extends Reel {
  /** The position behind which the next page begins; null behind the last. */
  readonly next: number | null
}

export const useReel = defineStore('reel', () => {
  const current = shallowRef<Reel | null>(null)
  /** Counts what was asked for: a late answer changes nothing. */
  let loads = 0

  async function load(projectId: string): Promise<void> {
    if (current.value?.project.id !== projectId) current.value = null
    const address = `/projects/${encodeURIComponent(projectId)}/reel`
    const mine = ++loads
    let reel = await request<ReelPage>(address)
    // A long reel comes a page at a time; the first is shown while the others are on their way.
    let page = reel
    const first = current.value === null
    while (mine === loads && page.next !== null) {
      if (first) current.value = reel
      page = await request<ReelPage>(`${address}?after=${page.next}`)
      reel = { ...page, shots: [...reel.shots, ...page.shots] }
    }
    if (mine === loads) current.value = reel
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
    const body = checked(SceneIntent, { intent: intent.replace(/\s+/g, ' ').trim() })
    const seen = current.value?.scenes.find((s) => s.id === sceneId)?.intent ?? null
    await changeSeen(() => put(`/scenes/${sceneId}/intent`, body, ifSeen(seen)), reload)
    await reload()
  }
  /** Answers with what was before, and how many shots moved. */
  async function changeDefaults(projectId: string, change: DefaultsChange): Promise<DefaultsMoved> {
    const moved = await put<DefaultsMoved>(`/projects/${projectId}/defaults`, checked(DefaultsChange, change))
    await reload()
    return moved
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
    changeDefaults,
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
    /** `seen`: the piece of its clip that the shot was when it was looked at. */
    cutShot: async (id: string, pieces: CutShot['pieces'], { firstFrame, frameCount }: FrameRange): Promise<void> => {
      await post(`/shots/${id}/cut`, checked(CutShot, { pieces }), ifSeen({ firstFrame, frameCount }))
      await reload()
    },
  }
})
