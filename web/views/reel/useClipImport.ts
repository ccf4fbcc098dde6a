// Imports in progress: several files at once, each with its progress, its cancel and its fault.
import { onScopeDispose, ref, type Ref } from 'vue'
import { upload } from '../../api/upload'
import { sentenceOf } from '../../api/client'

export interface RunningImport {
  readonly key: number
  readonly name: string
  /** Share sent, 0..1; at 1 the server is checking the file. */
  share: number
  fault: string
  readonly cancel: () => void
}

export interface ClipImport {
  readonly running: Ref<RunningImport[]>
  readonly add: (files: readonly File[]) => void
  readonly forget: (key: number) => void
}

export function useClipImport(projectId: () => string, onAdded: () => Promise<void>): ClipImport {
  const running = ref<RunningImport[]>([])
  let nextKey = 1

  function forget(key: number): void {
    running.value = running.value.filter((item) => item.key !== key)
  }

  function add(files: readonly File[]): void {
    for (const file of files) {
      const key = nextKey++
      const find = (): RunningImport | undefined => running.value.find((item) => item.key === key)
      const sent = upload<unknown>(`/projects/${projectId()}/shots?name=${encodeURIComponent(file.name)}`, file, (share) => {
        const item = find()
        if (item) item.share = share
      })
      running.value.push({ key, name: file.name, share: 0, fault: '', cancel: sent.cancel })
      sent.done.then(
        async () => {
          forget(key)
          await onAdded()
        },
        (error: unknown) => {
          const item = find()
          if (item) item.fault = sentenceOf(error)
        },
      )
    }
  }

  onScopeDispose(() => running.value.forEach((item) => item.cancel()))
  return { running, add, forget }
}
