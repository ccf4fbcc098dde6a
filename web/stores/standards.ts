// Server state: house standards of the user's own.
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { standardById, type HouseStandard } from '@core/readings'
import { checked } from '@contracts/check'
import { OwnStandard, StandardFile } from '@contracts/readings'
import { changeSeen, ifSeen, post, put, request } from '../api/client'

export const useStandards = defineStore('standards', () => {
  const own = shallowRef<readonly HouseStandard[]>([])
  const addressOf = (id: string): string => `/standards/${encodeURIComponent(id)}`
  const ownById = (id: string): HouseStandard | null => own.value.find((s) => s.id === id) ?? null

  async function load(): Promise<void> {
    own.value = await request<readonly HouseStandard[]>('/standards')
  }
  async function keep(standard: HouseStandard): Promise<void> {
    const body = checked(OwnStandard, standard)
    await changeSeen(() => put(addressOf(standard.id), body, ifSeen(ownById(standard.id))), load)
    await load()
  }
  async function importFile(file: File): Promise<void> {
    const data: unknown = JSON.parse(await file.text())
    own.value = await post<readonly HouseStandard[]>('/standards/import', checked(StandardFile, data))
  }
  async function remove(id: string): Promise<void> {
    await changeSeen(() => request(addressOf(id), { method: 'DELETE', ...ifSeen(ownById(id)) }), load)
    await load()
  }
  /** One of the user's own, or one that ships. */
  const byId = (id: string): HouseStandard => standardById(id, own.value)
  return { own, load, keep, importFile, remove, byId }
})
