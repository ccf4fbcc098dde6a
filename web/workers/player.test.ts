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

/** Plays on a clock of its own on which showing a frame takes `cost` milliseconds. */
async function run(
  options: Partial<PlayPlan>,
  cost: number,
): Promise<{ frames: number[]; dropped: number; last: number }> {
  let time = 0
  const frames: number[] = []
  const { last, counts } = await play(
    { ...plan, ...options },
    {
      ask: () => undefined,
      forget: () => undefined,
      show: async (index) => {
        frames.push(index)
        time += cost
      },
      now: () => time,
      sleep: async (ms) => {
        time += ms
      },
    },
    () => frames.length >= 40,
  )
  return { frames, dropped: counts.dropped, last }
}

test('in time, every frame is shown once', async () => {
  expect(await run({}, 20)).toEqual({ frames: [4, 5, 6, 7, 8, 9], dropped: 0, last: 9 })
})
test('too slow by half, every second frame is dropped and counted, and the clock is kept', async () => {
  const { frames, dropped } = await run({ from: 2 }, 80)
  expect(frames).toEqual([2, 3, 5, 7, 9])
  expect(dropped).toBe(3)
})
test('frames that fall due while the last one is on its way are counted too', async () => {
  const { frames, dropped, last } = await run({ from: 2 }, 130)
  expect(frames.length + dropped).toBe(8)
  expect(frames).toEqual([2, 5, 8])
  // What has ended stands at its end all the same.
  expect(last).toBe(9)
  expect((await run({ from: 8, speed: -1 }, 130)).last).toBe(2)
})
test('a slow speed shows no frame twice', async () => {
  expect((await run({ speed: 0.5 }, 5)).frames).toEqual([4, 5, 6, 7, 8, 9])
})
