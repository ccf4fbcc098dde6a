// What is to be changed must be what was seen (RFC 9110, clauses 13.1.1 and 13.1.2): another tab may have been quicker.
import type { Context } from 'hono'
import { tagOf } from '@contracts/seen'
import { Problem } from '../problem'

/** Throws a Problem (412) unless `current`, null where nothing is there, is what the request says that it saw. */
export type RequireSeen = (current: unknown) => void

/** To be called with what is there, inside the transaction that changes it. A request may say nothing. */
export function requireSeen(c: Context): RequireSeen {
  const seen = c.req.header('if-match')
  const none = c.req.header('if-none-match') === '*'
  return (current) => {
    const moved = seen === undefined ? none && current !== null : current === null || seen !== tagOf(current)
    if (moved)
      throw new Problem(412, 'changed_elsewhere', 'This was changed elsewhere meanwhile, so nothing was stored.', {
        hint: 'Look at it as it is now, and do it again if that is still right.',
      })
  }
}
