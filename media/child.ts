// Child processes for reading and writing media: argument arrays, no shell, with limits on time and output.
import { spawn, type ChildProcessWithoutNullStreams } from 'node:child_process'
import type { MediaRunner } from './runner/client'
import { RunnerGone } from './runner/messages'
import { withoutNetwork, type Sandbox } from './sandbox'

export interface ChildLimits {
  readonly seconds: number
  /** Of all outputs together. */
  readonly maxOutputBytes: number
  /** Outputs besides the standard one: pipes 3 and on. */
  readonly moreOutputs?: number
  /** The bytes that each output is to have, the standard one first, and what is told once they are there. */
  readonly whole?: { readonly bytes: readonly number[]; readonly tell: (output: number, bytes: Buffer) => void }
  /** Ends it early; the promise rejects with the signal's reason. */
  readonly signal?: AbortSignal
  /** It runs where nothing else wants to. */
  readonly yields?: boolean
  /** Where the child runs. */
  readonly folder?: string
  /** Sees what is printed as it comes, and may stop the child. */
  readonly onOutput?: (chunk: Buffer, stop: () => void) => void
  /** Sees all that is said beside it. */
  readonly onSaid?: (text: string) => void
}
export interface ChildResult {
  readonly code: number | null
  readonly stdout: Buffer
  /** What came through pipes 3 and on. */
  readonly more: readonly Buffer[]
  readonly stderr: string
  readonly stoppedBy: 'time' | 'size' | null
}

// What a file may be. Playlists and scripts that point elsewhere are not among them.
const containers =
  'mov,matroska,mxf,avi,mpegts,mpeg,ivf,image2,png_pipe,tiff_pipe,dpx_pipe,exr_pipe,jpeg_pipe,bmp_pipe,webp_pipe'
/** Only files may be opened: a media file that refers to an address on a network gets nothing. */
export const filesOnly = ['-protocol_whitelist', 'file,pipe', '-format_whitelist', containers] as const
/** A picture that claims to be huge is not given the memory it asks for. */
export const decoderLimits = ['-max_pixels', String(8192 * 8192)] as const
const decoderMemoryBytes = 6 * 1024 ** 3

/** A path as ffmpeg takes it literally, whatever characters it holds. */
export const fileArgument = (path: string): string => `file:${path}`

const stderrKept = 16 * 1024

export function startChild(
  command: string,
  args: readonly string[],
  folder?: string,
  moreOutputs = 0,
): ChildProcessWithoutNullStreams {
  return spawn(command, args, {
    ...(folder ? { cwd: folder } : {}),
    stdio: Array<'pipe'>(3 + moreOutputs).fill('pipe'),
    env: { PATH: process.env['PATH'] ?? '/usr/bin:/bin', LC_ALL: 'C' },
  })
}

let sandbox: Sandbox | null = null
/** From now on media programs run in this room; with null, only without a network. */
export function useSandbox(room: Sandbox | null): void {
  sandbox = room
}

let runner: MediaRunner | null = null
/** From now on media programs whose output is collected are started by this process; with null, by this one itself. */
export function useRunner(other: MediaRunner | null): void {
  runner = other
}

/**
 * A media program as a command: these read files that nobody vouches for, so that they have no network, their memory is
 * bounded by the system, and they run in the room where there is one.
 */
function bounded(command: string, args: readonly string[], folder?: string): readonly [string, ...string[]] {
  // The server, which never has much to do at once, goes first.
  const limited = ['nice', '-n', '5', 'prlimit', `--as=${decoderMemoryBytes}`, '--', command, ...args]
  const [first = 'prlimit', ...rest] = [...(sandbox ? sandbox.enter(folder) : withoutNetwork()), ...limited]
  return [first, ...rest]
}
export function startBounded(
  command: 'ffmpeg',
  args: readonly string[],
  folder?: string,
): ChildProcessWithoutNullStreams {
  const [first, ...rest] = bounded(command, args, folder)
  return startChild(first, rest, folder)
}
export const startDecoder = (args: readonly string[], folder?: string): ChildProcessWithoutNullStreams =>
  startBounded('ffmpeg', args, folder)
const yielding = ['-n', '10'] as const
/** One that yields to whoever looks: it runs where nothing else wants to. */
export const startYieldingDecoder = (args: readonly string[], folder?: string): ChildProcessWithoutNullStreams =>
  startChild('nice', [...yielding, ...bounded('ffmpeg', args, folder)], folder)
export function runDecoder(
  command: 'ffmpeg' | 'ffprobe',
  args: readonly string[],
  limits: ChildLimits,
): Promise<ChildResult> {
  const [first, ...rest] = bounded(command, args, limits.folder)
  const passedOn = limits.maxOutputBytes <= mostPassedOnBytes && !limits.onOutput && !limits.onSaid
  const run = runner && passedOn ? byRunner(runner) : runChild
  return limits.yields ? run('nice', [...yielding, first, ...rest], limits) : run(first, rest, limits)
}

/** To pass on more takes longer than what the runner saves. */
const mostPassedOnBytes = 16e6

/** Should the runner end meanwhile, this process starts the program itself. */
const byRunner =
  ({ run }: MediaRunner): typeof runChild =>
  (command, args, limits) =>
    run(command, args, limits).catch((error: unknown) => {
      if (error instanceof RunnerGone) return runChild(command, args, limits)
      throw error
    })

/** Runs a command to its end and collects what it prints. Rejects only when it cannot be started. */
export function runChild(command: string, args: readonly string[], limits: ChildLimits): Promise<ChildResult> {
  return new Promise((resolve, reject) => {
    limits.signal?.throwIfAborted()
    const child = startChild(command, args, limits.folder, limits.moreOutputs)
    const giveUp = (): void => {
      child.kill('SIGKILL')
      reject(limits.signal?.reason as Error)
    }
    limits.signal?.addEventListener('abort', giveUp, { once: true })
    child.stdin.end()
    let size = 0
    let stderr = ''
    let stoppedBy: ChildResult['stoppedBy'] = null
    const timer = setTimeout(() => {
      stoppedBy = 'time'
      child.kill('SIGKILL')
    }, limits.seconds * 1000)
    const collect = (pipe: NodeJS.ReadableStream, output: number): (() => Buffer) => {
      let chunks: Buffer[] = []
      let bytes = 0
      const all = (): Buffer => {
        const [only] = chunks
        if (chunks.length === 1 && only) return only
        const joined = Buffer.concat(chunks)
        chunks = [joined]
        return joined
      }
      pipe.on('data', (chunk: Buffer) => {
        size += chunk.length
        bytes += chunk.length
        if (size > limits.maxOutputBytes) {
          stoppedBy = 'size'
          child.kill('SIGKILL')
          return
        }
        chunks.push(chunk)
        if (bytes === limits.whole?.bytes[output]) limits.whole.tell(output, all())
      })
      return all
    }
    const outputs = [child.stdout, ...child.stdio.slice(3)].map((pipe, n) => collect(pipe as NodeJS.ReadableStream, n))
    if (limits.onOutput)
      child.stdout.on('data', (chunk: Buffer) => limits.onOutput?.(chunk, () => child.kill('SIGKILL')))
    child.stderr.on('data', (chunk: Buffer) => {
      const text = chunk.toString('utf8')
      if (stderr.length < stderrKept) stderr += text
      limits.onSaid?.(text)
    })
    child.on('error', (error) => {
      clearTimeout(timer)
      reject(error)
    })
    child.on('close', (code) => {
      clearTimeout(timer)
      limits.signal?.removeEventListener('abort', giveUp)
      const [stdout = Buffer.alloc(0), ...more] = outputs.map((all) => all())
      resolve({ code, stdout, more, stderr, stoppedBy })
    })
  })
}
