// Bringing LUT files in: many at once, one after the other, with what was refused and why; can be stopped.
import { ref, type Ref } from 'vue'
import { lutExtensions } from '@core/formats'
import { sentenceOf } from '../../api/client'
import { useLuts } from '../../stores/luts'

export interface Bringing {
  readonly done: Ref<number>
  readonly total: Ref<number>
  readonly refused: Ref<readonly string[]>
  /** Resolves with the last one that came in. */
  readonly bring: (files: readonly File[]) => Promise<string | null>
  readonly stop: () => void
}

const readable = new RegExp(`\\.(${lutExtensions.join('|')})$`, 'i')
const endings = lutExtensions.map((e) => `.${e}`).join(', ')
/** The innermost folder that a file came in. */
const folderOf = (file: File): string => file.webkitRelativePath.split('/').slice(0, -1).at(-1) ?? ''

export function useBringing(): Bringing {
  const lutStore = useLuts()
  const done = ref(0)
  const total = ref(0)
  const refused = ref<readonly string[]>([])
  let stopped = false
  async function bring(files: readonly File[]): Promise<string | null> {
    const wanted = files.filter((f) => readable.test(f.name))
    stopped = false
    done.value = 0
    total.value = wanted.length
    refused.value =
      wanted.length < files.length && wanted.length === 0
        ? [`Nothing there is a LUT: files ending in ${endings} are read.`]
        : []
    let last: string | null = null
    for (const file of wanted) {
      if (stopped) break
      try {
        last = (await lutStore.importFile(file, folderOf(file))).hash
      } catch (error) {
        refused.value = [...refused.value, `${file.name}: ${sentenceOf(error)}`]
      }
      done.value++
    }
    total.value = 0
    await lutStore.load()
    return last
  }
  return {
    done,
    total,
    refused,
    bring,
    stop: () => {
      stopped = true
    },
  }
}
