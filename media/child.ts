// Child processes for reading and writing media: argument arrays, no shell, with limits on time and output.
import { spawn, type ChildProcessWithoutNullStreams } from 'node:child_process'
import { withoutNetwork, type Sandbox } from './sandbox'

export interface ChildLimits {
  readonly seconds: number
  readonly maxOutputBytes: number
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

export function startChild(command: string, args: readonly string[], folder?: string): ChildProcessWithoutNullStreams {
  return spawn(command, args, {
    ...(folder ? { cwd: folder } : {}),
    stdio: ['pipe', 'pipe', 'pipe'],
    env: { PATH: process.env['PATH'] ?? '/usr/bin:/bin', LC_ALL: 'C' },
  })
}

let sandbox: Sandbox | null = null
/** From now on media programs run in this room; with null, only without a network. */
export function useSandbox(room: Sandbox | null): void {
  sandbox = room
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
  return limits.yields ? runChild('nice', [...yielding, first, ...rest], limits) : runChild(first, rest, limits)
}

/** Runs a command to its end and collects what it prints. Rejects only when it cannot be started. */
export function runChild(command: string, args: readonly string[], limits: ChildLimits): Promise<ChildResult> {
  return new Promise((resolve, reject) => {
    limits.signal?.throwIfAborted()
    const child = startChild(command, args, limits.folder)
    const giveUp = (): void => {
      child.kill('SIGKILL')
      reject(limits.signal?.reason as Error)
    }
    limits.signal?.addEventListener('abort', giveUp, { once: true })
    child.stdin.end()
    const chunks: Buffer[] = []
    let size = 0
    let stderr = ''
    let stoppedBy: ChildResult['stoppedBy'] = null
    const timer = setTimeout(() => {
      stoppedBy = 'time'
      child.kill('SIGKILL')
    }, limits.seconds * 1000)
    child.stdout.on('data', (chunk: Buffer) => {
      size += chunk.length
      if (size > limits.maxOutputBytes) {
        stoppedBy = 'size'
        child.kill('SIGKILL')
      } else {
        chunks.push(chunk)
        limits.onOutput?.(chunk, () => child.kill('SIGKILL'))
      }
    })
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
      resolve({ code, stdout: Buffer.concat(chunks), stderr, stoppedBy })
    })
  })
}
