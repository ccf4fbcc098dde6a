// The room that media programs run in, kept up while the server runs.
import { mkdtemp, rmdir } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import type { Logger } from 'pino'
import { useSandbox } from '@media/child'
import { openSandbox, type Sandbox } from '@media/sandbox'
import type { Store } from '../store/store'

export interface MediaRoom {
  readonly close: () => Promise<void>
}

/** What they may read are the media, uploads and the media folder; what they may write is not finished yet. */
export async function keepMediaRoom(store: Store, mediaFolder: string, log: Logger): Promise<MediaRoom> {
  const root = await mkdtemp(join(tmpdir(), 'pale-room-'))
  const folders = {
    root,
    reads: [store.folders.media, store.uploadsFolder, mediaFolder],
    writes: [dirname(store.temporaryPath())],
  }
  let room: Sandbox | null = null
  let closed = false
  async function open(): Promise<void> {
    room = await openSandbox(folders, () => {
      useSandbox(null)
      log.warn('the room of the media programs was lost, and is made again')
      if (!closed) void open()
    })
    if (!room) log.warn('this system allows no room for media programs: they run without a network, and with its files')
    useSandbox(room)
  }
  await open()
  return {
    close: async () => {
      closed = true
      useSandbox(null)
      room?.close()
      await rmdir(root).catch(() => undefined)
    },
  }
}
