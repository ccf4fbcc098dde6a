// Saving as a pure state machine: (state, event) → (state, effects). It holds the open shot's document and decides what
// is sent when, what a late or lost answer means, and what the browser keeps as a draft. Two promises, whatever happens
// in whatever order: what is called saved is on the server, and what is not is in the draft.

/** What the server says a shot's state is. */
export interface Revision<D> {
  readonly headId: string
  readonly grade: D
  readonly canUndo: boolean
  readonly canRedo: boolean
}

export interface Draft<D, W> {
  readonly parentId: string
  readonly summary: string
  readonly why?: W
  /** Of this shot alone, though it is linked with others. */
  readonly alone: boolean
  readonly grade: D
  /** What the server had agreed on before. */
  readonly base: D
  /** What was on its way when the draft was kept: a head that equals it is one's own. */
  readonly sent?: D
}

interface SaveRequest<D> {
  readonly kind: 'save'
  readonly id: number
  readonly shotId: string
  /** The last edit in it. */
  readonly edits: number
  readonly grade: D
}
interface MoveRequest {
  readonly kind: 'move'
  readonly id: number
  readonly shotId: string
  readonly edits: number
}
export type Direction = 'undo' | 'redo'

type Trouble<R> =
  | { readonly kind: 'retrying'; readonly failures: number }
  | { readonly kind: 'refused' }
  /** Another tab or person made a newer state meanwhile. */
  | { readonly kind: 'conflict'; readonly newer: R }

export interface SavingState<D, W, R extends Revision<D>> {
  readonly shotId: string | null
  /** The last state that both sides know: what was changed here was changed from it. */
  readonly agreed: R | null
  readonly document: D | null
  /** Edits are counted for the life of the page, not of the shot. */
  readonly edits: number
  /** The last edit that the server has. */
  readonly savedEdits: number
  /** The last edit's words and reason. */
  readonly summary: string
  readonly why: W | undefined
  /** Edits stay with this shot, though it is linked with others. */
  readonly alone: boolean
  /** Hands at work: nothing is sent meanwhile, so that one gesture is one revision. */
  readonly gestures: ReadonlySet<number>
  readonly request: SaveRequest<D> | MoveRequest | null
  /** Requests of shots that were left before they were answered. */
  readonly left: readonly (SaveRequest<D> | MoveRequest)[]
  /** A move that waits until all is saved. */
  readonly queued: Direction | null
  readonly trouble: Trouble<R> | null
  readonly message: string
  readonly nextRequest: number
}

export type SavingEvent<D, W, R extends Revision<D>> =
  | { readonly type: 'opened'; readonly shotId: string; readonly revision: R }
  | { readonly type: 'draft found'; readonly shotId: string; readonly draft: Draft<D, W> }
  | { readonly type: 'edited'; readonly document: D; readonly summary: string; readonly why?: W | undefined }
  | { readonly type: 'gesture began'; readonly gesture: number }
  | { readonly type: 'gesture ended'; readonly gesture: number }
  | { readonly type: 'rested' }
  | { readonly type: 'commit' }
  | { readonly type: 'answered'; readonly id: number; readonly revision: R }
  | { readonly type: 'clashed'; readonly id: number; readonly newer: R; readonly message: string }
  | { readonly type: 'failed'; readonly id: number; readonly again: boolean; readonly message: string }
  | { readonly type: 'move'; readonly direction: Direction }
  | { readonly type: 'take newer' }
  | { readonly type: 'keep mine' }
  | { readonly type: 'merge' }
  | { readonly type: 'replaced'; readonly shotId: string; readonly revision: R }
  | { readonly type: 'alone'; readonly alone: boolean }
  | { readonly type: 'dismissed' }
  | { readonly type: 'said'; readonly message: string }
  | { readonly type: 'leaving' }

export interface SaveBody<D, W> {
  readonly parentId: string
  readonly summary: string
  readonly grade: D
  readonly why?: W
  readonly alone?: true
}
export type SavingEffect<D, W> =
  | { readonly do: 'find draft'; readonly shotId: string }
  | { readonly do: 'keep draft'; readonly shotId: string; readonly edits: number; readonly draft: Draft<D, W> }
  /** Drops the draft unless it holds later edits than `edits`. */
  | { readonly do: 'drop draft'; readonly shotId: string; readonly edits: number }
  | { readonly do: 'wait'; readonly ms: number }
  | { readonly do: 'stop waiting' }
  | { readonly do: 'save'; readonly id: number; readonly shotId: string; readonly body: SaveBody<D, W> }
  | {
      readonly do: 'move'
      readonly id: number
      readonly shotId: string
      readonly direction: Direction
      readonly expectedId: string
    }
  /** Sends in a way that outlives the page; nobody hears the answer. */
  | { readonly do: 'save on leaving'; readonly shotId: string; readonly body: SaveBody<D, W> }

/** What the machine must know about documents. */
export interface Documents<D> {
  readonly same: (a: D, b: D) => boolean
  /** What both made of `base`; where both changed the same, mine. */
  readonly merge: (base: D, mine: D, theirs: D) => D
}

/** An edit is sent when the hand has rested this long, in milliseconds. */
export const restMs = 350
export const retryMs = [500, 1000, 2000, 4000, 8000] as const

export const newSaving = <D, W, R extends Revision<D>>(): SavingState<D, W, R> => ({
  shotId: null,
  agreed: null,
  document: null,
  edits: 0,
  savedEdits: 0,
  summary: '',
  why: undefined,
  alone: false,
  gestures: new Set(),
  request: null,
  left: [],
  queued: null,
  trouble: null,
  message: '',
  nextRequest: 1,
})

export type SaveStanding = 'saved' | 'unsaved' | 'saving' | 'retrying' | 'conflict' | 'refused'

export const isDirty = ({ edits, savedEdits }: { readonly edits: number; readonly savedEdits: number }): boolean =>
  edits !== savedEdits

/** What the screen says. */
export function standingOf<D, W, R extends Revision<D>>(state: SavingState<D, W, R>): SaveStanding {
  if (state.trouble?.kind === 'conflict') return 'conflict'
  if (!isDirty(state)) return 'saved'
  if (state.request?.kind === 'save' && state.request.edits === state.edits) return 'saving'
  return state.trouble?.kind ?? 'unsaved'
}

/** True when nothing more will happen by itself until something is edited, decided or retried. */
export const isAtRest = <D, W, R extends Revision<D>>(state: SavingState<D, W, R>): boolean =>
  state.request === null && (!isDirty(state) || state.trouble !== null)

export interface Step<D, W, R extends Revision<D>> {
  readonly state: SavingState<D, W, R>
  readonly effects: readonly SavingEffect<D, W>[]
}

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
    if (isDirty(state)) return conflict(state, newer, message)
    return replace({ ...state, request: null }, newer, message)
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
