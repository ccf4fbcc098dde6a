// Server state: the LUTs.
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { LutSummary } from '@contracts/responses'
import { request } from '../api/client'
import { upload } from '../api/upload'

export const useLuts = defineStore('luts', () => {
  /** Those that were removed among them: grades may use them. */
  const everOne = shallowRef<readonly LutSummary[]>([])
  const all = computed(() => everOne.value.filter((lut) => !lut.removed))
  const byHash = (hash: unknown): LutSummary | undefined => everOne.value.find((lut) => lut.hash === hash)
  async function load(): Promise<void> {
    everOne.value = await request<readonly LutSummary[]>('/luts')
  }
  async function importFile(file: File, folder = ''): Promise<LutSummary> {
    const query = new URLSearchParams({ name: file.name, folder })
    const lut = await upload<LutSummary>(`/luts?${query}`, file, () => undefined).done
    await load()
    return lut
  }
  return { all, byHash, load, importFile }
})
