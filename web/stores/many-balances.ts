// Balance for me over many shots of a reel: what is proposed for each, to accept, open or refuse. It goes on while
// another view is open; nothing is changed until a person says so.
import { cutTo } from '@core/names'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { ShotBalance, ShotSummary } from '@contracts/responses'
import { post, request, sentenceOf } from '../api/client'

export type BalanceState = 'waiting' | 'working' | 'proposed' | 'nothing' | 'accepted' | 'refused' | 'failed'

export interface BalanceEntry {
  readonly shot: ShotSummary
  readonly state: BalanceState
  readonly proposal: ShotBalance | null
  /** The choice that is looked at, by its place. */
  readonly at: number
  readonly fault: string
}

/** Shots under way at once: the server has about as many cores. */
const atOnce = 2

export const useManyBalances = defineStore('many-balances', () => {
  const entries = shallowRef<readonly BalanceEntry[]>([])
  const projectId = ref('')
  let runs = 0

  const set = (id: string, change: Partial<BalanceEntry>): void => {
    entries.value = entries.value.map((e) => (e.shot.id === id ? { ...e, ...change } : e))
  }
  const entryOf = (id: string): BalanceEntry | undefined => entries.value.find((e) => e.shot.id === id)
  const done = computed(() => entries.value.filter((e) => e.state !== 'waiting' && e.state !== 'working').length)
  const running = computed(() => entries.value.some((e) => e.state === 'waiting' || e.state === 'working'))
  const open = computed(() => entries.value.filter((e) => e.state === 'proposed'))

  async function ask(id: string): Promise<void> {
    set(id, { state: 'working', fault: '' })
    try {
      const proposal = await request<ShotBalance>(`/shots/${id}/balance`)
      const needed = (proposal.choices[0]?.changes.length ?? 0) > 0
      set(id, { proposal, at: 0, state: needed ? 'proposed' : 'nothing' })
    } catch (error) {
      set(id, { state: 'failed', fault: sentenceOf(error) })
    }
  }
  async function work(run: number): Promise<void> {
    for (;;) {
      const next = entries.value.find((e) => e.state === 'waiting')
      if (!next || run !== runs) return
      await ask(next.shot.id)
    }
  }
  async function start(shots: readonly ShotSummary[]): Promise<void> {
    const [first] = shots
    if (!first) return
    const run = ++runs
    projectId.value = first.projectId
    entries.value = shots.map((shot) => ({ shot, state: 'waiting', proposal: null, at: 0, fault: '' }))
    await Promise.all(Array.from({ length: atOnce }, () => work(run)))
  }
  /** What was not begun is left out; what was found stays. */
  function cancel(): void {
    runs++
    entries.value = entries.value.filter((e) => e.state !== 'waiting')
  }
  function close(): void {
    runs++
    entries.value = []
  }
  function look(id: string, at: number): void {
    if (entryOf(id)?.proposal?.choices[at]) set(id, { at })
  }
  const refuse = (id: string): void => set(id, { state: 'refused' })

  async function accept(id: string): Promise<void> {
    const entry = entryOf(id)
    const choice = entry?.proposal?.choices[entry.at]
    if (!entry?.proposal || !choice || choice.changes.length === 0) return refuse(id)
    try {
      await post(`/shots/${id}/revisions`, {
        parentId: entry.proposal.headId,
        summary: 'Balance for me',
        why: { kind: 'balance', aims: [cutTo(`${choice.name}: ${choice.sentence}`, 200)] },
        grade: choice.grade,
      })
      set(id, { state: 'accepted', fault: '' })
    } catch (error) {
      set(id, { state: 'failed', fault: sentenceOf(error) })
    }
  }
  async function acceptAll(): Promise<void> {
    for (const { shot } of open.value) await accept(shot.id)
  }
  return { entries, projectId, done, running, open, start, cancel, close, look, ask, refuse, accept, acceptAll }
})
