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

const shortLifeMs = 10_000
const retryMs = 1000

/** What they may read are the media, uploads and the media folder; what they may write is not finished yet. */
export async function keepMediaRoom(store: Store, mediaFolder: string, log: Logger): Promise<MediaRoom> {
  const root = await mkdtemp(join(tmpdir(), 'pale-room-'))
  const folders = {
    root,
    // Pictures of a sequence wait among what is not finished until they have been looked at.
    reads: [store.folders.media, store.uploadsFolder, dirname(store.temporaryPath()), mediaFolder],
    writes: [dirname(store.outputPath())],
  }
  let room: Sandbox | null = null
  let again: NodeJS.Timeout | undefined
  let closed = false
  async function open(): Promise<void> {
    const opened = Date.now()
    room = await openSandbox(folders, () => {
      useSandbox(null)
      log.warn('the room of the media programs was lost, and is made again')
      // Where it does not last, the machine is not kept busy with it.
      again = setTimeout(() => void open(), Date.now() - opened < shortLifeMs ? retryMs : 0)
      again.unref()
    })
    if (closed) return room?.close()
    if (!room) log.warn('this system allows no room for media programs: they run without a network, and with its files')
    useSandbox(room)
  }
  await open()
  return {
    close: async () => {
      closed = true
      clearTimeout(again)
      useSandbox(null)
      room?.close()
      await rmdir(root).catch(() => undefined)
    },
  }
}
