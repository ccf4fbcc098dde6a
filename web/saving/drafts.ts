// What was edited and is not on the server yet, kept in this browser: a tab that is killed loses nothing.
import type { RevisionWhy } from '@contracts/requests'
import type { GradeDocument } from '@core/grade'
import type { Draft } from './state'

export type GradeDraft = Draft<GradeDocument, RevisionWhy>

/** Without them (on an address that is not secure) nothing is kept. */
const locks: LockManager | undefined = globalThis.navigator?.locks
const prefix = 'pale.unsent.'
const tab = locks ? crypto.randomUUID() : ''
const keyOf = (shotId: string): string => `${prefix}${shotId}.${tab}`
// Held as long as this tab lives, so that no other takes its drafts for left behind.
void locks?.request(prefix + tab, () => new Promise(() => undefined))

/** While a hand is at work its edits are written this often, in milliseconds: writing takes longer than a frame has. */
const gestureMs = 300
let coming: { readonly shotId: string; readonly draft: GradeDraft; readonly edits: number } | null = null
let timer: ReturnType<typeof setTimeout> | undefined
/** The last edit in each draft of this tab. */
const kept = new Map<string, number>()

/** Keeps a draft: at once, or within `gestureMs` where `soon`. */
export function keepDraft(shotId: string, draft: GradeDraft, edits: number, soon: boolean): void {
  if (!locks) return
  if (coming && coming.shotId !== shotId) writeDrafts()
  coming = { shotId, draft, edits }
  if (!soon) writeDrafts()
  else timer ??= setTimeout(writeDrafts, gestureMs)
}

/** Writes what waits to be written. */
export function writeDrafts(): void {
  clearTimeout(timer)
  timer = undefined
  if (!coming) return
  const { shotId, draft, edits } = coming
  coming = null
  try {
    localStorage.setItem(keyOf(shotId), JSON.stringify(draft))
    kept.set(shotId, edits)
  } catch {
    // No room: the edit is on its way to the server all the same.
    localStorage.removeItem(keyOf(shotId))
  }
}

/** Drops this tab's draft of a shot, unless it holds later edits than `edits`. */
export function dropDraft(shotId: string, edits: number): void {
  if (!locks) return
  if (coming?.shotId === shotId && coming.edits <= edits) coming = null
  if ((kept.get(shotId) ?? 0) <= edits) localStorage.removeItem(keyOf(shotId))
}

export interface LeftDraft {
  readonly draft: GradeDraft
  /** Removes it, once it has been taken up. */
  readonly putAway: () => void
}

/** What this tab, or one that is gone, left behind for a shot; null when there is nothing, or nothing sound. */
export async function draftLeft(shotId: string): Promise<LeftDraft | null> {
  if (!locks) return null
  const alive = new Set((await locks.query()).held?.map((lock) => lock.name))
  const of = `${prefix}${shotId}.`
  const isLeft = (key: string): boolean => key.startsWith(of) && !alive.has(prefix + key.slice(of.length))
  const key = Object.keys(localStorage).find((k) => k === of + tab || isLeft(k))
  const stored = key === undefined ? null : localStorage.getItem(key)
  if (key === undefined || stored === null) return null
  // This tab's own is written over where it is taken up.
  const putAway = (): void => (key === of + tab ? undefined : localStorage.removeItem(key))
  try {
    const draft = JSON.parse(stored) as Partial<GradeDraft> | null
    const sound =
      draft && typeof draft.parentId === 'string' && typeof draft.summary === 'string' && draft.grade && draft.base
    return sound ? { draft: draft as GradeDraft, putAway } : null
  } catch {
    localStorage.removeItem(key)
    return null
  }
}
