// The shelf of a project: stills of its shots as they were graded, and imported pictures; found again by any word.
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { checked } from '@contracts/check'
import type { Still } from '@contracts/responses'
import { NewStill, StillChange, stillLimits } from '@contracts/stills'
import { post, put, request } from '../api/client'
import { drawPicture } from '../composables/pictureFile'

export const useStills = defineStore('stills', () => {
  const all = shallowRef<readonly Still[]>([])
  let project = ''
  async function load(projectId: string): Promise<void> {
    if (project !== projectId) all.value = []
    project = projectId
    const found = await request<readonly Still[]>(`/projects/${encodeURIComponent(projectId)}/stills`)
    if (project === projectId) all.value = found
  }
  const reload = (): Promise<void> => load(project)

  async function keep(still: NewStill): Promise<void> {
    await post(`/projects/${project}/stills`, checked(NewStill, still))
    await reload()
  }
  /** Throws where the file is no picture that this browser can read. */
  async function bring(file: File): Promise<void> {
    const canvas = await drawPicture(file, (width, height) => stillLimits.maxSide / Math.max(width, height))
    const png = await canvas.convertToBlob({ type: 'image/png' })
    await request(`/projects/${project}/stills/pictures?${new URLSearchParams({ name: file.name })}`, {
      method: 'POST',
      headers: { 'content-type': 'image/png' },
      body: png,
    })
    await reload()
  }
  async function change(id: string, what: StillChange): Promise<void> {
    await put(`/stills/${id}`, checked(StillChange, what))
    await reload()
  }
  async function remove(id: string): Promise<void> {
    await request(`/stills/${id}`, { method: 'DELETE' })
    await reload()
  }
  return { all, load, keep, bring, change, remove }
})
