// Adding a shot: it comes with the look of its scene.
import { lockProjectShots } from '../db/locks'
import type { Queryable } from '../db/pool'
import { reorder } from '../db/reel'
import { insertShot, shotOfLaterImport, type NewShot } from '../db/shots'
import { bringLooks } from './looks'

/** Adds a shot at the end of the reel, but before those of later imports. Call inside a transaction. */
export async function addShot(db: Queryable, shot: NewShot): Promise<{ id: string }> {
  const { projectId, importOrder } = shot
  // Its neighbours may have to move.
  if (importOrder !== undefined) await lockProjectShots(db, projectId)
  const { id } = await insertShot(db, shot)
  if (importOrder !== undefined) {
    const later = await shotOfLaterImport(db, projectId, importOrder)
    if (later !== undefined) await reorder(db, projectId, [id], later)
  }
  await bringLooks(db, projectId, 'Shared look', shot.actor, [id])
  return { id }
}
