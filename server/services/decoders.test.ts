import { setTimeout as pause } from 'node:timers/promises'
import { Problem } from '../problem'
import { openDecoders, type DecoderBudget, type Decoders } from './decoders'

/** Decoders that end when they are told to, or are given up; frames whose name begins with "large" share none. */
function trial(budget: Pick<DecoderBudget<string>, 'atOnce' | 'waiting'>): {
  readonly share: (name: string, asked?: Parameters<Decoders<string>['share']>[2]) => Promise<Buffer>
  /** The frames of each decoder, in the order of their starts. */
  readonly begun: (readonly string[])[]
  readonly counts: { givenUp: number; most: number }
  readonly end: () => void
} {
  const counts = { givenUp: 0, most: 0 }
  const begun: (readonly string[])[] = []
  const waiting: (() => void)[] = []
  let now = 0
  const decoders = openDecoders<string>({
    ...budget,
    sharesDecoder: (name) => !name.startsWith('large'),
    decode: (frames, { signal, onFrame }) =>
      new Promise((done, fail) => {
        begun.push(frames)
        for (const [n, name] of frames.entries()) if (name === 'quick') onFrame(n, Buffer.from(name))
        now++
        counts.most = Math.max(counts.most, now)
        waiting.push(
          () => (now--, done(frames.map((name) => (name === 'broken' ? new Error(name) : Buffer.from(name))))),
        )
        signal.addEventListener('abort', () => (now--, counts.givenUp++, fail(signal.reason as Error)))
      }),
  })
  return {
    share: (name, asked) => decoders.share(name, name, asked),
    begun,
    counts,
    end: () => waiting.splice(0).forEach((go) => go()),
  }
}
const text = async (frame: Promise<Buffer>): Promise<string> => (await frame).toString()

async function endUntil(all: Promise<unknown>, end: () => void): Promise<void> {
  let over = false
  void all.then(() => (over = true))
  while (!over) {
    end()
    await pause(1)
  }
}

test('so many at once, so many wait, the rest is told to come back', async () => {
  const { share, begun, counts, end } = trial({ atOnce: 2, waiting: 3 })
  const answers = Array.from({ length: 9 }, (_, i) => {
    try {
      return text(share(`large ${i}`))
    } catch (error) {
      return Promise.resolve(error as Problem)
    }
  })
  const refused = (await Promise.all(answers.slice(5))) as Problem[]
  for (const problem of refused)
    expect(problem).toMatchObject({ status: 503, code: 'busy', retryAfterSeconds: 2, name: 'Problem' })
  const rest = Promise.all(answers.slice(0, 5))
  await endUntil(rest, end)
  expect(await rest).toEqual(['large 0', 'large 1', 'large 2', 'large 3', 'large 4'])
  expect(begun).toHaveLength(5)
  expect(counts).toEqual({ givenUp: 0, most: 2 })
})

test('those that wait share the next decoders evenly, four at most in one; large ones have their own', async () => {
  const { share, begun, end } = trial({ atOnce: 2, waiting: 64 })
  const names = ['a', 'b', 'c', 'large', 'd', 'e', 'f', 'g', 'h', 'i', 'j', 'k', 'l']
  const all = Promise.all(names.map((name) => text(share(name))))
  await endUntil(all, end)
  expect(await all).toEqual(names)
  // Of ten that may share, a half would be five.
  expect(begun).toEqual([['a'], ['b'], ['c', 'd', 'e', 'f'], ['large'], ['g', 'h', 'i'], ['j', 'k'], ['l']])
})

test('what is wrong with one frame is told to who asked for that one', async () => {
  const { share, begun, end } = trial({ atOnce: 1, waiting: 64 })
  const [first, good, broken] = [share('first'), share('good'), share('broken')]
  const failed = expect(broken).rejects.toThrow('broken')
  await endUntil(Promise.allSettled([first, good, broken]), end)
  await failed
  expect(await text(good)).toBe('good')
  expect(begun).toEqual([['first'], ['good', 'broken']])
})

test('a frame is given as soon as it is there', async () => {
  const { share, begun, end } = trial({ atOnce: 1, waiting: 64 })
  const [first, slow, quick] = [share('first'), share('slow'), share('quick')]
  end()
  await first
  expect(await text(quick)).toBe('quick')
  expect(begun).toEqual([['first'], ['slow', 'quick']])
  end()
  expect(await text(slow)).toBe('slow')
})

test('what goes on by itself comes last, turns nobody away and shares no decoder with others', async () => {
  const { share, begun, end } = trial({ atOnce: 1, waiting: 1 })
  const all = [
    share('first'),
    share('behind', { byItself: true }),
    share('far behind', { byItself: true }),
    share('asked'),
  ]
  await expect((async () => share('refused'))()).rejects.toMatchObject({ status: 503 })
  await endUntil(Promise.all(all), end)
  expect(begun).toEqual([['first'], ['asked'], ['behind', 'far behind']])
})

test('the same frame is decoded once for all who ask; it goes on while one of them is left', async () => {
  const { share, begun, counts, end } = trial({ atOnce: 2, waiting: 3 })
  const gone = new AbortController()
  const first = share('a', gone)
  const second = share('a')
  gone.abort(new Error('gone'))
  await expect(first).rejects.toThrow('gone')
  await pause(1)
  end()
  expect(await text(second)).toBe('a')
  expect(begun).toEqual([['a']])
  expect(counts).toEqual({ givenUp: 0, most: 1 })
})

test('what nobody waits for any more is given up, begun or not; asked for again it begins anew', async () => {
  const { share, begun, counts, end } = trial({ atOnce: 1, waiting: 3 })
  const gone = new AbortController()
  const [running, waiting] = [share('a', gone), share('b', gone)]
  await pause(1)
  gone.abort(new Error('gone'))
  await expect(running).rejects.toThrow('gone')
  await expect(waiting).rejects.toThrow('gone')
  const again = share('b')
  await pause(1)
  end()
  expect(await text(again)).toBe('b')
  expect(begun).toEqual([['a'], ['b']])
  expect(counts).toEqual({ givenUp: 1, most: 1 })
  await expect(async () => share('c', gone)).rejects.toThrow('gone')
})

test('a decoder that several share goes on until none of them waits', async () => {
  const { share, begun, counts, end } = trial({ atOnce: 1, waiting: 3 })
  const [left, last] = [new AbortController(), new AbortController()]
  const first = share('first')
  const [a, b] = [share('a', left), share('b', last)]
  end()
  await first
  await pause(1)
  expect(begun).toEqual([['first'], ['a', 'b']])
  left.abort(new Error('left'))
  await expect(a).rejects.toThrow('left')
  expect(counts.givenUp).toBe(0)
  last.abort(new Error('last'))
  await expect(b).rejects.toThrow('last')
  expect(counts.givenUp).toBe(1)
})
