// The server's side of the media runner.
import { spawn, type ChildProcessByStdio } from 'node:child_process'
import type { Readable, Writable } from 'node:stream'
import { fileURLToPath } from 'node:url'
import type { ChildLimits, ChildResult } from '../child'
import { RunnerGone, receive, send, type RunnerAnswer, type RunnerLimits } from './messages'

/** Limits without what must be called while the child goes on. */
export type SendableLimits = Omit<ChildLimits, 'onOutput' | 'onSaid'>

export interface MediaRunner {
  /**
   * Runs a command as `runChild` does, but from a process that is quick to copy. Throws RunnerGone when that process
   * ended meanwhile.
   */
  readonly run: (command: string, args: readonly string[], limits: SendableLimits) => Promise<ChildResult>
  readonly close: () => void
}

interface Run {
  readonly outputs: Buffer[]
  readonly tell: (output: number, bytes: Buffer) => void
  readonly done: (result: ChildResult) => void
  readonly fail: (error: Error) => void
}
type RunnerProcess = ChildProcessByStdio<Writable, Readable, null>

/** @param file the built media-runner.js; by default the one beside the running build */
export function openRunner(file = fileURLToPath(new URL('./media-runner.js', import.meta.url))): MediaRunner {
  const runs = new Map<number, Run>()
  let next = 0
  let current: RunnerProcess | null = null

  function start(): RunnerProcess {
    const child = spawn(process.execPath, [file], {
      stdio: ['pipe', 'pipe', 'inherit'],
      env: { PATH: process.env['PATH'] ?? '/usr/bin:/bin', LC_ALL: 'C' },
    })
    const gone = (): void => {
      if (current !== child) return
      current = null
      for (const { fail } of runs.values()) fail(new RunnerGone())
      runs.clear()
    }
    child.once('error', gone)
    child.once('exit', gone)
    child.stdin.on('error', () => undefined)
    receive<RunnerAnswer>(child.stdout, take)
    // It ends with this process, and does not keep it.
    child.unref()
    current = child
    return child
  }

  function take(answer: RunnerAnswer, bytes: Buffer): void {
    const run = runs.get(answer.run)
    if (!run) return
    if ('output' in answer) {
      run.outputs[answer.output] = bytes
      run.tell(answer.output, bytes)
      return
    }
    runs.delete(answer.run)
    if ('error' in answer) run.fail(new Error(answer.error))
    else {
      const { code, stderr, stoppedBy } = answer
      const [stdout = Buffer.alloc(0), ...more] = run.outputs
      run.done({ code, stdout, more, stderr, stoppedBy })
    }
  }

  return {
    run: (command, args, { signal, whole, yields: _, ...limits }) =>
      new Promise((done, reject) => {
        signal?.throwIfAborted()
        const child = current ?? start()
        const id = next++
        const giveUp = (): void => {
          send(child.stdin, { giveUp: id })
          runs.delete(id)
          reject(signal?.reason as Error)
        }
        signal?.addEventListener('abort', giveUp, { once: true })
        const settled = (): void => signal?.removeEventListener('abort', giveUp)
        runs.set(id, {
          outputs: [],
          tell: (output, bytes) => {
            if (bytes.length === whole?.bytes[output]) whole.tell(output, bytes)
          },
          done: (result) => (settled(), done(result)),
          fail: (error) => (settled(), reject(error)),
        })
        const sendable: RunnerLimits = { ...limits, ...(whole ? { wholeBytes: whole.bytes } : {}) }
        send(child.stdin, { run: id, command, args, limits: sendable })
      }),
    close: () => {
      const child = current
      current = null
      child?.stdin.end()
      // Not RunnerGone: nobody is to start them anew at the end.
      for (const { fail } of runs.values()) fail(new Error('The server is ending.'))
      runs.clear()
    },
  }
}
