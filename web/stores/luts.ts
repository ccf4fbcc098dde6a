// Server state: the LUTs.
import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { LutSummary } from '@contracts/responses'
import { request } from '../api/client'
import { upload } from '../api/upload'

export const useLuts = defineStore('luts', () => {
  const all = shallowRef<readonly LutSummary[]>([])
  async function load(): Promise<void> {
    all.value = await request<readonly LutSummary[]>('/luts')
  }
  async function importFile(file: File, folder = ''): Promise<LutSummary> {
    const query = new URLSearchParams({ name: file.name, folder })
    const lut = await upload<LutSummary>(`/luts?${query}`, file, () => undefined).done
    await load()
    return lut
  }
  return { all, load, importFile }
})
