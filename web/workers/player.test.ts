import { frameAt, play, type PlayPlan } from './player'

const plan: PlayPlan = { from: 4, first: 2, last: 9, speed: 1, loop: false, framesPerSecond: 24 }

describe('which frame is due', () => {
  test('forward to the end', () => {
    expect([0, 1, 5, 6].map((t) => frameAt(plan, t))).toEqual([4, 5, 9, null])
  })
  test('backward, faster, slower', () => {
    expect([0, 1, 2, 3].map((t) => frameAt({ ...plan, speed: -1 }, t))).toEqual([4, 3, 2, null])
    expect([0, 1, 2].map((t) => frameAt({ ...plan, speed: 2 }, t))).toEqual([4, 6, 8])
    expect([0, 1, 2, 3].map((t) => frameAt({ ...plan, speed: 0.5 }, t))).toEqual([4, 4, 5, 5])
  })
  test('a loop goes round both ways', () => {
    expect([5, 6, 7, 14].map((t) => frameAt({ ...plan, loop: true }, t))).toEqual([9, 2, 3, 2])
    expect(frameAt({ ...plan, loop: true, speed: -1 }, 3)).toBe(9)
  })
})

/** Time that goes on only when everybody waits for it. */
function madeClock() {
  let time = 0
  const waiting: { readonly at: number; readonly done: () => void }[] = []
  return {
    now: () => time,
    sleep: (ms: number): Promise<void> => new Promise((done) => waiting.push({ at: time + ms, done })),
    async run<T>(work: Promise<T>): Promise<T> {
      let over = false
      const end = (): void => {
        over = true
      }
      work.then(end, end)
      for (;;) {
        await new Promise((done) => setImmediate(done))
        if (over) return work
        waiting.sort((a, b) => a.at - b.at)
        const next = waiting.shift()
        if (!next) throw new Error('Nobody goes on.')
        time = Math.max(time, next.at)
        next.done()
      }
    },
  }
}

/** Plays on a clock of its own on which making the nth picture takes so many milliseconds. */
async function run(
  options: Partial<PlayPlan>,
  cost: (nth: number) => number,
  most = 40,
  { readyAhead, look }: { readonly readyAhead?: number; readonly look?: (shown: number) => string } = {},
): Promise<{ frames: number[]; times: number[]; looks: string[]; dropped: number; last: number }> {
  const { now, sleep, run: through } = madeClock()
  const frames: number[] = []
  const times: number[] = []
  const looks: string[] = []
  const lookNow = (): string => look?.(frames.length) ?? ''
  const { last, counts } = await through(
    play<readonly [index: number, look: string]>(
      { ...plan, ...options },
      {
        ask: () => undefined,
        forget: () => undefined,
        make: async (index, nth) => {
          const through = lookNow()
          await sleep(cost(nth))
          return [index, through]
        },
        present: ([index, through]) => {
          frames.push(index)
          looks.push(through)
          times.push(now())
          return Promise.resolve()
        },
        look: lookNow,
        now,
        sleep,
      },
      () => frames.length >= most,
      readyAhead,
    ),
  )
  return { frames, times, looks, dropped: counts.dropped, last }
}

test('in time, every frame is shown once, a tick apart', async () => {
  const { frames, times, dropped, last } = await run({}, () => 20)
  expect([frames, dropped, last]).toEqual([[4, 5, 6, 7, 8, 9], 0, 9])
  for (const [i, at] of times.slice(1).entries()) expect(at - times[i]!).toBeCloseTo(1000 / 24, 3)
})
test('a picture that takes three times as long is made up for by those about it', async () => {
  const { frames, dropped, times } = await run({ from: 2 }, (nth) => (nth === 5 ? 110 : 15))
  expect([frames, dropped]).toEqual([[2, 3, 4, 5, 6, 7, 8, 9], 0])
  for (const [i, at] of times.slice(1).entries()) expect(at - times[i]!).toBeLessThan(2000 / 24)
})
test('many that wait make up for a clip that begins slowly, and the clock starts no later for it', async () => {
  const range = { first: 0, from: 0, last: 47 }
  const slowly = (nth: number): number => (nth > 20 && nth <= 32 ? 60 : 25)
  const { dropped, times } = await run(range, slowly, 48, { readyAhead: 10 })
  expect(dropped).toBe(0)
  expect(times[0]).toBeLessThan(5000 / 24)
  expect((await run(range, slowly, 48, { readyAhead: 2 })).dropped).toBeGreaterThan(0)
})
test('what is slow to begin with holds up the clock instead of being dropped', async () => {
  const range = { first: 0, from: 0, last: 47 }
  const { dropped, frames } = await run(range, (nth) => (nth <= 6 ? 120 : 25), 48, { readyAhead: 10 })
  expect([dropped, frames.length]).toEqual([0, 48])
})
test('another look is seen at the next frame, however many wait', async () => {
  const range = { first: 0, from: 0, last: 47 }
  const { frames, looks, times } = await run(range, () => 10, 48, {
    readyAhead: 10,
    look: (shown) => (shown < 20 ? 'graded' : 'as shot'),
  })
  expect(looks.lastIndexOf('graded')).toBeLessThanOrEqual(20)
  expect(looks.slice(21)).not.toContain('graded')
  expect(frames).toEqual([...frames].sort((a, b) => a - b))
  for (const [i, at] of times.slice(1).entries()) expect(at - times[i]!).toBeLessThan(3000 / 24)
})
test('too slow by half, about every second frame is dropped and counted, and the clock is kept', async () => {
  const { frames, dropped, times } = await run({ first: 0, from: 0, last: 47 }, () => 80)
  expect(frames.length + dropped).toBe(48)
  expect(frames.length).toBeGreaterThanOrEqual(24)
  expect(frames.length).toBeLessThanOrEqual(28)
  expect(times.at(-1)!).toBeLessThan(2200)
})
test('frames that fall due while the last one is on its way are counted too', async () => {
  const { frames, dropped, last } = await run({ from: 2 }, () => 130)
  expect(frames.length + dropped).toBe(8)
  expect(frames.length).toBeLessThan(6)
  // What has ended stands at its end all the same.
  expect(last).toBe(9)
  expect((await run({ from: 8, speed: -1 }, () => 130)).last).toBe(2)
})
test('a slow speed shows no frame twice', async () => {
  expect((await run({ speed: 0.5 }, () => 5)).frames).toEqual([4, 5, 6, 7, 8, 9])
})
test('paused, it stands at what is on screen, not at what was made', async () => {
  const { frames, last } = await run({ from: 2, loop: true }, () => 10, 3)
  expect(frames).toEqual([2, 3, 4])
  expect(last).toBe(4)
})
test('a picture that cannot be made ends it', async () => {
  await expect(
    run({}, (nth) => {
      if (nth === 3) throw new Error('gone')
      return 10
    }),
  ).rejects.toThrow('gone')
})
