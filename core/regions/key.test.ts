// Long: every kind of key has its case, by the same made picture.
import fc from 'fast-check'
import { fromOklab, oklabOf, toWorkingLog, workingGamut } from '../colour'
import {
  belongs,
  blankPicture,
  calmed,
  chatterOf,
  cleaned,
  cleaningReach,
  fitKey,
  freshKey,
  judgeMatte,
  keyMatte,
  keyPlanes,
  keyDistribution,
  keyValue,
  matteMoved,
  noCleaning,
  overlapOf,
  renderMatte,
  sampleOf,
  usualCleaning,
  type Cleaning,
  type KeyPlanes,
  type KeyRanges,
  type Region,
} from '.'

type Lab = readonly [number, number, number]
const polar = (l: number, purity: number, degrees: number): Lab => [
  l,
  l * purity * Math.cos((degrees * Math.PI) / 180),
  l * purity * Math.sin((degrees * Math.PI) / 180),
]
const red = polar(0.5, 0.2, 30)
const wall = polar(0.7, 0.02, 110)
const blue = polar(0.4, 0.2, 260)
function random(seed: number): () => number {
  let s = seed
  return () => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0
    return s / 2 ** 32
  }
}
/** A picture of colours, with noise on each of L, a, b. */
function pictureOf(width: number, height: number, at: (x: number, y: number) => Lab, noise = 0, seed = 1): KeyPlanes {
  const l = new Float32Array(width * height)
  const a = new Float32Array(l.length)
  const b = new Float32Array(l.length)
  const next = random(seed)
  const bell = (): number => (next() + next() + next() - 1.5) * 2 * noise
  for (let p = 0; p < l.length; p++) {
    const [x, y, z] = at((p % width) + 0.5, Math.floor(p / width) + 0.5)
    l[p] = x + bell()
    a[p] = y + bell()
    b[p] = z + bell()
  }
  return { width, height, l, a, b }
}
const disc = (x: number, y: number): boolean => Math.hypot(x - 60, y - 40) < 25
const scene = (noise: number, seed = 1, inside: Lab = red): KeyPlanes =>
  pictureOf(120, 80, (x, y) => (disc(x, y) ? inside : wall), noise, seed)
const truth = Float32Array.from({ length: 120 * 80 }, (_, p) =>
  disc((p % 120) + 0.5, Math.floor(p / 120) + 0.5) ? 1 : 0,
)
const picked = { left: 0.42, top: 0.4, right: 0.58, bottom: 0.6 }

test('reads working-log codes as Oklab of the same light', () => {
  const space = oklabOf(workingGamut)
  const colours: Lab[] = [red, wall, blue, [0.56, 0, 0]]
  const codes = Uint16Array.from(
    colours.flatMap((c) => fromOklab(space, ...c).map((v) => Math.round(toWorkingLog(v) * 65535))),
  )
  const planes = keyPlanes(codes, 4)
  colours.forEach(([l, a, b], p) => {
    expect(planes.l[p]).toBeCloseTo(l, 3)
    expect(planes.a[p]).toBeCloseTo(a, 3)
    expect(planes.b[p]).toBeCloseTo(b, 3)
  })
})

describe('ranges', () => {
  const whole: KeyRanges = {
    hue: { centre: 350, half: 20, soft: 10 },
    chroma: { low: 0.1, high: 0.3, softLow: 0.05, softHigh: 0 },
    lightness: null,
  }
  test('are full inside, nothing outside, half in the middle of a soft end, and go round the circle', () => {
    expect(belongs(whole, ...polar(0.5, 0.2, 5))).toBe(1)
    expect(belongs(whole, ...polar(0.5, 0.2, 15))).toBeCloseTo(0.5, 6)
    expect(belongs(whole, ...polar(0.5, 0.2, 25))).toBe(0)
    expect(belongs(whole, ...polar(0.5, 0.075, 350))).toBeCloseTo(0.5, 6)
    expect(belongs(whole, ...polar(0.5, 0.31, 350))).toBe(0)
  })
  test('light and shade on one thing have the same chroma', () => {
    for (const l of [0.2, 0.5, 0.9]) expect(belongs(whole, ...polar(l, 0.2, 350))).toBe(1)
  })
  test('any subset does: hue alone leaves out what has none, lightness alone asks for nothing else', () => {
    const hueOnly = { hue: whole.hue, chroma: null, lightness: null }
    const dark = { hue: null, chroma: null, lightness: { low: -0.2, high: 0.2, softLow: 0, softHigh: 0.1 } }
    expect(belongs(hueOnly, ...polar(0.5, 0.001, 350))).toBe(0)
    expect(belongs(dark, 0.1, 0.3, -0.2)).toBe(1)
    expect(belongs(dark, 0.25, 0, 0)).toBeCloseTo(0.5, 6)
  })
  test('a matte of many pixels is what each pixel is by itself; of no group, nothing', () => {
    const planes = scene(0.05)
    const key = {
      ...freshKey,
      groups: [whole, { hue: null, chroma: null, lightness: { low: 0.6, high: 0.8, softLow: 0.1, softHigh: 0.1 } }],
    }
    keyMatte(key, planes).forEach((m, p) =>
      expect(m).toBeCloseTo(keyValue(key, planes.l[p]!, planes.a[p]!, planes.b[p]!), 5),
    )
    expect(keyMatte(freshKey, planes).every((m) => m === 0)).toBe(true)
  })
})

describe('picking', () => {
  test('one pick holds the thing and not the wall, under noise', () => {
    const planes = scene(0.012)
    const sample = sampleOf(planes, 'add', picked)
    const key = { ...freshKey, groups: fitKey([sample]) }
    expect(key.groups).toHaveLength(1)
    expect(overlapOf(keyMatte(key, planes), truth)).toBeGreaterThan(0.93)
  })
  test('a click stands for the pixels about it; off the picture it stands for the nearest', () => {
    expect(sampleOf(scene(0), 'add', { left: 0.5, top: 0.5, right: 0.5, bottom: 0.5 }).colours.length).toBeGreaterThan(
      0,
    )
    expect(
      sampleOf(scene(0), 'add', { left: 4, top: -3, right: 5, bottom: -2 }).colours.every((c) => Number.isFinite(c[0])),
    ).toBe(true)
  })
  test('two things picked are two groups; picked twice, one', () => {
    const planes = pictureOf(120, 80, (x) => {
      if (x < 40) return red
      if (x < 80) return wall
      return blue
    })
    const at = (left: number): Parameters<typeof sampleOf>[2] => ({ left, top: 0.2, right: left + 0.15, bottom: 0.8 })
    const two = fitKey([
      sampleOf(planes, 'add', at(0.05)),
      sampleOf(planes, 'add', at(0.75)),
      sampleOf(planes, 'add', at(0.1)),
    ])
    expect(two).toHaveLength(2)
    const matte = keyMatte({ ...freshKey, groups: two }, planes)
    expect([matte[40 * 120 + 20], matte[40 * 120 + 60], matte[40 * 120 + 100]]).toEqual([1, 0, 1])
  })
  test('what is picked away goes, and what was picked stays', () => {
    const like = polar(0.75, 0.2, 32)
    const planes = pictureOf(120, 80, (x, y) => (disc(x, y) ? red : like), 0.005)
    const one = [sampleOf(planes, 'add', picked)]
    const wide = fitKey(one).map((g) => ({ ...g, lightness: { low: 0.2, high: 0.9, softLow: 0.1, softHigh: 0.1 } }))
    expect(overlapOf(keyMatte({ ...freshKey, groups: wide }, planes), truth)).toBeLessThan(0.5)
    const away = fitKey([...one, sampleOf(planes, 'remove', { left: 0.02, top: 0.05, right: 0.15, bottom: 0.9 })])
    expect(overlapOf(keyMatte({ ...freshKey, groups: away }, planes), truth)).toBeGreaterThan(0.9)
  })
  test('nearly grey things have no hue to ask for', () => {
    expect(
      fitKey([sampleOf(scene(0.004), 'add', { left: 0.02, top: 0.02, right: 0.2, bottom: 0.3 })])[0]!.hue,
    ).toBeNull()
    expect(fitKey([])).toEqual([])
  })
})

describe('cleaning', () => {
  const keyed = (planes: KeyPlanes, cleaning: Cleaning, tall = 80): Float32Array =>
    cleaned(
      {
        width: 120,
        height: tall,
        values: keyMatte(
          { ...freshKey, groups: fitKey([sampleOf(scene(0.03), 'add', picked)]) },
          calmed(planes, cleaning, 80),
        ),
      },
      { width: 120, height: tall, values: planes.l },
      cleaning,
      80,
    ).values
  // A picture 80 high: radii of a pixel or two.
  const strong: Cleaning = { ...usualCleaning, calm: 0.015, specks: 0.02, holes: 0.025, follow: 0.03 }
  test('takes specks away, and its edge jumps less', () => {
    const noisy = scene(0.03)
    const raw = keyed(noisy, noCleaning)
    const clean = keyed(noisy, strong)
    const of = (values: Float32Array) => judgeMatte({ width: 120, height: 80, values })
    expect(of(raw).specks).toBeGreaterThan(10)
    expect(of(clean).specks).toBe(0)
    expect(of(clean).hardEdge).toBeLessThan(of(raw).hardEdge)
    expect(overlapOf(clean, truth)).toBeGreaterThan(0.93)
  })
  test('off, it changes nothing', () => {
    const matte = { width: 120, height: 80, values: keyed(scene(0.03), noCleaning) }
    expect(cleaned(matte, matte, noCleaning, 80).values).toEqual(matte.values)
  })
  test('rows that are cleaned by themselves, with those they look at, are what they are in the whole', () => {
    const planes = scene(0.03)
    const whole = keyed(planes, strong)
    const reach = cleaningReach(strong, 80)
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 70 }), fc.integer({ min: 1, max: 10 }), (from, count) => {
        const top = Math.max(0, from - reach)
        const bottom = Math.min(80, from + count + reach)
        const cut = (of: Float32Array): Float32Array => of.slice(top * 120, bottom * 120)
        const part = keyed(
          { width: 120, height: bottom - top, l: cut(planes.l), a: cut(planes.a), b: cut(planes.b) },
          strong,
          bottom - top,
        )
        for (let i = 0; i < count * 120; i++)
          expect(Math.abs(part[(from - top) * 120 + i]! - whole[from * 120 + i]!)).toBeLessThan(1e-4)
      }),
      { numRuns: 15 },
    )
  })
  test('growing makes it larger, shrinking smaller, cuts make it firmer', () => {
    const planes = scene(0)
    const area = (c: Cleaning): number => keyed(planes, c).reduce((a, b) => a + b, 0)
    expect(area({ ...noCleaning, grow: 0.03 })).toBeGreaterThan(area(noCleaning) * 1.1)
    expect(area({ ...noCleaning, grow: -0.03 })).toBeLessThan(area(noCleaning) * 0.9)
    expect(
      keyed(planes, { ...noCleaning, blur: 0.05, low: 0.45, high: 0.55 }).filter((v) => v > 0 && v < 1).length,
    ).toBeLessThan(keyed(planes, { ...noCleaning, blur: 0.05 }).filter((v) => v > 0 && v < 1).length / 3)
  })
})

describe('a key in a region', () => {
  const key = { ...freshKey, groups: fitKey([sampleOf(scene(0.02), 'add', picked)]) }
  const region = (cleaning: Cleaning): Region => ({
    id: 'r',
    name: 'r',
    enabled: true,
    invert: false,
    strength: 1,
    components: [{ id: 'k', mode: 'add', invert: false, opacity: 1, source: { kind: 'key', key, cleaning } }],
  })
  const on = (seed: (away: number) => number | null, keyStep: 1 | 2 = 1) => ({
    ...blankPicture(120, 80),
    keyStep,
    planes: (_: unknown, from: number, to: number, away: number): KeyPlanes | null => {
      const own = seed(away)
      if (own === null) return null
      const whole =
        keyStep === 1 ? scene(0.03, own) : pictureOf(60, 40, (x, y) => (disc(x * 2, y * 2) ? red : wall), 0.03, own)
      const cut = (of: Float32Array): Float32Array => of.slice(from * whole.width, to * whole.width)
      return { width: whole.width, height: to - from, l: cut(whole.l), a: cut(whole.a), b: cut(whole.b) }
    },
  })
  const plane = (values: Float32Array) => ({ width: 120, height: 80, values })
  test('steadied over time it chatters less, and asks only for frames that are there', () => {
    const chatter = (steady: number): number => {
      const [a, b] = [0, 1].map((n) =>
        renderMatte(
          region({ ...noCleaning, steady }),
          [],
          on((away) => 40 + n + away),
        ),
      )
      return chatterOf(plane(a!), plane(b!))
    }
    expect(chatter(2)).toBeLessThan(chatter(0) / 3)
    expect(
      renderMatte(
        region({ ...noCleaning, steady: 3 }),
        [],
        on((away) => (away === 0 ? 7 : null)),
      ),
    ).toEqual(
      renderMatte(
        region(noCleaning),
        [],
        on(() => 7),
      ),
    )
  })
  test('made on every second pixel it is nearly the same', () => {
    const fine = renderMatte(
      region(usualCleaning),
      [],
      on(() => 3),
    )
    const rough = renderMatte(
      region(usualCleaning),
      [],
      on(() => 3, 2),
    )
    expect(overlapOf(fine, rough)).toBeGreaterThan(0.93)
    expect(
      renderMatte(
        region(usualCleaning),
        [],
        on(() => 3, 2),
        20,
        50,
      ),
    ).toEqual(rough.slice(20 * 120, 50 * 120))
  })
  test('how far it moved is nothing for itself and all for what it was not', () => {
    const m = renderMatte(
      region(noCleaning),
      [],
      on(() => 3),
    )
    expect(matteMoved(m, m)).toBe(0)
    expect(
      matteMoved(
        m,
        m.map((v) => 1 - v),
      ),
    ).toBeGreaterThan(0.9)
    expect(matteMoved(new Float32Array(4), new Float32Array(4))).toBe(0)
  })
})

test('the distribution of a picture stands where its colours are', () => {
  const { hues, chromas, lightnesses } = keyDistribution(pictureOf(60, 60, () => red))
  expect(hues.indexOf(1)).toBe(6)
  expect(chromas.indexOf(1)).toBe(Math.floor((0.2 / 0.4) * 60) - (chromas[29] === 1 ? 1 : 0))
  expect(lightnesses.indexOf(1)).toBe(Math.floor((0.5 / 1.2) * 60))
})

test('rows that cannot matter are left out, and nothing changes for that', () => {
  const key = { ...freshKey, groups: fitKey([sampleOf(scene(0.02), 'add', picked)]) }
  const picture = {
    ...blankPicture(120, 80),
    planes: (_: unknown, from: number, to: number): KeyPlanes => {
      const whole = scene(0.02)
      const cut = (of: Float32Array): Float32Array => of.slice(from * 120, to * 120)
      return { width: 120, height: to - from, l: cut(whole.l), a: cut(whole.a), b: cut(whole.b) }
    },
  }
  const keyed = {
    id: 'k',
    mode: 'add',
    invert: false,
    opacity: 1,
    source: { kind: 'key', key, cleaning: usualCleaning },
  } as const
  const oval = {
    id: 's',
    mode: 'add',
    invert: false,
    opacity: 1,
    source: {
      kind: 'shape',
      inner: 0.02,
      outer: 0.02,
      shape: { kind: 'ellipse', centreX: 0.5, centreY: 0.4, radiusX: 0.3, radiusY: 0.15, rotationDegrees: 10 },
    },
  } as const
  const draw = (components: Region['components']): Float32Array =>
    renderMatte({ id: 'r', name: 'r', enabled: true, invert: false, strength: 1, components }, [], picture)
  const [k, s] = [draw([keyed]), draw([oval])]
  const met = k.map((v, i) => Math.min(v, s[i]!))
  const far = (a: Float32Array, b: Float32Array): number =>
    a.reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0)
  expect(far(draw([keyed, { ...oval, mode: 'intersect' }]), met)).toBeLessThan(1e-4)
  expect(far(draw([oval, { ...keyed, mode: 'intersect' }]), met)).toBeLessThan(1e-4)
  expect(
    far(
      draw([oval, { ...keyed, mode: 'intersect', invert: true }]),
      k.map((v, i) => Math.min(1 - v, s[i]!)),
    ),
  ).toBeLessThan(1e-4)
  expect(
    far(
      draw([
        { ...keyed, invert: true },
        { ...oval, mode: 'intersect' },
      ]),
      k.map((v, i) => Math.min(1 - v, s[i]!)),
    ),
  ).toBeLessThan(1e-4)
  // Met with its inverse it matters outside.
  expect(
    far(
      draw([keyed, { ...oval, mode: 'intersect', invert: true }]),
      k.map((v, i) => Math.min(v, 1 - s[i]!)),
    ),
  ).toBeLessThan(1e-4)
})
