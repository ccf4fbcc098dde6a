// The words of the save machine: its state, what may happen, and what it asks for.

// Saving as a pure state machine: (state, event) → (state, effects). It holds the open shot's document and decides what
// is sent when, what a late or lost answer means, and what the browser keeps as a draft. Two promises, whatever happens
// in whatever order: what is called saved is on the server, and what is not is in the draft.

/** What the server says a shot's state is. */
export interface Revision<D> {
  readonly headId: string
  readonly grade: D
  readonly canUndo: boolean
  readonly canRedo: boolean
  /** The program itself made it, of what it found in the file: no hand has to decide between it and an edit. */
  readonly byItself?: boolean
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

export interface SaveRequest<D> {
  readonly kind: 'save'
  readonly id: number
  readonly shotId: string
  /** The last edit in it. */
  readonly edits: number
  readonly grade: D
}

export interface MoveRequest {
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
