// Adding a shot: it comes with the look of its scene.
import type { Queryable } from '../db/pool'
import { insertShot, type NewShot } from '../db/shots'
import { bringLooks } from './looks'

/** Adds a shot at the end of the reel. Call inside a transaction. */
export async function addShot(db: Queryable, shot: NewShot): Promise<{ id: string }> {
  const { id } = await insertShot(db, shot)
  await bringLooks(db, shot.projectId, 'Shared look', shot.actor, [id])
  return { id }
}
