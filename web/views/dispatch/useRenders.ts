// The project's renders, asked for again while one of them is under way.
import { computed, onScopeDispose, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'
import { checked } from '@contracts/check'
import { NewRender } from '@contracts/requests'
import type { RenderSummary } from '@contracts/responses'
import { post, request, sentenceOf } from '../../api/client'
import { useRemoval, type Removal } from '../../composables/useRemoval'
import { text } from './text'

export interface Renders {
  readonly list: ShallowRef<readonly RenderSummary[]>
  readonly fault: ShallowRef<string>
  readonly busy: ComputedRef<boolean>
  readonly start: (revisionId: string) => Promise<void>
  readonly cancel: (id: string) => Promise<void>
  readonly removed: Removal['last']
  readonly remove: (render: RenderSummary) => Promise<void>
  readonly bringBack: () => Promise<void>
}

const everyMs = 400

export function useRenders(projectId: Ref<string | undefined>): Renders {
  const list = shallowRef<readonly RenderSummary[]>([])
  const fault = shallowRef('')
  let timer: ReturnType<typeof setTimeout> | undefined
  let closed = false
  const underWay = (r: RenderSummary): boolean => r.state === 'queued' || r.state === 'running'
  const busy = computed(() => list.value.some(underWay))

  async function refresh(): Promise<void> {
    clearTimeout(timer)
    const id = projectId.value
    if (!id || closed) return
    try {
      list.value = await request<readonly RenderSummary[]>(`/projects/${id}/renders`)
      fault.value = ''
    } catch (error) {
      fault.value = sentenceOf(error)
    }
    clearTimeout(timer)
    if (!closed && (busy.value || fault.value)) timer = setTimeout(() => void refresh(), everyMs)
  }
  async function attempt(work: () => Promise<unknown>): Promise<void> {
    try {
      await work()
      await refresh()
    } catch (error) {
      fault.value = sentenceOf(error)
    }
  }
  const removal = useRemoval(refresh)
  watch(projectId, () => void refresh(), { immediate: true })
  onScopeDispose(() => {
    closed = true
    clearTimeout(timer)
  })
  return {
    list,
    fault,
    busy,
    start: (revisionId) => attempt(() => post('/renders', checked(NewRender, { revisionId }))),
    cancel: (id) => attempt(() => post(`/renders/${id}/cancel`, {})),
    removed: removal.last,
    remove: ({ id, shotName }) => attempt(() => removal.remove(`/renders/${id}`, text.renderOf(shotName))),
    bringBack: () => attempt(removal.bringBack),
  }
}
