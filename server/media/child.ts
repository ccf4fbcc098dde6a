// Child processes for reading and writing media: argument arrays, no shell, with limits on time and output.
import { spawn, type ChildProcessWithoutNullStreams } from 'node:child_process'

export interface ChildLimits { readonly seconds: number; readonly maxOutputBytes: number }
export interface ChildResult { readonly code: number | null; readonly stdout: Buffer; readonly stderr: string; readonly stoppedBy: 'time' | 'size' | null }

/** Only files may be opened: a media file that refers to an address on a network gets nothing. */
export const filesOnly = ['-protocol_whitelist', 'file,pipe'] as const

/** A path as ffmpeg takes it literally, whatever characters it holds. */
export const fileArgument = (path: string): string => `file:${path}`

const stderrKept = 16 * 1024

export function startChild(command: string, args: readonly string[]): ChildProcessWithoutNullStreams {
  return spawn(command, args, { stdio: ['pipe', 'pipe', 'pipe'], env: { PATH: process.env['PATH'] ?? '/usr/bin:/bin', LC_ALL: 'C' } })
}

/** Runs a command to its end and collects what it prints. Rejects only when it cannot be started. */
export function runChild(command: string, args: readonly string[], limits: ChildLimits): Promise<ChildResult> {
  return new Promise((resolve, reject) => {
    const child = startChild(command, args)
    child.stdin.end()
    const chunks: Buffer[] = []
    let size = 0, stderr = '', stoppedBy: ChildResult['stoppedBy'] = null
    const timer = setTimeout(() => { stoppedBy = 'time'; child.kill('SIGKILL') }, limits.seconds * 1000)
    child.stdout.on('data', (chunk: Buffer) => {
      size += chunk.length
      if (size > limits.maxOutputBytes) { stoppedBy = 'size'; child.kill('SIGKILL') }
      else chunks.push(chunk)
    })
    child.stderr.on('data', (chunk: Buffer) => { if (stderr.length < stderrKept) stderr += chunk.toString('utf8') })
    child.on('error', (error) => { clearTimeout(timer); reject(error) })
    child.on('close', (code) => {
      clearTimeout(timer)
      resolve({ code, stdout: Buffer.concat(chunks), stderr, stoppedBy })
    })
  })
}
