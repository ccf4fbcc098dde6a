// Document state: the grade being edited, and its way to the server. What happens when is decided by the saving
// machine; here its effects are carried out.
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { checked } from '@contracts/check'
import { checkedGrade } from '@contracts/grade'
import { HeadMove, NewFork, type RevisionWhy } from '@contracts/requests'
import type { RevisionState, ShotDetail } from '@contracts/responses'
import { differences, mergeGrades, type GradeDocument } from '@core/grade'
import { post, RequestError, sentenceOf } from '../api/client'
import type { Gesture } from '../composables/useGesture'
import { draftLeft, dropDraft, keepDraft, writeDrafts } from '../saving/drafts'
import { savingMachine } from '../saving/machine'
import {
  isAtRest,
  isDirty,
  newSaving,
  standingOf,
  type Direction,
  type SaveBody,
  type SavingEffect,
  type SavingEvent,
  type SavingState,
} from '../saving/state'

const summaryLength = 400

const transition = savingMachine<GradeDocument, RevisionWhy, RevisionState>({
  same: (a, b) => a === b || differences(a, b).length === 0,
  merge: (base, mine, theirs) => mergeGrades(base, mine, theirs).grade,
})

const bodyOf = ({ summary, grade, ...rest }: SaveBody<GradeDocument, RevisionWhy>): object => ({
  ...rest,
  summary: summary.slice(0, summaryLength),
  grade: checkedGrade(grade),
})

export const useGrade = defineStore('grade', () => {
  const state = shallowRef<SavingState<GradeDocument, RevisionWhy, RevisionState>>(newSaving())
  let timer: ReturnType<typeof setTimeout> | undefined
  let gestures = 0
  /** Those who wait until nothing more happens by itself. */
  let waiting: (() => void)[] = []

  function dispatch(event: SavingEvent<GradeDocument, RevisionWhy, RevisionState>): void {
    const { state: next, effects } = transition(state.value, event)
    state.value = next
    for (const effect of effects) run(effect)
    if (!isAtRest(state.value)) return
    const done = waiting
    waiting = []
    for (const go of done) go()
  }

  function run(effect: SavingEffect<GradeDocument, RevisionWhy>): void {
    switch (effect.do) {
      case 'wait':
        clearTimeout(timer)
        timer = setTimeout(() => dispatch({ type: 'rested' }), effect.ms)
        break
      case 'stop waiting':
        clearTimeout(timer)
        break
      case 'keep draft':
        keepDraft(effect.shotId, effect.draft, effect.edits, state.value.gestures.size > 0)
        break
      case 'drop draft':
        dropDraft(effect.shotId, effect.edits)
        break
      case 'find draft':
        void findDraft(effect.shotId)
        break
      case 'save':
        void ask(effect.id, () => post(`/shots/${effect.shotId}/revisions`, bodyOf(effect.body)))
        break
      case 'move': {
        const { id, shotId, direction, expectedId } = effect
        void ask(id, () => post(`/shots/${shotId}/${direction}`, checked(HeadMove, { expectedId })))
        break
      }
      case 'save on leaving':
        sendOnLeaving(`/api/shots/${effect.shotId}/revisions`, effect.body)
        break
    }
  }

  /** Sends a request and tells the machine what became of it. */
  async function ask(id: number, send: () => Promise<RevisionState>): Promise<void> {
    try {
      // A document that does not meet its contract is refused like one that the server refuses.
      dispatch({ type: 'answered', id, revision: await Promise.resolve().then(send) })
    } catch (error) {
      const message = sentenceOf(error)
      if (error instanceof RequestError && error.status === 409)
        dispatch({ type: 'clashed', id, newer: (error.body as { newer: RevisionState }).newer, message })
      else
        dispatch({
          type: 'failed',
          id,
          again: error instanceof RequestError && (error.status === 0 || error.status >= 500),
          message,
        })
    }
  }

  async function findDraft(shotId: string): Promise<void> {
    const left = await draftLeft(shotId)
    if (!left || state.value.shotId !== shotId || isDirty(state.value)) return
    try {
      const { grade, base, sent, ...rest } = left.draft
      const before = state.value
      const draft = {
        ...rest,
        grade: checkedGrade(grade),
        base: checkedGrade(base),
        ...(sent ? { sent: checkedGrade(sent) } : {}),
      }
      dispatch({ type: 'draft found', shotId, draft })
      // What cannot be taken up now waits for the next time.
      if (state.value !== before || differences(draft.grade, before.document ?? draft.base).length === 0) left.putAway()
    } catch {
      // Not a grade any more: nothing to go on with.
      left.putAway()
    }
  }

  function sendOnLeaving(path: string, body: SaveBody<GradeDocument, RevisionWhy>): void {
    try {
      const sent = JSON.stringify(bodyOf(body))
      const headers = { 'content-type': 'application/json' }
      void fetch(path, { method: 'POST', headers, body: sent, keepalive: true }).catch(() => undefined)
    } catch {
      // The document does not meet its contract; the message on screen has said so.
    }
  }

  /** Replaces the document by what `change` makes of it. `summary` names the edit in the record. */
  function edit(summary: string, change: (grade: GradeDocument) => GradeDocument, why?: RevisionWhy): void {
    const { document } = state.value
    if (document) dispatch({ type: 'edited', document: change(document), summary, why })
  }
  /** The same where the edit is meant for a shot that may have been left; false when it was. */
  function editShot(
    shotId: string,
    summary: string,
    change: (grade: GradeDocument) => GradeDocument,
    why?: RevisionWhy,
  ): boolean {
    if (state.value.shotId !== shotId) return false
    edit(summary, change, why)
    return true
  }

  function beginGesture(): Gesture {
    const gesture = ++gestures
    dispatch({ type: 'gesture began', gesture })
    return { end: () => dispatch({ type: 'gesture ended', gesture }) }
  }

  /** Sends what is not saved yet, and resolves when it is (or cannot be). */
  function commit(): Promise<void> {
    dispatch({ type: 'commit' })
    return isAtRest(state.value) ? Promise.resolve() : new Promise((done) => waiting.push(done))
  }

  /** Keeps this state beside the newer one, as a version, and takes the newer. */
  async function fork(name: string): Promise<void> {
    const { agreed, document, shotId, summary } = state.value
    if (!newer.value || !agreed || !document) return
    try {
      const body = { parentId: agreed.headId, summary: summary || 'Edited', name, grade: checkedGrade(document) }
      await post(`/shots/${shotId}/fork`, checked(NewFork, body))
      dispatch({ type: 'take newer' })
    } catch (error) {
      dispatch({ type: 'said', message: sentenceOf(error) })
    }
  }

  async function move(direction: Direction): Promise<void> {
    dispatch({ type: 'move', direction })
    if (!isAtRest(state.value)) await new Promise<void>((done) => waiting.push(done))
  }

  const shotId = computed(() => state.value.shotId)
  const document = computed(() => state.value.document)
  const saveState = computed(() => standingOf(state.value))
  /** The state another tab or person made meanwhile. */
  const newer = computed(() => (state.value.trouble?.kind === 'conflict' ? state.value.trouble.newer : null))
  const moving = computed(() => state.value.queued !== null || state.value.request?.kind === 'move')
  /** What the other hand changed, and what both did; null while there is no conflict. */
  const clash = computed(() => {
    const { agreed, document: mine } = state.value
    if (!newer.value || !agreed || !mine) return null
    const { both } = mergeGrades(agreed.grade, mine, newer.value.grade)
    return { theirs: differences(agreed.grade, newer.value.grade).map((d) => d.words), both }
  })

  const canUndo = computed(
    () => saveState.value !== 'conflict' && (state.value.agreed?.canUndo === true || isDirty(state.value)),
  )

  return {
    shotId,
    document,
    /** The last state that the server agreed on. */
    revision: computed(() => state.value.agreed),
    saveState,
    message: computed(() => state.value.message),
    newer,
    clash,
    moving,
    canUndo,
    canRedo: computed(() => saveState.value === 'saved' && !moving.value && state.value.agreed?.canRedo === true),
    /** Edits stay with this shot, though it is linked with others. */
    alone: computed({
      get: () => state.value.alone,
      set: (alone) => dispatch({ type: 'alone', alone }),
    }),
    /** For the open-shot store alone: it decides which shot is open. */
    open: ({ id, revision }: ShotDetail): void => dispatch({ type: 'opened', shotId: id, revision }),
    /** A state that the server made of this shot on another way. */
    take: (of: string, revision: RevisionState): void => dispatch({ type: 'replaced', shotId: of, revision }),
    edit,
    editShot,
    beginGesture,
    commit,
    /** Nothing where there is nothing to go back to, or on to; another press while one is under way counts. */
    undo: async (): Promise<void> => {
      if (canUndo.value || moving.value) await move('undo')
    },
    redo: async (): Promise<void> => {
      if (state.value.agreed?.canRedo === true || moving.value) await move('redo')
    },
    takeNewer: (): void => dispatch({ type: 'take newer' }),
    keepMine: (): void => dispatch({ type: 'keep mine' }),
    mergeBoth: (): void => dispatch({ type: 'merge' }),
    dismiss: (): void => dispatch({ type: 'dismissed' }),
    fork,
    /** Called when the page goes: the last edit is sent in a way that outlives the page. */
    flushOnLeave: (): void => {
      dispatch({ type: 'leaving' })
      writeDrafts()
    },
  }
})
