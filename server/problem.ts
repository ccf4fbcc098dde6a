// Problems: errors that are meant to be read by the person at the screen, and their one shape on the wire.
import type { Context } from 'hono'
import { HTTPException } from 'hono/http-exception'
import type { ContentfulStatusCode } from 'hono/utils/http-status'
import type { Logger } from 'pino'
import { ContractError, JsonError, type ErrorBody } from '@contracts/index'
import { FormatError } from '@core/formats'
import { MediaFault } from '@media/fault'

export interface ProblemDetail {
  readonly field?: string
  readonly hint?: string
  /** When it is worth asking again. */
  readonly retryAfterSeconds?: number
  readonly cause?: unknown
}

export class Problem extends Error {
  readonly field: string | undefined
  readonly hint: string | undefined
  readonly retryAfterSeconds: number | undefined
  constructor(
    readonly status: ContentfulStatusCode,
    readonly code: string,
    message: string,
    detail: ProblemDetail = {},
  ) {
    super(message, { cause: detail.cause })
    this.name = 'Problem'
    this.field = detail.field
    this.hint = detail.hint
    this.retryAfterSeconds = detail.retryAfterSeconds
  }
}

export const notFound = (what: string): Problem =>
  new Problem(404, 'not_found', `There is no such ${what}.`, { hint: 'It may have been removed; go back to the list.' })

const problemOfMedia = ({ code, message, hint }: MediaFault): Problem =>
  new Problem(code === 'no_such_frame' ? 404 : 422, code, message, hint === undefined ? {} : { hint })

/** Turns anything thrown into a Problem. What was not foreseen becomes a plain 500 without inner details. */
export function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error
  if (error instanceof ContractError) return new Problem(422, 'invalid', error.message, { field: error.field })
  if (error instanceof JsonError)
    return new Problem(error.status, error.status === 413 ? 'too_large' : 'bad_request', error.message)
  if (error instanceof MediaFault) return problemOfMedia(error)
  if (error instanceof FormatError) return new Problem(422, 'unreadable_file', error.message)
  if (error instanceof HTTPException && error.status < 500)
    return new Problem(error.status, 'bad_request', error.message || 'The request could not be read.')
  // Nobody is there any more to be answered.
  if (error instanceof Error && error.name === 'AbortError')
    return new Problem(408, 'broken_off', 'The request was broken off.')
  const code = (error as { code?: unknown } | null)?.code
  // 53100: the database's disk is full (PostgreSQL, appendix A).
  if (code === 'ENOSPC' || code === 'EDQUOT' || code === '53100')
    return new Problem(507, 'disk_full', 'The disk is full, so nothing was stored.', {
      hint: 'Free some space and try again.',
    })
  if (error instanceof Error && /^timeout exceeded when trying to connect/.test(error.message))
    return new Problem(503, 'busy', 'The server is busy, so nothing was stored.', {
      hint: 'It is tried again after a moment.',
      retryAfterSeconds: 2,
    })
  if (typeof code === 'string' && (/^(ECONNREFUSED|ECONNRESET|ENOENT_SOCKET)$/.test(code) || /^(57P0|08)/.test(code)))
    return new Problem(503, 'database_away', 'The database does not answer, so nothing was stored.', {
      hint: 'It is tried again; if this stays, stop the program and start it with bin/demo.',
      cause: error,
    })
  return new Problem(500, 'internal', 'Something went wrong in the server.', {
    hint: 'The log says more.',
    cause: error,
  })
}

export function problemResponse(c: Context, error: unknown, log: Logger): Response {
  const problem = asProblem(error)
  if (problem.retryAfterSeconds !== undefined) c.header('retry-after', String(problem.retryAfterSeconds))
  if (problem.status >= 500 && problem.code !== 'busy')
    log.error({ err: problem.cause ?? error, path: c.req.path }, problem.message)
  const body: ErrorBody = {
    error: {
      code: problem.code,
      message: problem.message,
      ...(problem.field ? { field: problem.field } : {}),
      ...(problem.hint ? { hint: problem.hint } : {}),
    },
  }
  // A body that was refused half-read cannot be followed by another request on the same connection.
  if (problem.status === 413) c.header('connection', 'close')
  return c.json(body, problem.status)
}
