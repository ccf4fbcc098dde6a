import { setTimeout as pause } from 'node:timers/promises'
import { Problem } from '../problem'
import { openDecoders } from './decoders'

/** A decoder that ends when it is told to, or is given up. */
function trial(): {
  readonly decode: (signal: AbortSignal) => Promise<Buffer>
  readonly counts: { begun: number; givenUp: number; most: number }
  readonly end: () => void
} {
  const counts = { begun: 0, givenUp: 0, most: 0 }
  const waiting: (() => void)[] = []
  let now = 0
  return {
    counts,
    end: () => waiting.splice(0).forEach((go) => go()),
    decode: (signal) =>
      new Promise((done, fail) => {
        counts.begun++
        now++
        counts.most = Math.max(counts.most, now)
        waiting.push(() => (now--, done(Buffer.from('frame'))))
        signal.addEventListener('abort', () => (now--, counts.givenUp++, fail(signal.reason as Error)))
      }),
  }
}

test('so many at once, so many wait, the rest is told to come back', async () => {
  const { decode, counts, end } = trial()
  const { share } = openDecoders({ atOnce: 2, waiting: 3 })
  const answers = Array.from({ length: 9 }, (_, i) => {
    try {
      return share(String(i), decode).then(() => 'frame')
    } catch (error) {
      return Promise.resolve(error as Problem)
    }
  })
  const refused = (await Promise.all(answers.slice(5))) as Problem[]
  for (const problem of refused)
    expect(problem).toMatchObject({ status: 503, code: 'busy', retryAfterSeconds: 2, name: 'Problem' })
  const rest = Promise.all(answers.slice(0, 5))
  let over = false
  void rest.then(() => (over = true))
  while (!over) {
    end()
    await pause(1)
  }
  expect(await rest).toEqual(Array(5).fill('frame'))
  expect(counts).toEqual({ begun: 5, givenUp: 0, most: 2 })
})

test('what goes on by itself is not told to come back', async () => {
  const { share } = openDecoders({ atOnce: 1, waiting: 1 })
  const order: string[] = []
  const decode = (name: string) => async (): Promise<Buffer> => {
    order.push(name)
    await pause(1)
    return Buffer.from(name)
  }
  await Promise.all([
    share('first', decode('first')),
    share('behind', decode('behind'), { byItself: true }),
    share('far behind', decode('far behind'), { byItself: true }),
  ])
  expect(order).toEqual(['first', 'behind', 'far behind'])
  const [a, b, c] = [
    share('d', decode('d')),
    share('e', decode('e'), { byItself: true }),
    // One waits already.
    (async () => share('f', decode('f')))(),
  ]
  await expect(c).rejects.toMatchObject({ status: 503 })
  await Promise.all([a, b])
})

test('the same frame is decoded once for all who ask; it goes on while one of them is left', async () => {
  const { decode, counts, end } = trial()
  const { share } = openDecoders({ atOnce: 2, waiting: 3 })
  const gone = new AbortController()
  const first = share('a', decode, gone)
  const second = share('a', decode)
  gone.abort(new Error('gone'))
  await expect(first).rejects.toThrow('gone')
  await pause(1)
  end()
  expect((await second).toString()).toBe('frame')
  expect(counts).toEqual({ begun: 1, givenUp: 0, most: 1 })
})

test('what nobody waits for any more is given up, begun or not; asked for again it begins anew', async () => {
  const { decode, counts, end } = trial()
  const { share } = openDecoders({ atOnce: 1, waiting: 3 })
  const gone = new AbortController()
  const [running, waiting] = [share('a', decode, gone), share('b', decode, gone)]
  await pause(1)
  gone.abort(new Error('gone'))
  await expect(running).rejects.toThrow('gone')
  await expect(waiting).rejects.toThrow('gone')
  const again = share('b', decode)
  await pause(1)
  end()
  expect((await again).toString()).toBe('frame')
  expect(counts).toEqual({ begun: 2, givenUp: 1, most: 1 })
  await expect(async () => share('c', decode, gone)).rejects.toThrow('gone')
})
