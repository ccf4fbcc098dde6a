// What the server and the media runner say to each other: a head in JSON, and bytes behind it that are not touched.
// Framing: two unsigned 32-bit numbers, little endian, for the bytes of the head and of what follows it.
import type { Readable, Writable } from 'node:stream'

/** To the runner. */
export type RunnerRequest =
  | {
      readonly run: number
      readonly command: string
      readonly args: readonly string[]
      readonly limits: RunnerLimits
    }
  | { readonly giveUp: number }

/** What of a child's limits can be sent. */
export interface RunnerLimits {
  readonly seconds: number
  readonly maxOutputBytes: number
  readonly moreOutputs?: number
  readonly folder?: string
  /** The bytes that each output is to have: it is sent once they are there. */
  readonly wholeBytes?: readonly number[]
}

/** From the runner: an output of a run, whose bytes follow; its end; or why it could not be started. */
export type RunnerAnswer =
  | { readonly run: number; readonly output: number }
  | {
      readonly run: number
      readonly code: number | null
      readonly stderr: string
      readonly stoppedBy: 'time' | 'size' | null
    }
  | { readonly run: number; readonly error: string }

const lengthsBytes = 8
const nothing: Buffer = Buffer.alloc(0)

/** Writes a message; `bytes` may be large and is not copied. */
export function send(to: Writable, head: RunnerRequest | RunnerAnswer, bytes: Buffer = nothing): void {
  const text = Buffer.from(JSON.stringify(head))
  const lengths = Buffer.alloc(lengthsBytes)
  lengths.writeUInt32LE(text.length, 0)
  lengths.writeUInt32LE(bytes.length, 4)
  to.write(Buffer.concat([lengths, text]))
  if (bytes.length > 0) to.write(bytes)
}

/** Calls `take` with each message that comes whole; its bytes are a buffer of their own. Both ends trust each other. */
export function receive<Message>(from: Readable, take: (head: Message, bytes: Buffer) => void): void {
  let chunks: Buffer[] = []
  let have = 0
  /** The next so many bytes, copied once. */
  const next = (count: number): Buffer => {
    const out = Buffer.alloc(count)
    let [at, used, left] = [0, 0, nothing]
    while (at < count) {
      const chunk = chunks[used++] ?? nothing
      const copied = chunk.copy(out, at)
      at += copied
      left = chunk.subarray(copied)
    }
    chunks = [...(left.length > 0 ? [left] : []), ...chunks.slice(used)]
    have -= count
    return out
  }
  let lengths: Buffer | null = null
  from.on('data', (chunk: Buffer) => {
    chunks.push(chunk)
    have += chunk.length
    for (;;) {
      if (!lengths) {
        if (have < lengthsBytes) return
        lengths = next(lengthsBytes)
      }
      const [headBytes, bodyBytes] = [lengths.readUInt32LE(0), lengths.readUInt32LE(4)]
      if (have < headBytes + bodyBytes) return
      lengths = null
      const head = JSON.parse(next(headBytes).toString('utf8')) as Message
      take(head, next(bodyBytes))
    }
  })
}

/** The process that starts the others ended; the next run starts it again. */
export class RunnerGone extends Error {
  constructor() {
    super('The process that starts media programs ended.')
    this.name = 'RunnerGone'
  }
}
