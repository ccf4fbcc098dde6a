// Reading path and query parameters without trusting them.
import { cutTo } from '@core/names'
import { basename } from 'node:path'
import type { Context } from 'hono'
import type { FrameRange } from '@contracts/responses'
import { largeBodies, mostOnOwnThread, readJson, type CheckedBody, type LargeBody } from '@contracts/index'
import { notFound, Problem } from '../problem'
import type { FrameWorkers } from '../workers/pool'

const uuid = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/

export const isUuid = (text: string): boolean => uuid.test(text)

/** Throws 404 for anything that is not a UUID. */
export function uuidParam(c: Context, name: string, what: string): string {
  const value = c.req.param(name) ?? ''
  if (!isUuid(value)) throw notFound(what)
  return value
}

/** Throws 404 for anything that is not a SHA-256 in hexadecimal. */
export function hashParam(c: Context, name: string, what: string): string {
  const value = c.req.param(name) ?? ''
  if (!/^[0-9a-f]{64}$/.test(value)) throw notFound(what)
  return value
}

export function wholeNumber(text: string | undefined, name: string, max: number): number {
  const value = Number(text)
  if (text === undefined || !/^\d{1,9}$/.test(text) || value > max)
    throw new Problem(422, 'invalid', `${name} must be a whole number from 0 to ${max}.`, { field: name })
  return value
}

export const mostFrame = 10_000_000

/** A frame of the medium that is one of the shot's. Throws 422 where it is none. */
export function frameWithin(
  text: string | undefined,
  { name, firstFrame, frameCount }: { readonly name: string } & FrameRange,
): number {
  const frame = wholeNumber(text, 'frame', mostFrame)
  const last = firstFrame + frameCount - 1
  if (frame < firstFrame || frame > last)
    throw new Problem(422, 'outside_shot', `"${name}" has frames ${firstFrame} to ${last}; ${frame} is none of them.`, {
      field: 'frame',
      hint: 'Choose a frame of the shot, such as its lead frame.',
    })
  return frame
}

export function oneOf<T extends string>(text: string | undefined, name: string, options: readonly T[]): T {
  const found = options.find((o) => o === text)
  if (found === undefined)
    throw new Problem(422, 'invalid', `${name} must be one of ${options.join(', ')}.`, { field: name })
  return found
}

/** A file's own name out of a query: no folders, no control characters, not too long. */
export const plainName = (given: string | undefined): string =>
  cutTo(
    basename((given ?? '').replaceAll('\\', '/'))
      .replace(/[\p{Cc}\p{Cs}]/gu, '')
      .trim(),
    120,
  )

/** The text of a body that says it is JSON. Throws 415 for one that does not. */
async function jsonText(c: Context): Promise<string> {
  if (!/^application\/json(?:\s*;|$)/i.test(c.req.header('content-type') ?? ''))
    throw new Problem(415, 'not_json', 'The body must be JSON, and say so.', {
      hint: 'Send it with the header Content-Type: application/json.',
    })
  return c.req.text()
}

/** A PNG that is of the state as it is now: the address that the page asks by says which. */
export const freshPng = (c: Context, png: Uint8Array): Response =>
  c.body(Buffer.from(png) as unknown as ArrayBuffer, 200, { 'content-type': 'image/png', 'cache-control': 'no-store' })

/** The body as JSON, within the limits of what is read at all. */
export async function jsonBody(c: Context): Promise<unknown> {
  return readJson(await jsonText(c))
}

/** A body that may be large, checked: on another thread where it is. */
export async function largeBody<K extends LargeBody>(
  c: Context,
  workers: FrameWorkers,
  name: K,
): Promise<CheckedBody<K>> {
  const text = await jsonText(c)
  if (text.length > mostOnOwnThread) return workers.checkBody(name, text)
  return largeBodies[name](readJson(text)) as CheckedBody<K>
}
