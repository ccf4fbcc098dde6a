// Files that were dropped where there is no Reel yet: the Reel of their project takes them up.
import { defineStore } from 'pinia'

export const useBroughtFiles = defineStore('brought-files', () => {
  let waiting: { readonly projectId: string; readonly files: readonly File[] } | null = null
  return {
    leave: (projectId: string, files: readonly File[]): void => {
      waiting = { projectId, files }
    },
    /** Those for this project, once. */
    take: (projectId: string): readonly File[] => {
      if (waiting?.projectId !== projectId) return []
      const { files } = waiting
      waiting = null
      return files
    },
  }
})
