// Server state: encodings of the user's own.
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { EncodingDefinition } from '@core/colour'
import { checked } from '@contracts/check'
import { checkedEncoding, EncodingFile } from '@contracts/encodings'
import { post, request } from '../api/client'

export const useEncodings = defineStore('encodings', () => {
  const own = shallowRef<readonly EncodingDefinition[]>([])
  async function load(): Promise<void> {
    own.value = await request<readonly EncodingDefinition[]>('/encodings')
  }
  async function keep(definition: EncodingDefinition): Promise<void> {
    await post('/encodings', checkedEncoding(definition))
    await load()
  }
  async function importFile(file: File): Promise<void> {
    const data: unknown = JSON.parse(await file.text())
    own.value = await post<readonly EncodingDefinition[]>('/encodings/import', checked(EncodingFile, data))
  }
  async function remove(id: string): Promise<void> {
    await request(`/encodings/${encodeURIComponent(id)}`, { method: 'DELETE' })
    await load()
  }
  return { own, load, keep, importFile, remove }
})
