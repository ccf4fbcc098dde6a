// What goes on in the background of a project: imports and surveys, asked for while there is any.
import { useIntervalFn } from '@vueuse/core'
import { computed, shallowRef, watch, type ComputedRef, type ShallowRef } from 'vue'
import type { WorkSummary } from '@contracts/responses'
import { request } from '../../api/client'

export interface ReelWork {
  readonly all: ShallowRef<readonly WorkSummary[]>
  /** Imports, and what went wrong: each is shown. */
  readonly shown: ComputedRef<readonly WorkSummary[]>
  readonly surveys: ComputedRef<readonly WorkSummary[]>
  /** `sent`: something was just handed in; it may have come to its end before anyone looks. */
  readonly refresh: (sent?: boolean) => Promise<void>
  readonly end: (id: string) => Promise<void>
}

const busyMs = 250
const idleMs = 4000

/** @param onChange called when something came to its end */
export function useReelWork(projectId: () => string, onChange: () => void): ReelWork {
  const all = shallowRef<readonly WorkSummary[]>([])
  let before = new Set<string>()
  async function refresh(sent = false): Promise<void> {
    const now = await request<readonly WorkSummary[]>(`/projects/${projectId()}/work`).catch(() => null)
    if (!now) return
    const active = new Set(now.filter((w) => w.state !== 'failed').map((w) => w.id))
    const ended =
      [...before].some((id) => !active.has(id)) ||
      (sent && !now.some((w) => w.kind === 'import' && w.state !== 'failed'))
    before = active
    all.value = now
    if (ended) onChange()
  }
  const busy = computed(() => all.value.some((w) => w.state !== 'failed'))
  const pace = computed(() => (busy.value ? busyMs : idleMs))
  useIntervalFn(() => void refresh(), pace)
  watch(
    projectId,
    () => {
      before = new Set()
      void refresh()
    },
    { immediate: true },
  )
  return {
    all,
    shown: computed(() => all.value.filter((w) => w.kind === 'import' || w.state === 'failed')),
    surveys: computed(() => all.value.filter((w) => w.kind === 'survey' && w.state !== 'failed')),
    refresh,
    end: async (id) => {
      await request(`/work/${id}`, { method: 'DELETE' })
      await refresh()
    },
  }
}
