// The Record as it is read: a page of revisions with what each changed. The words are worked out once and kept.
import type { RecordEntry, ShotRecord } from '@contracts/responses'
import { differences } from '@core/grade'
import type { Queryable } from '../db/pool'
import {
  entriesBelow,
  entriesOf,
  gradesAround,
  keepChanges,
  standingOf,
  versionsOf,
  type RecordCursor,
  type StoredEntry,
} from '../db/record'

/** So many revisions are answered with at once. */
export const recordPage = 100
/** A grade sheet goes so far back. */
const longestPath = 2000

/** What revisions of before had changed, where nobody has asked yet. */
async function withChanges(db: Queryable, entries: readonly StoredEntry[]): Promise<readonly RecordEntry[]> {
  const unknown = entries.filter((e) => e.changes === null).map((e) => e.id)
  const found = new Map<string, readonly string[]>()
  for (const { id, before, after } of unknown.length > 0 ? await gradesAround(db, unknown) : [])
    found.set(id, before ? differences(before, after).map((d) => d.words) : [])
  await keepChanges(db, found)
  return entries.map((e) => ({ ...e, changes: e.changes ?? found.get(e.id) ?? [] }))
}

/** A page of a shot's record behind a cursor; undefined when there is no such shot. */
export async function recordOf(
  db: Queryable,
  shotId: string,
  behind: RecordCursor | null,
): Promise<ShotRecord | undefined> {
  const shot = await standingOf(db, shotId)
  if (!shot) return undefined
  const { entries, next } = await entriesOf(db, shotId, behind, recordPage)
  const [revisions, versions] = [await withChanges(db, entries), await versionsOf(db, shotId)]
  return { ...shot, revisions, versions, next }
}

/** The way that led to a revision, itself first. */
export const recordPath = async (db: Queryable, headId: string): Promise<readonly RecordEntry[]> =>
  withChanges(db, await entriesBelow(db, headId, longestPath))
