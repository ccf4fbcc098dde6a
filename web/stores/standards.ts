// Server state: house standards of the user's own.
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { standardById, type HouseStandard } from '@core/readings'
import { checked } from '@contracts/check'
import { OwnStandard, StandardFile } from '@contracts/readings'
import { post, put, request } from '../api/client'

export const useStandards = defineStore('standards', () => {
  const own = shallowRef<readonly HouseStandard[]>([])
  async function load(): Promise<void> {
    own.value = await request<readonly HouseStandard[]>('/standards')
  }
  async function keep(standard: HouseStandard): Promise<void> {
    await put(`/standards/${encodeURIComponent(standard.id)}`, checked(OwnStandard, standard))
    await load()
  }
  async function importFile(file: File): Promise<void> {
    const data: unknown = JSON.parse(await file.text())
    own.value = await post<readonly HouseStandard[]>('/standards/import', checked(StandardFile, data))
  }
  async function remove(id: string): Promise<void> {
    await request(`/standards/${encodeURIComponent(id)}`, { method: 'DELETE' })
    await load()
  }
  /** One of the user's own, or one that ships. */
  const byId = (id: string): HouseStandard => standardById(id, own.value)
  return { own, load, keep, importFile, remove, byId }
})
