// Server state: the projects.
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { checked } from '@contracts/check'
import { NewProject } from '@contracts/requests'
import type { ProjectSummary } from '@contracts/responses'
import { post, request } from '../api/client'

export const useProjects = defineStore('projects', () => {
  const all = shallowRef<readonly ProjectSummary[]>([])
  async function load(): Promise<void> {
    all.value = await request<readonly ProjectSummary[]>('/projects')
  }
  /** The new project's id. */
  async function create(name: string): Promise<string> {
    const { id } = await post<{ id: string }>('/projects', checked(NewProject, { name }))
    await load()
    return id
  }
  async function remove(id: string): Promise<void> {
    await request(`/projects/${id}`, { method: 'DELETE' })
    await load()
  }
  async function restore(id: string): Promise<void> {
    await post(`/projects/${id}/restore`, {})
    await load()
  }
  return { all, load, create, remove, restore }
})
