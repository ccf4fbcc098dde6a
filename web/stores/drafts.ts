// What was edited and is not on the server yet, kept in this browser: a tab that is killed loses nothing.
import type { RevisionWhy } from '@contracts/requests'
import type { GradeDocument } from '@core/grade'

export interface Draft {
  readonly parentId: string
  readonly summary: string
  readonly why?: RevisionWhy
  /** Of this shot alone, though it is linked with others. */
  readonly alone: boolean
  readonly grade: GradeDocument
  /** What the server had agreed on before. */
  readonly base: GradeDocument
}

/** Without them (on an address that is not secure) nothing is kept. */
const locks: LockManager | undefined = globalThis.navigator?.locks
const prefix = 'pale.unsent.'
const tab = locks ? crypto.randomUUID() : ''
const keyOf = (shotId: string): string => `${prefix}${shotId}.${tab}`
// Held as long as this tab lives, so that no other takes its drafts for left behind.
void locks?.request(prefix + tab, () => new Promise(() => undefined))

export function keepDraft(shotId: string, draft: Draft): void {
  if (!locks) return
  try {
    localStorage.setItem(keyOf(shotId), JSON.stringify(draft))
  } catch {
    // No room: the edit is on its way to the server all the same.
    dropDraft(shotId)
  }
}

export function dropDraft(shotId: string): void {
  if (locks) localStorage.removeItem(keyOf(shotId))
}

/**
 * What this tab, or one that is gone, left behind for a shot that is opened, and how to have it put away once it is
 * taken; null when there is nothing, or nothing sound.
 */
export async function draftLeft(
  shotId: string,
): Promise<{ readonly draft: Draft; readonly putAway: () => void } | null> {
  if (!locks) return null
  const alive = new Set((await locks.query()).held?.map((lock) => lock.name))
  const of = `${prefix}${shotId}.`
  const key = Object.keys(localStorage).find(
    (k) => k === of + tab || (k.startsWith(of) && !alive.has(prefix + k.slice(of.length))),
  )
  const stored = key === undefined ? null : localStorage.getItem(key)
  if (key === undefined || stored === null) return null
  const putAway = (): void => localStorage.removeItem(key)
  try {
    const draft = JSON.parse(stored) as Partial<Draft> | null
    return draft && typeof draft.parentId === 'string' && typeof draft.summary === 'string' && draft.grade && draft.base
      ? { draft: draft as Draft, putAway }
      : null
  } catch {
    putAway()
    return null
  }
}
