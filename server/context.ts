// What every route and job is given.
import type { Logger } from 'pino'
import type { Pool } from './db/pool'
import type { FindingsReader } from './services/findings'
import type { FrameReader } from './services/frames'
import type { RequireOriginal } from './services/originals'
import type { PreviewReader } from './services/previews'
import type { Space } from './store/space'
import type { Store } from './store/store'
import type { FrameWorkers } from './workers/pool'

export interface ServerContext {
  readonly pool: Pool
  readonly store: Store
  readonly space: Space
  readonly workers: FrameWorkers
  readonly frames: FrameReader
  readonly previews: PreviewReader
  readonly findings: FindingsReader
  /** Looks at a linked original before it is used. */
  readonly requireOriginal: RequireOriginal
  /** Where files lie that can be linked without copying. */
  readonly mediaFolder: string
  /** Tokens of the work that this process has under way. */
  readonly attempts: Set<string>
  readonly log: Logger
}

/** Who wrote something, until there are accounts. */
export const localActor = 'local'
