// What the first to save would wait for: connections to the database, and checks that are compiled as they run.
import { setImmediate as turn } from 'node:timers/promises'
import { largeBodies } from '@contracts/index'
import { defaultGrade } from '@core/grade'
import { asItLooks } from '@core/guess'
import { openAllConnections, type Pool } from './db/pool'

const triedOften = 12

/** Between two tries whoever asks is answered. */
export async function warm(pool: Pool): Promise<void> {
  await openAllConnections(pool)
  for (let n = 0; n < triedOften; n++) {
    largeBodies.revision({ parentId: crypto.randomUUID(), summary: 'Tried', grade: defaultGrade(asItLooks) })
    await turn()
  }
}
