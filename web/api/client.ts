// Requests to the server, with its one shape of error.
import type { ErrorBody } from '@contracts/responses'
import { seenHeader } from '@contracts/seen'
import { patientFetch } from './patient-fetch'

/** What the server answered instead of what was asked. `status` 0: no answer at all. */
export class RequestError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly hint: string | undefined,
    readonly body: unknown,
  ) {
    super(message)
    this.name = 'RequestError'
  }

  /** Message and hint as one text. */
  get sentence(): string {
    return this.hint ? `${this.message} ${this.hint}` : this.message
  }
}

export async function request<T>(path: string, init: RequestInit = {}): Promise<T> {
  let response: Response
  try {
    response = await patientFetch(`/api${path}`, init)
  } catch (error) {
    if (init.signal?.aborted) throw error
    throw new RequestError(
      0,
      'no_answer',
      'The server does not answer.',
      'It is tried again; is it still running?',
      undefined,
    )
  }
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T
  throw await requestError(response)
}

export async function requestError(response: Response): Promise<RequestError> {
  const body: unknown = await response.json().catch(() => undefined)
  const error = (body as ErrorBody | undefined)?.error
  return new RequestError(
    response.status,
    error?.code ?? 'unknown',
    error?.message ?? `The server answered with ${response.status}.`,
    error?.hint,
    body,
  )
}

export function post<T>(path: string, body: object, { headers, ...init }: RequestInit = {}): Promise<T> {
  return request<T>(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...(headers as Readonly<Record<string, string>>) },
    body: JSON.stringify(body),
    ...init,
  })
}

export function put<T>(path: string, body: object, init: RequestInit = {}): Promise<T> {
  return post<T>(path, body, { method: 'PUT', ...init })
}

/** Only where it still is as it was `seen`, null where nothing was there: another tab may have been quicker. */
export const ifSeen = (seen: unknown): RequestInit => ({ headers: seenHeader(seen) })

/** Changes what may have been changed elsewhere meanwhile: then it is read again before the error is thrown. */
export async function changeSeen<T>(change: () => Promise<T>, readAgain: () => Promise<unknown>): Promise<T> {
  try {
    return await change()
  } catch (error) {
    if (error instanceof RequestError && error.code === 'changed_elsewhere') await readAgain()
    throw error
  }
}

/** A sentence about any error, for showing. */
export function sentenceOf(error: unknown): string {
  if (error instanceof RequestError) return error.sentence
  return error instanceof Error ? error.message : String(error)
}
