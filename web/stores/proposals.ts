// What is proposed for many shots of a reel, balanced or matched to one of them: to accept, open or refuse. It goes on
// while another view is open; nothing is changed until a person says so.
import { cutTo } from '@core/names'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { checked } from '@contracts/check'
import { NewWaiver, PickedArea } from '@contracts/readings'
import type { RevisionWhy } from '@contracts/requests'
import type {
  OutsideReading,
  ProposedPlace,
  RevisionState,
  ShotDetail,
  ShotProposal,
  ShotSummary,
} from '@contracts/responses'
import type { CarriedStation } from '@core/aims'
import { waivableKey, waivedKeys } from '@core/readings'
import { moveRegions, type GradeDocument } from '@core/grade'
import { ifSeen, post, put, request, sentenceOf } from '../api/client'

export type ProposalState =
  'waiting' | 'working' | 'proposed' | 'nothing' | 'none' | 'accepted' | 'undone' | 'refused' | 'failed'

export interface ProposalEntry {
  readonly shot: ShotSummary
  readonly state: ProposalState
  readonly proposal: ShotProposal | null
  /** The choice that is looked at, by its place. */
  readonly at: number
  readonly fault: string
  /** The revision that accepting made. */
  readonly acceptedId?: string
  /** What lies outside its standard and was ignored here, with a reason. */
  readonly ignored: readonly OutsideReading[]
  /** Regions and subjects that a person put, or left, where they are: by how much of the picture they were moved. */
  readonly put: ReadonlyMap<string, { readonly x: number; readonly y: number }>
}

/** Places that nobody is sure of yet. */
export const openPlaces = ({ proposal, put }: ProposalEntry): readonly ProposedPlace[] =>
  proposal?.places?.filter((p) => !p.sure && !put.has(p.id)) ?? []
/** What a choice makes of a shot: its regions where a person put them. */
export const gradeOfChoice = ({ proposal, at, put }: ProposalEntry): GradeDocument | undefined => {
  const grade = proposal?.choices[at]?.grade
  return grade && moveRegions(grade, movesOf(put))
}
const movesOf = (put: ProposalEntry['put']) => [...put].map(([id, by]) => ({ id, ...by }))

/** What lies outside the standard in what was found or accepted, and was not ignored. */
export const leftOutside = ({ state, proposal, ignored }: ProposalEntry): readonly OutsideReading[] =>
  state === 'refused' || state === 'undone'
    ? []
    : (proposal?.outside ?? []).filter((one) => !waivedKeys(ignored).has(waivableKey(one)))

export interface Carrying {
  readonly kind: 'carry'
  readonly reference: ShotSummary
  readonly stations: readonly CarriedStation[]
  readonly solve: boolean
  /** An earlier grade of the reference, and the frame that it was kept at. */
  readonly kept?: { readonly revisionId: string; readonly frame: number; readonly name: string }
}
/** Each shot comes to the hero of its scene. */
export interface FirstPass {
  readonly kind: 'first-pass'
  readonly heroOf: ReadonlyMap<string, ShotSummary>
}
export type Asked =
  { readonly kind: 'balance' } | { readonly kind: 'match'; readonly reference: ShotSummary } | FirstPass | Carrying

/** What a shot is brought to; undefined where it is by itself. */
function referenceOf(asked: Asked, shotId: string): ShotSummary | undefined {
  if (asked.kind === 'first-pass') return asked.heroOf.get(shotId)
  return 'reference' in asked ? asked.reference : undefined
}

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
  /** What a person has still to say something about: a proposal; after a first pass, also what is left outside. */
  const undecided = computed(() =>
    entries.value.filter(
      (e) => e.state === 'proposed' || (asked.value.kind === 'first-pass' && leftOutside(e).length > 0),
    ),
  )
  /** What may be accepted without a look at each: a match that rests on nothing shared is not among it. */
  const sure = computed(() =>
    open.value.filter((e) => {
      if (asked.value.kind === 'balance') return true
      // What was asked about and answered is sure; what would be lost is accepted by itself or not at all.
      if (asked.value.kind === 'carry') return openPlaces(e).length === 0 && !e.proposal?.losses?.length
      return e.proposal?.choices[e.at]?.sure
    }),
  )

  const addressOf = (id: string): string => {
    const { kind } = asked.value
    return `/shots/${id}/${[kind, referenceOf(asked.value, id)?.id ?? []].flat().join('/')}`
  }
  const queryOf = (of: Asked): Record<string, string> =>
    of.kind === 'carry'
      ? {
          stations: of.stations.join(','),
          solve: of.solve ? '1' : '0',
          ...(of.kept ? { revision: of.kept.revisionId, frame: String(of.kept.frame) } : {}),
        }
      : {}
  /** The picture of the choice that is looked at; the address changes with what it rests on. */
  const pictureOf = ({ shot, proposal, at, put: by }: ProposalEntry): string => {
    const { value: of } = asked
    const query = new URLSearchParams(queryOf(of))
    query.set('of', proposal?.headId ?? '')
    const to = referenceOf(of, shot.id)
    if (to) query.set('to', to.headId)
    const moved = movesOf(by).filter(({ x, y }) => x !== 0 || y !== 0)
    if (moved.length > 0) query.set('moved', moved.map(({ id, x, y }) => `${id}:${x}:${y}`).join(','))
    return `/api${addressOf(shot.id)}/${proposal?.choices[at]?.id}?${query.toString()}`
  }

  async function ask(id: string): Promise<void> {
    set(id, { state: 'working', fault: '' })
    try {
      const query = new URLSearchParams(queryOf(asked.value)).toString()
      const proposal = await request<ShotProposal>(`${addressOf(id)}${query === '' ? '' : `?${query}`}`)
      set(id, { proposal, at: 0, state: stateOf(proposal), put: new Map(), ignored: [] })
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
    const shots =
      what.kind === 'match' || (what.kind === 'carry' && !what.kept) ? of.filter((s) => s.id !== what.reference.id) : of
    const [first] = shots
    if (!first) return
    const run = ++runs
    projectId.value = first.projectId
    asked.value = what
    entries.value = shots.map((shot) => ({
      shot,
      state: 'waiting',
      proposal: null,
      at: 0,
      fault: '',
      put: new Map(),
      ignored: [],
    }))
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

  function said(
    shotId: string,
    words: string,
    aims: readonly string[],
  ): { readonly summary: string; readonly why: RevisionWhy } {
    const { value: of } = asked
    switch (of.kind) {
      case 'balance':
        return { summary: 'Balance for me', why: { kind: 'balance', aims: [words] } }
      case 'carry':
        return {
          summary: cutTo(
            `Grade of ${of.kept?.name ?? of.reference.name}${of.solve ? ', solved for this shot' : ''}`,
            400,
          ),
          why: {
            kind: 'carried',
            from: of.kept?.revisionId ?? of.reference.headId,
            ...(aims.length > 0 ? { aims: [...aims] } : {}),
          },
        }
      default: {
        const to = referenceOf(of, shotId)
        return {
          summary: cutTo(of.kind === 'match' ? `Matched to ${of.reference.name}` : words, 400),
          why: { kind: 'matched', aims: [words], ...(to ? { from: to.headId } : {}) },
        }
      }
    }
  }

  /** Says where something lies: moved from where it was found, by shares of the picture, or left there. */
  function putPlace(shotId: string, id: string, x: number, y: number): void {
    const entry = entryOf(shotId)
    if (!entry) return
    const before = entry.put.get(id) ?? { x: 0, y: 0 }
    set(shotId, { put: new Map([...entry.put, [id, { x: before.x + x, y: before.y + y }]]) })
  }
  /** Subjects that were found, or put, are pointed out in the shot. */
  async function pointOut({ shot, proposal, put: moved }: ProposalEntry): Promise<void> {
    for (const { kind, id, sure: found, area } of proposal?.places ?? []) {
      const by = moved.get(id) ?? (found ? { x: 0, y: 0 } : null)
      if (kind !== 'subject' || !area || !by) continue
      const held = (share: number): number => Math.min(1, Math.max(0, share))
      const pick = {
        frame: shot.leadFrame,
        area: {
          left: held(area.left + by.x),
          top: held(area.top + by.y),
          right: held(area.right + by.x),
          bottom: held(area.bottom + by.y),
        },
      }
      await put(`/shots/${shot.id}/subjects/${id}`, checked(PickedArea, pick), ifSeen(null))
    }
  }

  async function accept(id: string): Promise<void> {
    const entry = entryOf(id)
    const choice = entry?.proposal?.choices[entry.at]
    if (!entry?.proposal || !choice || choice.changes.length === 0) return refuse(id)
    try {
      const { headId } = await post<RevisionState>(`/shots/${id}/revisions`, {
        parentId: entry.proposal.headId,
        ...said(id, cutTo(`${choice.name}: ${choice.sentence}`, 200), choice.aims ?? []),
        grade: gradeOfChoice(entry),
      })
      set(id, { state: 'accepted', fault: '', acceptedId: headId })
    } catch (error) {
      return set(id, { state: 'failed', fault: sentenceOf(error) })
    }
    // The grade is kept, whatever becomes of these.
    await pointOut(entry).catch((error: unknown) => set(id, { fault: sentenceOf(error) }))
  }
  /** Leaves what lies outside as it is, for these reasons; what is proposed is accepted with it. */
  async function ignore(id: string, outside: readonly OutsideReading[]): Promise<void> {
    if (entryOf(id)?.state === 'proposed') await accept(id)
    if (entryOf(id)?.state === 'failed') return
    try {
      for (const one of outside) {
        await waive(id, one, true)
        set(id, { ignored: [...(entryOf(id)?.ignored ?? []), one], fault: '' })
      }
    } catch (error) {
      set(id, { fault: sentenceOf(error) })
    }
  }
  const waive = (id: string, { reading, subject, reason }: OutsideReading, waived: boolean): Promise<ShotDetail> =>
    post<ShotDetail>(
      `/shots/${id}/waivers`,
      checked(NewWaiver, { reading, waived, ...(subject ? { subject } : {}), ...(waived ? { reason } : {}) }),
    )

  /** Shots that something was changed in from here. */
  const changed = computed(() => entries.value.filter((e) => e.state === 'accepted' || e.ignored.length > 0))
  /** Takes back all that was accepted and ignored here; what was changed since then stays, and says so. */
  async function undoAll(): Promise<void> {
    for (const { shot, state, acceptedId, ignored } of changed.value)
      try {
        for (const one of ignored) await waive(shot.id, one, false)
        if (state === 'accepted') await post(`/shots/${shot.id}/undo`, { expectedId: acceptedId })
        set(shot.id, { state: 'undone', fault: '', ignored: [] })
      } catch (error) {
        set(shot.id, { state: 'failed', fault: sentenceOf(error) })
      }
  }
  async function acceptAll(): Promise<void> {
    for (const { shot } of sure.value) await accept(shot.id)
  }
  return {
    entries,
    projectId,
    asked,
    pictureOf,
    done,
    running,
    undecided,
    sure,
    changed,
    ignore,
    undoAll,
    start,
    cancel,
    close,
    look,
    putPlace,
    ask,
    refuse,
    accept,
    acceptAll,
  }
})
