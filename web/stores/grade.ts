// Document state: the grade being edited, and its way to the server. What is called saved is committed there.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { checked } from '@contracts/check'
import { checkedGrade } from '@contracts/grade'
import { HeadMove, NewFork, type RevisionWhy } from '@contracts/requests'
import type { RevisionState, ShotDetail } from '@contracts/responses'
import { differences, mergeGrades, type GradeDocument } from '@core/grade'
import { post, RequestError, sentenceOf } from '../api/client'
import { draftLeft, dropDraft, keepDraft } from './drafts'

export type SaveState = 'saved' | 'unsaved' | 'saving' | 'retrying' | 'conflict' | 'refused'

/** An edit is sent when the hand has rested this long. */
const restMs = 350
const retryMs = [500, 1000, 2000, 4000, 8000] as const

export const useGrade = defineStore('grade', () => {
  const shotId = ref<string | null>(null)
  const document = shallowRef<GradeDocument | null>(null)
  const revision = shallowRef<Omit<RevisionState, 'grade'> | null>(null)
  const saveState = ref<SaveState>('saved')
  const message = ref('')
  /** The state another tab or person made meanwhile. */
  const newer = shallowRef<RevisionState | null>(null)
  const moving = ref(false)
  /** Edits stay with this shot, though it is linked with others. */
  const alone = ref(false)

  /** The document that the server last agreed on: what was changed here was changed from it. */
  let base: GradeDocument | null = null
  let summary = ''
  let why: RevisionWhy | undefined
  let edits = 0
  let sentEdits = 0
  let held = 0
  let failures = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  let sending: Promise<void> | null = null

  const dirty = (): boolean => edits !== sentEdits
  const canUndo = computed(
    () => saveState.value !== 'conflict' && (revision.value?.canUndo === true || saveState.value === 'unsaved'),
  )
  const canRedo = computed(() => saveState.value === 'saved' && revision.value?.canRedo === true)

  function open(shot: ShotDetail): void {
    clearTimeout(timer)
    if (shotId.value !== shot.id) alone.value = false
    shotId.value = shot.id
    take(shot.revision)
    void takeUp(shot)
  }

  /** What a tab that was killed, or this one while the server was away, had not sent is gone on with. */
  async function takeUp({ id, revision: state }: ShotDetail): Promise<void> {
    const left = await draftLeft(id)
    // What cannot be taken up now waits for the next time.
    if (!left || shotId.value !== id || dirty() || revision.value?.headId !== state.headId) return
    const { draft, putAway } = left
    const clashes = draft.parentId !== state.headId
    putAway()
    try {
      const mine = checkedGrade(draft.grade)
      if (differences(state.grade, mine).length === 0) return
      alone.value = draft.alone
      if (clashes) {
        // It was made on another state, and is kept as that until it is decided.
        base = checkedGrade(draft.base)
        revision.value = { ...revision.value, headId: draft.parentId }
      }
      edit(draft.summary, () => mine, draft.why)
      if (clashes)
        collide(
          state,
          'This shot was changed elsewhere before your last edit was sent. Take the newer state, put both ' +
            'together, or keep yours beside it.',
        )
    } catch {
      // Not a grade any more: nothing to go on with.
    }
  }
  function collide(state: RevisionState, sentence: string): void {
    clearTimeout(timer)
    message.value = sentence
    newer.value = state
    saveState.value = 'conflict'
  }

  function take({ grade, ...rest }: RevisionState): void {
    document.value = base = grade
    revision.value = rest
    newer.value = null
    message.value = ''
    saveState.value = 'saved'
    sentEdits = edits
    failures = 0
  }
  /** Takes a state in place of what was edited here. */
  function replace(state: RevisionState): void {
    take(state)
    if (shotId.value) dropDraft(shotId.value)
  }

  /** Replaces the document by what `change` makes of it. `what` names the edit in the record. */
  function edit(what: string, change: (grade: GradeDocument) => GradeDocument, because?: RevisionWhy): void {
    const before = document.value
    if (!before) return
    const after = change(before)
    if (after === before) return
    document.value = after
    summary = what
    why = because
    edits++
    if (saveState.value !== 'conflict') saveState.value = 'unsaved'
    if (held === 0) draft()
    schedule(restMs)
  }
  function draft(): void {
    if (shotId.value && document.value && base && revision.value)
      keepDraft(shotId.value, {
        parentId: revision.value.headId,
        summary,
        ...(why ? { why } : {}),
        alone: alone.value,
        grade: document.value,
        base,
      })
  }

  /** While a hand holds a control nothing is sent, so that one gesture is one revision. */
  function hold(): void {
    held++
  }
  function release(): void {
    held = Math.max(0, held - 1)
    if (!dirty()) return
    draft()
    schedule(restMs)
  }

  function schedule(ms: number): void {
    clearTimeout(timer)
    timer = setTimeout(() => {
      if (held === 0) void commit()
    }, ms)
  }

  /** Sends what is not saved yet, and resolves when it is (or cannot be). */
  async function commit(): Promise<void> {
    clearTimeout(timer)
    while (sending) await sending
    if (!dirty() || saveState.value === 'conflict') return
    sending = send().finally(() => {
      sending = null
    })
    await sending
    if (dirty() && saveState.value === 'unsaved') schedule(restMs)
  }

  function payload(): {
    parentId: string
    summary: string
    grade: GradeDocument
    why?: RevisionWhy
    alone?: boolean
  } | null {
    if (!document.value || !revision.value) return null
    return {
      parentId: revision.value.headId,
      summary: summary.slice(0, 400) || 'Edited',
      grade: checkedGrade(document.value),
      ...(why ? { why } : {}),
      ...(alone.value ? { alone: true } : {}),
    }
  }

  async function send(): Promise<void> {
    const id = shotId.value
    const sent = edits
    saveState.value = 'saving'
    try {
      const body = payload()
      if (!body) return
      const { grade: _, ...rest } = await post<RevisionState>(`/shots/${id}/revisions`, body)
      if (shotId.value !== id) return
      revision.value = rest
      base = body.grade
      sentEdits = sent
      failures = 0
      message.value = ''
      saveState.value = dirty() ? 'unsaved' : 'saved'
      if (id && !dirty()) dropDraft(id)
    } catch (error) {
      if (shotId.value === id) failed(error)
    }
  }

  function failed(error: unknown): void {
    message.value = sentenceOf(error)
    if (error instanceof RequestError && error.status === 409) {
      const state = (error.body as { newer: RevisionState }).newer
      // The same, sent before the tab was closed or its answer lost.
      if (document.value && differences(state.grade, document.value).length === 0) replace(state)
      else collide(state, error.sentence)
    } else if (error instanceof RequestError && (error.status === 0 || error.status >= 500)) {
      saveState.value = 'retrying'
      schedule(retryMs[Math.min(failures++, retryMs.length - 1)] ?? 8000)
    } else {
      saveState.value = 'refused'
    }
  }

  /** Ends a conflict: take the newer state, or put this one on top of it. */
  function takeNewer(): void {
    if (newer.value) replace(newer.value)
  }
  /** Goes on from the newer state with `mine` as the document. */
  function onTopOfNewer(mine: GradeDocument): void {
    if (!newer.value) return
    const { grade, ...rest } = newer.value
    document.value = mine
    base = grade
    revision.value = rest
    newer.value = null
    message.value = ''
    edits++
    saveState.value = 'unsaved'
    schedule(0)
  }
  /** A message that has been read goes; what has to be decided stays. */
  function dismiss(): void {
    if (saveState.value !== 'conflict') message.value = ''
  }
  function keepMine(): void {
    if (document.value) onTopOfNewer(document.value)
  }
  /** What the other hand changed, and what both did; null while there is no conflict. */
  const clash = computed(() => {
    if (!newer.value || !base || !document.value) return null
    const merged = mergeGrades(base, document.value, newer.value.grade)
    return { theirs: differences(base, newer.value.grade).map((d) => d.words), both: merged.both, merged: merged.grade }
  })
  function mergeBoth(): void {
    if (!clash.value) return
    summary = `Both together: ${summary}`
    onTopOfNewer(clash.value.merged)
  }
  /** Keeps this state beside the newer one, as a version, and takes the newer. */
  async function fork(name: string): Promise<void> {
    if (!newer.value || !document.value || !revision.value) return
    try {
      await post(
        `/shots/${shotId.value}/fork`,
        checked(NewFork, {
          parentId: revision.value.headId,
          summary: summary || 'Edited',
          name,
          grade: checkedGrade(document.value),
        }),
      )
      takeNewer()
    } catch (error) {
      message.value = sentenceOf(error)
    }
  }

  async function move(direction: 'undo' | 'redo'): Promise<void> {
    if (moving.value) return
    moving.value = true
    try {
      held = 0
      await commit()
      const id = shotId.value
      if (!revision.value || dirty()) return
      const state = await post<RevisionState>(
        `/shots/${id}/${direction}`,
        checked(HeadMove, { expectedId: revision.value.headId }),
      )
      if (shotId.value === id) replace(state)
    } catch (error) {
      if (error instanceof RequestError && error.status === 409) replace((error.body as { newer: RevisionState }).newer)
      message.value = sentenceOf(error)
    } finally {
      moving.value = false
    }
  }

  /** Called when the page goes: the last edit is sent in a way that outlives the page. */
  function flushOnLeave(): void {
    if (!dirty() || saveState.value === 'conflict') return
    try {
      const body = payload()
      if (body)
        void fetch(`/api/shots/${shotId.value}/revisions`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
          keepalive: true,
        })
    } catch {
      // The document does not meet its contract; the message on screen has said so.
    }
  }

  return {
    shotId,
    document,
    revision,
    saveState,
    message,
    newer,
    canUndo,
    canRedo,
    moving,
    alone,
    clash,
    open,
    take,
    edit,
    hold,
    release,
    commit,
    takeNewer,
    keepMine,
    dismiss,
    mergeBoth,
    fork,
    undo: () => move('undo'),
    redo: () => move('redo'),
    flushOnLeave,
    isDirty: dirty,
  }
})
