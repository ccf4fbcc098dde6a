// Saving as a pure state machine: (state, event) → (state, effects). It holds the open shot's document and decides what
// is sent when, what a late or lost answer means, and what the browser keeps as a draft. Two promises, whatever happens
// in whatever order: what is called saved is on the server, and what is not is in the draft.

/** What the server says a shot's state is. */
import {
  type Revision,
  type Draft,
  type SaveRequest,
  type MoveRequest,
  type SavingState,
  type SavingEvent,
  type SaveBody,
  type SavingEffect,
  type Documents,
  isDirty,
  type Step,
} from './state'

/** An edit is sent when the hand has rested this long, in milliseconds. */
export const restMs = 350
export const retryMs = [500, 1000, 2000, 4000, 8000] as const

export function savingMachine<D, W, R extends Revision<D>>({ same, merge }: Documents<D>) {
  type State = SavingState<D, W, R>
  type Effect = SavingEffect<D, W>
  type Result = Step<D, W, R>

  const stay = (state: State): Result => ({ state, effects: [] })

  function bodyOf({ agreed, document, summary, why, alone }: State): SaveBody<D, W> | null {
    if (!agreed || document === null) return null
    return {
      parentId: agreed.headId,
      summary: summary || 'Edited',
      grade: document,
      ...(why === undefined ? {} : { why }),
      ...(alone ? { alone } : {}),
    }
  }

  function draftEffects(state: State): readonly Effect[] {
    const body = bodyOf(state)
    if (!isDirty(state) || !body || state.shotId === null || !state.agreed) return []
    const draft: Draft<D, W> = {
      ...body,
      alone: state.alone,
      base: state.agreed.grade,
      ...(state.request?.kind === 'save' ? { sent: state.request.grade } : {}),
    }
    return [{ do: 'keep draft', shotId: state.shotId, edits: state.edits, draft }]
  }

  /** The next request that the state calls for, if one may be sent. */
  function goOn(state: State): Result {
    if (state.request || state.shotId === null || !state.agreed || state.trouble?.kind === 'conflict')
      return stay(state)
    const id = state.nextRequest
    if (isDirty(state)) {
      const body = bodyOf(state)
      if (!body) return stay(state)
      const request: SaveRequest<D> = {
        kind: 'save',
        id,
        shotId: state.shotId,
        edits: state.edits,
        grade: body.grade,
      }
      const next: State = { ...state, request, nextRequest: id + 1 }
      return {
        state: next,
        effects: [
          { do: 'stop waiting' },
          // The draft says from now on what is on its way.
          ...draftEffects(next),
          { do: 'save', id, shotId: state.shotId, body },
        ],
      }
    }
    const { queued } = state
    if (!queued) return stay(state)
    const request: MoveRequest = { kind: 'move', id, shotId: state.shotId, edits: state.edits }
    return {
      state: { ...state, queued: null, request, nextRequest: id + 1 },
      effects: [{ do: 'move', id, shotId: state.shotId, direction: queued, expectedId: state.agreed.headId }],
    }
  }

  /** What was edited since `sent` is put on top of the state that the server answered with. */
  function agree(state: State, revision: R, sent: D, sentEdits: number): Result {
    const dirty = state.edits !== sentEdits
    const mine = state.document ?? sent
    const untouched = same(revision.grade, sent)
    const theirs = same(revision.grade, mine) ? mine : revision.grade
    const document = dirty ? rebased(sent, mine, revision.grade, untouched) : theirs
    const next: State = {
      ...state,
      agreed: { ...revision, grade: untouched ? sent : revision.grade },
      document,
      savedEdits: sentEdits,
      request: null,
      trouble: null,
      message: '',
    }
    if (!dirty)
      return join({ state: next, effects: [{ do: 'drop draft', shotId: keyOf(next), edits: sentEdits }] }, goOn)
    return { state: next, effects: [...draftEffects(next), ...waiting(next)] }
  }
  const rebased = (sent: D, mine: D, theirs: D, untouched: boolean): D => (untouched ? mine : merge(sent, mine, theirs))
  const keyOf = ({ shotId }: State): string => shotId ?? ''

  function join(first: Result, next: (state: State) => Result): Result {
    const second = next(first.state)
    return { state: second.state, effects: [...first.effects, ...second.effects] }
  }

  const waiting = (state: State): readonly Effect[] =>
    isDirty(state) && state.gestures.size === 0 && state.trouble?.kind !== 'conflict'
      ? [{ do: 'wait', ms: restMs }]
      : []

  /** Takes a state of the server in place of what is here. */
  function replace(state: State, revision: R, message = ''): Result {
    const next: State = {
      ...state,
      agreed: revision,
      document: revision.grade,
      savedEdits: state.edits,
      queued: null,
      trouble: null,
      message,
    }
    return {
      state: next,
      effects: [{ do: 'stop waiting' }, { do: 'drop draft', shotId: keyOf(next), edits: state.edits }],
    }
  }

  function conflict(state: State, newer: R, message: string): Result {
    const next: State = { ...state, request: null, queued: null, trouble: { kind: 'conflict', newer }, message }
    return { state: next, effects: [{ do: 'stop waiting' }, ...draftEffects(next)] }
  }

  /** Goes on from the newer state with `mine` as the document. */
  function onTopOf(state: State, newer: R, mine: D, summary: string): Result {
    const next: State = {
      ...state,
      agreed: newer,
      document: mine,
      summary,
      edits: state.edits + 1,
      trouble: null,
      message: '',
    }
    return join({ state: next, effects: draftEffects(next) }, goOn)
  }

  function opened(state: State, shotId: string, revision: R): Result {
    const next: State = {
      ...state,
      shotId,
      agreed: revision,
      document: revision.grade,
      savedEdits: state.edits,
      summary: '',
      why: undefined,
      alone: state.shotId === shotId && state.alone,
      gestures: new Set(),
      request: null,
      left: state.request ? [...state.left, state.request] : state.left,
      queued: null,
      trouble: null,
      message: '',
    }
    return { state: next, effects: [{ do: 'stop waiting' }, { do: 'find draft', shotId }] }
  }

  /** What a tab that was killed, or this one while the server was away, had not sent is gone on with. */
  function draftFound(state: State, shotId: string, draft: Draft<D, W>): Result {
    const { agreed } = state
    if (state.shotId !== shotId || !agreed || isDirty(state) || state.request) return stay(state)
    if (same(agreed.grade, draft.grade)) return { state, effects: [{ do: 'drop draft', shotId, edits: state.edits }] }
    const own = draft.parentId === agreed.headId || (draft.sent !== undefined && same(agreed.grade, draft.sent))
    const next: State = {
      ...state,
      agreed: own ? agreed : { ...agreed, headId: draft.parentId, grade: draft.base },
      document: draft.grade,
      edits: state.edits + 1,
      summary: draft.summary,
      why: draft.why,
      alone: draft.alone,
    }
    const found = { state: next, effects: [...draftEffects(next), ...waiting(next)] }
    return own ? found : join(found, (s) => conflict(s, agreed, draftClash))
  }

  function edited(state: State, event: Extract<SavingEvent<D, W, R>, { type: 'edited' }>): Result {
    if (state.document === null || event.document === state.document) return stay(state)
    const next: State = {
      ...state,
      document: event.document,
      summary: event.summary,
      why: event.why,
      edits: state.edits + 1,
      trouble: state.trouble?.kind === 'conflict' ? state.trouble : null,
    }
    return { state: next, effects: [...draftEffects(next), ...waiting(next)] }
  }

  function gesturesAre(state: State, gestures: ReadonlySet<number>): Result {
    const next = { ...state, gestures }
    return { state: next, effects: gestures.size === 0 ? waiting(next) : [{ do: 'stop waiting' }] }
  }

  /** An answer for a shot that was left meanwhile: its draft goes, or stays for the next time. */
  function answeredLate(state: State, id: number, kept: boolean): Result {
    const request = state.left.find((r) => r.id === id)
    if (!request) return stay(state)
    return {
      state: { ...state, left: state.left.filter((r) => r !== request) },
      effects: kept ? [{ do: 'drop draft', shotId: request.shotId, edits: request.edits }] : [],
    }
  }

  function answered(state: State, id: number, revision: R): Result {
    const { request } = state
    if (request?.id !== id) return answeredLate(state, id, true)
    if (request.kind === 'save') return agree(state, revision, request.grade, request.edits)
    const from = state.agreed?.grade ?? revision.grade
    // An edit made while the move was under way goes on top of where it led.
    if (state.edits !== request.edits) return agree({ ...state, agreed: revision }, revision, from, request.edits)
    return replace({ ...state, request: null }, revision)
  }

  function clashed(state: State, { id, newer, message }: { id: number; newer: R; message: string }): Result {
    const { request } = state
    if (request?.id !== id) return answeredLate(state, id, false)
    // The same, sent before the tab was closed or its answer lost.
    if (request.kind === 'save' && same(newer.grade, request.grade))
      return agree(state, newer, request.grade, request.edits)
    if (!isDirty(state)) return replace({ ...state, request: null }, newer, newer.byItself ? '' : message)
    if (newer.byItself && state.agreed && state.document !== null)
      return onTopOf(
        { ...state, request: null },
        newer,
        merge(state.agreed.grade, state.document, newer.grade),
        state.summary,
      )
    return conflict(state, newer, message)
  }

  function failed(state: State, { id, again, message }: { id: number; again: boolean; message: string }): Result {
    const { request } = state
    if (request?.id !== id) return answeredLate(state, id, false)
    const still = { ...state, request: null, queued: null, message }
    if (request.kind === 'move') return { state: still, effects: waiting(still) }
    if (!again) return stay({ ...still, trouble: { kind: 'refused' } })
    const failures = state.trouble?.kind === 'retrying' ? state.trouble.failures + 1 : 1
    return {
      state: { ...still, trouble: { kind: 'retrying', failures } },
      effects: [{ do: 'wait', ms: retryMs[Math.min(failures, retryMs.length) - 1] ?? restMs }],
    }
  }

  function leaving(state: State): Result {
    const body = bodyOf(state)
    const may = isDirty(state) && state.trouble?.kind !== 'conflict' && state.shotId !== null && body
    return {
      state,
      effects: [
        ...draftEffects(state),
        ...(may && state.shotId !== null ? [{ do: 'save on leaving', shotId: state.shotId, body } as const] : []),
      ],
    }
  }

  return function transition(state: State, event: SavingEvent<D, W, R>): Result {
    const newer = state.trouble?.kind === 'conflict' ? state.trouble.newer : null
    switch (event.type) {
      case 'opened':
        return opened(state, event.shotId, event.revision)
      case 'draft found':
        return draftFound(state, event.shotId, event.draft)
      case 'edited':
        return edited(state, event)
      case 'gesture began':
        return gesturesAre(state, new Set([...state.gestures, event.gesture]))
      case 'gesture ended': {
        if (!state.gestures.has(event.gesture)) return stay(state)
        return gesturesAre(state, new Set([...state.gestures].filter((g) => g !== event.gesture)))
      }
      case 'rested':
        return state.gestures.size > 0 || state.trouble?.kind === 'refused' ? stay(state) : goOn(state)
      case 'commit':
        return goOn(state)
      case 'answered':
        return answered(state, event.id, event.revision)
      case 'clashed':
        return clashed(state, event)
      case 'failed':
        return failed(state, event)
      case 'move':
        if (state.queued || state.request?.kind === 'move' || newer) return stay(state)
        return goOn({ ...state, queued: event.direction, gestures: new Set() })
      case 'take newer':
        return newer ? replace(state, newer) : stay(state)
      case 'keep mine':
        return newer && state.document !== null ? onTopOf(state, newer, state.document, state.summary) : stay(state)
      case 'merge': {
        if (!newer || state.document === null || !state.agreed) return stay(state)
        const both = merge(state.agreed.grade, state.document, newer.grade)
        return onTopOf(state, newer, both, `Both together: ${state.summary}`)
      }
      case 'replaced':
        return event.shotId === state.shotId ? replace({ ...state, request: null }, event.revision) : stay(state)
      case 'alone':
        return stay({ ...state, alone: event.alone })
      case 'dismissed':
        return newer ? stay(state) : stay({ ...state, message: '' })
      case 'said':
        return stay({ ...state, message: event.message })
      case 'leaving':
        return leaving(state)
    }
  }
}

export const draftClash =
  'This shot was changed elsewhere before your last edit was sent. Take the newer state, put both together, or keep ' +
  'yours beside it.'
