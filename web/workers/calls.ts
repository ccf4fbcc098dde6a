// Calls between the page and its workers, typed by the worker's own functions. A new question is one function in the
// worker and one call in the page; errors, cancelling, transferring and "the latest wins" are here and nowhere else.

/** What a function of a worker is given beside its question. */
export interface CallContext<E = never> {
  /** Aborted when the page wants no answer any more. */
  readonly signal: AbortSignal
  /** Tells something before the answer. */
  tell(event: E, transfer?: Transferable[]): void
}
export type WorkerFunction<Q, A, E = never> = (question: Q, context: CallContext<E>) => A | Promise<A>
export type WorkerFunctions = Readonly<Record<string, WorkerFunction<never, unknown>>>

type QuestionOf<F> = F extends (question: infer Q, ...rest: never[]) => unknown ? Q : never
type AnswerOf<F> = F extends (...parameters: never[]) => infer A ? Awaited<A> : never
type EventOf<F> = F extends (question: never, context: CallContext<infer E>) => unknown ? E : never

type ToWorker =
  { readonly name: string; readonly id: number | null; readonly question: unknown } | { readonly cancel: number }
type FromWorker =
  | { readonly id: number; readonly answer: unknown }
  | { readonly id: number; readonly event: unknown }
  | { readonly id: number; readonly fault: string }

const transfers = new WeakMap<object, Transferable[]>()
/** Marks what of an answer leaves the worker instead of being copied. */
export function transferring<T extends object>(answer: T, transfer: Transferable[]): T {
  transfers.set(answer, transfer)
  return answer
}

/** The worker's side: answers calls by these functions. A function that throws fails its own call and no other. */
export function serve(functions: WorkerFunctions): void {
  const scope = self as unknown as {
    onmessage: ((e: MessageEvent<ToWorker>) => void) | null
    postMessage: (message: FromWorker, transfer?: Transferable[]) => void
  }
  const running = new Map<number, AbortController>()
  async function run(name: string, id: number | null, question: unknown): Promise<void> {
    const control = new AbortController()
    if (id !== null) running.set(id, control)
    try {
      const asked = functions[name]
      if (!asked) throw new Error(`The worker has no function "${name}".`)
      const context: CallContext<unknown> = {
        signal: control.signal,
        tell: (event, transfer) => {
          if (id !== null && !control.signal.aborted) scope.postMessage({ id, event }, transfer ?? [])
        },
      }
      const answer = await (asked as WorkerFunction<unknown, unknown, unknown>)(question, context)
      if (id === null || control.signal.aborted) return
      const moved = typeof answer === 'object' && answer !== null ? transfers.get(answer) : undefined
      scope.postMessage({ id, answer }, moved ?? [])
    } catch (error) {
      if (id === null) console.error(error)
      else scope.postMessage({ id, fault: error instanceof Error ? error.message : String(error) })
    } finally {
      if (id !== null) running.delete(id)
    }
  }
  scope.onmessage = ({ data }) => {
    if ('cancel' in data) running.get(data.cancel)?.abort()
    else void run(data.name, data.id, data.question)
  }
}

/** The answer is not wanted any more: something newer was asked, or the asker is gone. */
export class Overtaken extends Error {
  constructor() {
    super('This question was overtaken.')
    this.name = 'Overtaken'
  }
}

export interface CallOptions<E = never> {
  readonly signal?: AbortSignal
  readonly transfer?: Transferable[]
  readonly onEvent?: (event: E) => void
}
export interface Calls<F> {
  /** Rejects with the worker's own sentence, or with Overtaken. */
  readonly ask: <K extends keyof F & string>(
    name: K,
    question: QuestionOf<F[K]>,
    options?: CallOptions<EventOf<F[K]>>,
  ) => Promise<AnswerOf<F[K]>>
  /** The same where only the newest of several matters: one is under way, one waits, the others are overtaken. */
  readonly latest: <K extends keyof F & string>(
    name: K,
    question: QuestionOf<F[K]>,
    options?: CallOptions<EventOf<F[K]>>,
  ) => Promise<AnswerOf<F[K]>>
  /** Asks for no answer. */
  readonly tell: <K extends keyof F & string>(name: K, question: QuestionOf<F[K]>, transfer?: Transferable[]) => void
  /** Starts the worker before anything is asked of it. */
  readonly prepare: () => void
  readonly close: () => void
}

interface Waiting {
  readonly done: (answer: unknown) => void
  readonly fail: (error: Error) => void
  readonly onEvent: ((event: unknown) => void) | undefined
}

/** What a call needs of a worker. */
export type CalledWorker = Pick<Worker, 'postMessage' | 'terminate' | 'onmessage' | 'onerror'>

/**
 * The page's side. The worker is started by the first call, so that what nobody asks takes nothing from what is wanted
 * now. `name` is what the worker is called in the sentence that says it stopped.
 */
export function connect<F>(start: () => CalledWorker, name: string): Calls<F> {
  const waiting = new Map<number, Waiting>()
  let nextId = 1
  let worker: CalledWorker | null = null
  let closed = false
  function post(message: ToWorker, transfer: Transferable[] = []): void {
    if (closed) return
    worker ??= begin()
    worker.postMessage(message, transfer)
  }
  function prepare(): void {
    if (!closed) worker ??= begin()
  }
  function begin(): CalledWorker {
    const begun = start()
    begun.onmessage = ({ data }: MessageEvent<FromWorker>) => {
      const asked = waiting.get(data.id)
      if (!asked) return
      if ('event' in data) return asked.onEvent?.(data.event)
      waiting.delete(data.id)
      if ('fault' in data) asked.fail(new Error(data.fault))
      else asked.done(data.answer)
    }
    // A function's own fault comes as an answer; this is the worker itself, as when it cannot be loaded.
    begun.onerror = (event) => {
      event.preventDefault()
      const failed = [...waiting.values()]
      waiting.clear()
      for (const { fail } of failed) fail(new Error(`${name} stopped. Reload the page.`))
    }
    return begun
  }

  type Ask = (name: string, question: unknown, options?: CallOptions<unknown>) => Promise<unknown>
  const ask: Ask = (of, question, { signal, transfer, onEvent } = {}) =>
    new Promise((done, fail) => {
      if (signal?.aborted || closed) return fail(new Overtaken())
      const id = nextId++
      const cancel = (): void => {
        if (!waiting.delete(id)) return
        post({ cancel: id })
        fail(new Overtaken())
      }
      signal?.addEventListener('abort', cancel, { once: true })
      const settled =
        <T>(settle: (value: T) => void) =>
        (value: T): void => {
          signal?.removeEventListener('abort', cancel)
          settle(value)
        }
      waiting.set(id, { done: settled(done), fail: settled(fail), onEvent })
      post({ name: of, id, question }, transfer)
    })

  interface Line {
    next: { readonly go: () => void; readonly fail: (error: Error) => void } | null
  }
  const lines = new Map<string, Line>()
  const latest: Ask = async (of, question, options) => {
    const line = lines.get(of)
    if (line) {
      line.next?.fail(new Overtaken())
      await new Promise<void>((go, fail) => {
        line.next = { go, fail }
      })
    }
    // The one who waits is let in a moment later: who comes in between waits in the same line.
    const mine: Line = line ?? { next: null }
    lines.set(of, mine)
    try {
      return await ask(of, question, options)
    } finally {
      const { next } = mine
      mine.next = null
      if (next) next.go()
      else lines.delete(of)
    }
  }

  return {
    ask: ask as Calls<F>['ask'],
    latest: latest as Calls<F>['latest'],
    tell: (of, question, transfer) => post({ name: of, id: null, question }, transfer),
    prepare,
    close: () => {
      const failed = [...waiting.values()]
      waiting.clear()
      for (const { fail } of failed) fail(new Overtaken())
      closed = true
      worker?.terminate()
    },
  }
}
