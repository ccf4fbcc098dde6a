// Import: a received file becomes a stored clip and a shot on the reel, or nothing at all.
import type { ReadableStream } from 'node:stream/web'
import { defaultGrade } from '@core/index'
import type { ServerContext } from '../context'
import { findMedia, insertMedia } from '../db/media'
import { transaction } from '../db/pool'
import { insertShot } from '../db/shots'
import { probe, requireDecodable } from './probe'

export interface ClipToImport {
  readonly body: unknown
  readonly maxBytes: number
  readonly name: string
  readonly projectId: string
  readonly actor: string
  /** What is known beforehand, for the demo data. */
  readonly known?: { readonly sceneId: string; readonly cameraName: string; readonly encodingId: string; readonly gamutId: string; readonly leadFrame: number }
}

// What a file's own transfer tag says about its encoding. Logs carry no tag of their own.
const encodingOfTransfer: Readonly<Record<string, string>> = { 'arib-std-b67': 'hlg', 'iec61966-2-1': 'srgb' }

export async function importClip({ pool, store }: ServerContext, clip: ClipToImport): Promise<{ id: string }> {
  const received = await store.receive(clip.body as ReadableStream<Uint8Array>, clip.maxBytes, clip.name)
  try {
    const { facts, frameTimes, transfer } = await probe(received.path, clip.name)
    await requireDecodable(received.path, clip.name, facts.frameCount)
    const encodingId = clip.known?.encodingId ?? encodingOfTransfer[transfer ?? ''] ?? 'bt709-camera'
    if (!(await findMedia(pool, received.hash))) await store.keep(received.path, store.mediaPath(received.hash))
    return await transaction(pool, async (db) => {
      await insertMedia(db, { hash: received.hash, facts, frameTimes }, received.sizeBytes)
      return insertShot(db, {
        projectId: clip.projectId,
        sceneId: clip.known?.sceneId ?? null,
        mediaHash: received.hash,
        name: clip.name,
        cameraName: clip.known?.cameraName ?? null,
        leadFrame: clip.known?.leadFrame ?? Math.floor(facts.frameCount / 2),
        grade: defaultGrade(encodingId, clip.known?.gamutId, facts.range),
        actor: clip.actor,
      })
    })
  } finally {
    await store.discard(received.path)
  }
}
