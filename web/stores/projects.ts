// Server state: the projects.
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { checked } from '@contracts/check'
import { NewProject, ProjectChange } from '@contracts/requests'
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
  async function change(id: string, what: ProjectChange): Promise<void> {
    await request(`/projects/${id}`, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(checked(ProjectChange, what)),
    })
    await load()
  }
  async function duplicate(id: string): Promise<void> {
    await post(`/projects/${id}/copy`, {})
    await load()
  }
  return { all, load, create, change, duplicate }
})
