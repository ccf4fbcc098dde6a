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
  return { all, load, create }
})
