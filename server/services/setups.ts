// Which shots of a scene look like one set-up. Asking links nothing.
import { LRUCache } from 'lru-cache'
import PQueue from 'p-queue'
import type { Layout } from '@core/continuity'
import type { ShotSummary } from '@contracts/responses'
import type { ServerContext } from '../context'

const kept = 5000
/** In a longer row those from here on are not looked at: every shot is held against every other. */
const mostShots = 200

export type SetupReader = (shots: readonly ShotSummary[]) => Promise<readonly (readonly string[])[]>

export function setupReader({ frames, workers }: Pick<ServerContext, 'frames' | 'workers'>): SetupReader {
  const layouts = new LRUCache<string, Promise<Layout>>({ max: kept })
  const line = new PQueue({ concurrency: 1 })
  function layoutOf({ media: { hash }, leadFrame, read: { range } }: ShotSummary): Promise<Layout> {
    const key = JSON.stringify([hash, leadFrame, range])
    const known = layouts.get(key)
    if (known) return known
    const made = line.add(async () =>
      workers.sourceLayout({ source: await frames.source(hash, leadFrame, range, { byItself: true }) }),
    )
    layouts.set(key, made)
    made.catch(() => layouts.delete(key))
    return made
  }
  return async (all) => {
    const shots = all.slice(0, mostShots)
    const looked = await Promise.all(
      shots.map(async (s) => ({ layout: await layoutOf(s), camera: s.likeness || s.media.hash })),
    )
    const groups = await workers.groupSetups({ shots: looked })
    return groups
      .map((members) => members.flatMap((i) => shots[i] ?? []))
      .filter((members) => new Set(members.map((s) => s.setup?.id ?? s.id)).size > 1)
      .map((members) => members.map((s) => s.id))
  }
}
