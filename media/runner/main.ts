// The media runner: a small process that starts media programs for the server. A process is copied to start another,
// and the server, with all its frames and threads, stands still for tens of milliseconds while that is done.
import { runChild, type ChildLimits } from '../child'
import { receive, send, type RunnerRequest } from './messages'

const running = new Map<number, AbortController>()

// What stops the server stops this: its input ends.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => undefined)
const end = (): void => {
  for (const run of running.values()) run.abort(new Error('The server is gone.'))
  process.exit(0)
}
process.stdin.on('end', end)
process.stdin.on('error', end)
process.stdout.on('error', end)

receive<RunnerRequest>(process.stdin, (request) => {
  if ('giveUp' in request) running.get(request.giveUp)?.abort(new Error('It is not waited for any more.'))
  else void run(request)
})

async function run({ run: id, command, args, limits }: Extract<RunnerRequest, { run: number }>): Promise<void> {
  const giveUp = new AbortController()
  running.set(id, giveUp)
  const sent = new Set<number>()
  const tell = (output: number, bytes: Buffer): void => {
    sent.add(output)
    send(process.stdout, { run: id, output }, bytes)
  }
  const { wholeBytes, ...own } = limits
  const childLimits: ChildLimits = {
    ...own,
    signal: giveUp.signal,
    ...(wholeBytes ? { whole: { bytes: wholeBytes, tell } } : {}),
  }
  try {
    const { code, stdout, more, stderr, stoppedBy } = await runChild(command, args, childLimits)
    for (const [output, bytes] of [stdout, ...more].entries()) if (!sent.has(output)) tell(output, bytes)
    send(process.stdout, { run: id, code, stderr, stoppedBy })
  } catch (error) {
    if (!giveUp.signal.aborted) send(process.stdout, { run: id, error: String(error) })
  } finally {
    running.delete(id)
  }
}
