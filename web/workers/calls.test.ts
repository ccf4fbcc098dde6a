import { connect, Overtaken, serve, transferring, type CallContext, type Calls } from './calls'

interface Page {
  onmessage: ((e: MessageEvent) => void) | null
  onerror: ((e: ErrorEvent) => void) | null
  postMessage: (message: unknown, transfer?: Transferable[]) => void
  terminate: () => void
}

/** A worker in the same thread: both sides of a channel whose messages are copied and come later, as they do. */
function start<F>(functions: F): { readonly calls: Calls<F>; readonly page: Page; readonly moved: Transferable[][] } {
  const moved: Transferable[][] = []
  const scope = { onmessage: null as ((e: MessageEvent) => void) | null, postMessage: (): void => undefined }
  const page: Page = {
    onmessage: null,
    onerror: null,
    postMessage: (message) =>
      void Promise.resolve(structuredClone(message)).then((data) => scope.onmessage?.({ data } as MessageEvent)),
    terminate: () => {
      scope.onmessage = null
    },
  }
  Object.assign(scope, {
    postMessage: (message: unknown, transfer: Transferable[] = []) => {
      moved.push(transfer)
      void Promise.resolve(message).then((data) => page.onmessage?.({ data } as MessageEvent))
    },
  })
  Object.assign(globalThis, { self: scope })
  serve(functions as never)
  return { calls: connect(() => page as unknown as Worker, 'The worker'), page, moved }
}

const gate = (): { readonly wait: Promise<void>; readonly open: () => void } => {
  let open = (): void => undefined
  const wait = new Promise<void>((done) => {
    open = done
  })
  return { wait, open }
}

test('a call is answered by the function of its name, with what it transfers', async () => {
  const bytes = new ArrayBuffer(4)
  const { calls, moved } = start({
    double: (n: number) => n * 2,
    later: async (n: number) => Promise.resolve(n + 1),
    bytes: () => transferring({ bytes }, [bytes]),
  })
  expect(await Promise.all([calls.ask('double', 21), calls.ask('later', 1)])).toEqual([42, 2])
  expect(await calls.ask('bytes', undefined as never)).toEqual({ bytes })
  expect(moved.at(-1)).toEqual([bytes])
})

test('a worker is started by the first call, or beforehand, and never once it is closed', async () => {
  const started: string[] = []
  const begin = (): never => {
    started.push('worker')
    return { postMessage: () => undefined, terminate: () => started.push('ended') } as never
  }
  const unused = connect<{ double: (n: number) => number }>(begin, 'The worker')
  unused.close()
  await expect(unused.ask('double', 1)).rejects.toThrow(Overtaken)
  unused.tell('double', 1)
  unused.prepare()
  expect(started).toEqual([])
  const calls = connect<{ double: (n: number) => number }>(begin, 'The worker')
  calls.prepare()
  calls.tell('double', 1)
  calls.close()
  expect(started).toEqual(['worker', 'ended'])
})

test('a function that throws fails its own call with its sentence; the worker goes on', async () => {
  const { calls } = start({
    bad: (): number => {
      throw new RangeError('The frame came incomplete.')
    },
    good: () => 'here',
  })
  const bad = calls.ask('bad', undefined)
  const good = calls.ask('good', undefined)
  await expect(bad).rejects.toThrow('The frame came incomplete.')
  expect(await good).toBe('here')
  await expect(calls.ask('nothing' as 'bad', undefined as never)).rejects.toThrow('no function "nothing"')
})

test('what is told before the answer comes before it, and not after a cancel', async () => {
  const hold = gate()
  const { calls } = start({
    count: async (to: number, { tell, signal }: CallContext<number>) => {
      for (let n = 1; n <= to; n++) tell(n)
      await hold.wait
      tell(to + 1)
      return signal.aborted
    },
  })
  const heard: number[] = []
  const control = new AbortController()
  const counted = calls.ask('count', 2, { onEvent: (n) => heard.push(n), signal: control.signal })
  await new Promise((done) => setTimeout(done))
  control.abort()
  await expect(counted).rejects.toThrow(Overtaken)
  hold.open()
  await new Promise((done) => setTimeout(done))
  expect(heard).toEqual([1, 2])
})

test('of many that only the newest of matters, the first and the last are worked on', async () => {
  const worked: number[] = []
  const hold = gate()
  const { calls } = start({
    draw: async (n: number) => {
      worked.push(n)
      await hold.wait
      return n
    },
  })
  const all = [1, 2, 3, 4].map((n) => calls.latest('draw', n).catch((error: Error) => error.name))
  await new Promise((done) => setTimeout(done))
  hold.open()
  expect(await Promise.all(all)).toEqual([1, 'Overtaken', 'Overtaken', 4])
  expect(worked).toEqual([1, 4])
  expect(await calls.latest('draw', 5)).toBe(5)
})

test('a worker that stops fails what is under way, and says so; closing it overtakes', async () => {
  const { calls, page } = start({ never: () => new Promise<number>(() => undefined) })
  const asked = calls.ask('never', undefined)
  page.onerror?.({ preventDefault: () => undefined } as ErrorEvent)
  await expect(asked).rejects.toThrow('The worker stopped. Reload the page.')
  const last = calls.ask('never', undefined)
  calls.close()
  await expect(last).rejects.toThrow(Overtaken)
})
