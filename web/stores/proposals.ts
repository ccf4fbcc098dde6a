// What is proposed for many shots of a reel, balanced or matched to one of them: to accept, open or refuse. It goes on
// while another view is open; nothing is changed until a person says so.
import { cutTo } from '@core/names'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { RevisionWhy } from '@contracts/requests'
import type { ShotProposal, ShotSummary } from '@contracts/responses'
import { post, request, sentenceOf } from '../api/client'

export type ProposalState = 'waiting' | 'working' | 'proposed' | 'nothing' | 'none' | 'accepted' | 'refused' | 'failed'

export interface ProposalEntry {
  readonly shot: ShotSummary
  readonly state: ProposalState
  readonly proposal: ShotProposal | null
  /** The choice that is looked at, by its place. */
  readonly at: number
  readonly fault: string
}

/** What is asked for: Balance for me, or a match to a shot as it was when it was chosen. */
export type Asked = { readonly kind: 'balance' } | { readonly kind: 'match'; readonly reference: ShotSummary }

function stateOf({ choices }: ShotProposal): ProposalState {
  const [advised] = choices
  if (!advised) return 'none'
  return advised.changes.length > 0 ? 'proposed' : 'nothing'
}

/** Shots under way at once: the server has about as many cores. */
const atOnce = 2

export const useProposals = defineStore('proposals', () => {
  const entries = shallowRef<readonly ProposalEntry[]>([])
  const projectId = ref('')
  const asked = shallowRef<Asked>({ kind: 'balance' })
  let runs = 0

  const set = (id: string, change: Partial<ProposalEntry>): void => {
    entries.value = entries.value.map((e) => (e.shot.id === id ? { ...e, ...change } : e))
  }
  const entryOf = (id: string): ProposalEntry | undefined => entries.value.find((e) => e.shot.id === id)
  const done = computed(() => entries.value.filter((e) => e.state !== 'waiting' && e.state !== 'working').length)
  const running = computed(() => entries.value.some((e) => e.state === 'waiting' || e.state === 'working'))
  const open = computed(() => entries.value.filter((e) => e.state === 'proposed'))

  const addressOf = (id: string): string =>
    asked.value.kind === 'match' ? `/shots/${id}/match/${asked.value.reference.id}` : `/shots/${id}/balance`
  /** The picture of the choice that is looked at; the address changes with what it rests on. */
  const pictureOf = ({ shot, proposal, at }: ProposalEntry): string =>
    `/api${addressOf(shot.id)}/${proposal?.choices[at]?.id}?of=${proposal?.headId}` +
    (asked.value.kind === 'match' ? `&to=${asked.value.reference.headId}` : '')

  async function ask(id: string): Promise<void> {
    set(id, { state: 'working', fault: '' })
    try {
      const proposal = await request<ShotProposal>(addressOf(id))
      set(id, { proposal, at: 0, state: stateOf(proposal) })
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
  async function start(of: readonly ShotSummary[], what: Asked = { kind: 'balance' }): Promise<void> {
    const shots = what.kind === 'match' ? of.filter((s) => s.id !== what.reference.id) : of
    const [first] = shots
    if (!first) return
    const run = ++runs
    projectId.value = first.projectId
    asked.value = what
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

  const said = (words: string): { readonly summary: string; readonly why: RevisionWhy } =>
    asked.value.kind === 'match'
      ? {
          summary: cutTo(`Matched to ${asked.value.reference.name}`, 400),
          why: { kind: 'matched', aims: [words], from: asked.value.reference.headId },
        }
      : { summary: 'Balance for me', why: { kind: 'balance', aims: [words] } }

  async function accept(id: string): Promise<void> {
    const entry = entryOf(id)
    const choice = entry?.proposal?.choices[entry.at]
    if (!entry?.proposal || !choice || choice.changes.length === 0) return refuse(id)
    try {
      await post(`/shots/${id}/revisions`, {
        parentId: entry.proposal.headId,
        ...said(cutTo(`${choice.name}: ${choice.sentence}`, 200)),
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
  return {
    entries,
    projectId,
    asked,
    pictureOf,
    done,
    running,
    open,
    start,
    cancel,
    close,
    look,
    ask,
    refuse,
    accept,
    acceptAll,
  }
})
