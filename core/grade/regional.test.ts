// Long: one grade with regions is looked at from all sides.
import { encodingById } from '../colour'
import { shrink, type Frame } from '../image'
import { fitKey, freshKey, noCleaning, sampleOf, usualCleaning, type Cleaning } from '../regions'
import {
  buildChain,
  compile,
  compileMattes,
  condense,
  defaultGrade,
  drawMatte,
  evaluateDirect,
  execute,
  executeDirectRows,
  executeExactly,
  executeRows,
  gradeAt,
  matteCache,
  playedMatteCache,
  planError,
  planesAt,
  playable,
  playCache,
  positionsIn,
  rastersOf,
  restingAt,
  restSize,
  setParameter,
  setStep,
  signalError,
  type GradeDocument,
} from '.'
import {
  addComponent,
  addRegion,
  changeComponent,
  changeShapeSource,
  keyComponent,
  moveComponent,
  moveRegion,
  placeRegion,
  removeComponent,
  removeRegion,
  setRegion,
  setShapeAt,
} from './region-edits'
import { applyNeighbourhood, neighbourhoodMeans } from './neighbourhood'
import { sampleSignal } from '../image'

const none = (): undefined => undefined
const code = encodingById('log-420-95').curve.encode
/** A warm disc before a cool slope of light, as a camera would write it; `id` names it. */
function footage(width: number, height: number, noise = 0): Frame {
  let s = 9
  const data = new Uint16Array(width * height * 3)
  const random = (): number => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0
    return s / 2 ** 32 - 0.5
  }
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 3) {
      const u = (x + 0.5) / width
      const v = (y + 0.5) / height
      const inside = Math.min(1, Math.max(0, (0.3 - Math.hypot((u - 0.5) * 1.78, v - 0.5)) * 60))
      const light = 0.05 + 0.5 * u + 0.1 * Math.sin(v * 40)
      const colour = [light * (0.5 + 0.5 * inside), light * (0.55 - 0.25 * inside), light * (0.7 - 0.55 * inside)]
      for (let c = 0; c < 3; c++)
        data[i + c] = Math.min(65535, Math.max(0, (code(Math.max(0, colour[c]!)) + random() * noise) * 65535))
    }
  return { width, height, data, low: 0, high: 1, id: `made ${width} ${noise}` }
}
const frame = footage(96, 54)
const base = defaultGrade('log-420-95')
const key = (of: Frame, cleaning: Cleaning): GradeDocument => {
  const added = addRegion(base)
  const keyed = addComponent(added.grade, added.regionId, keyComponent(''))
  const bare = removeComponent(keyed.grade, added.regionId, 'component-1')
  const sample = sampleOf(planesAt(compileMattes(bare, none, of, restSize), of, 'hue'), 'add', {
    left: 0.42,
    top: 0.4,
    right: 0.58,
    bottom: 0.6,
  })
  const whole = changeComponent(bare, added.regionId, keyed.componentId, (p) => ({
    ...p,
    source: { kind: 'key', key: { ...freshKey, samples: [sample], groups: fitKey([sample]) }, cleaning },
  }))
  return setParameter(whole, `${added.regionId}-exposure`, 'exposureStops', 1)
}
const matteIn = (grade: GradeDocument, of: Frame): Float32Array =>
  drawMatte(compileMattes(grade, none, of, restSize), grade.regions[0]!, of, { from: 0, to: of.height })
const soft = (grade: GradeDocument, amount: number): GradeDocument =>
  setParameter(grade, 'local-contrast', 'localContrast', amount)

describe('as it is played', () => {
  const oval = setParameter(addRegion(base).grade, 'region-1-exposure', 'exposureStops', 1.2)
  const bare = { ...oval, regions: [], steps: oval.steps.filter((s) => s.regionId === undefined) }
  const matte = drawMatte(compileMattes(oval, none, frame, restSize), oval.regions[0]!, frame, {
    from: 0,
    to: frame.height,
  })

  test('a gain within a region is one table', () => {
    expect(
      compile(oval, none, frame, restSize)
        .passes.find((p) => p.region)
        ?.stages.map((s) => s.kind),
    ).toEqual(['curve'])
  })

  test('what no region holds is the grade without regions, to the bit; what one holds is as compiled', () => {
    const played = execute(playable(oval, none, frame, 33, playCache(new Map())), frame).data
    const whole = execute(compile(oval, none, frame, 33), frame).data
    const without = execute(compile(bare, none, frame, 33), frame).data
    let held = 0
    for (let y = 0; y < frame.height; y++) {
      const row = matte.subarray(y * frame.width, (y + 1) * frame.width)
      const at = y * frame.width * 3
      const end = at + frame.width * 3
      if (row.every((v) => v === 0)) expect(played.subarray(at, end)).toEqual(without.subarray(at, end))
      row.forEach((v, x) => {
        if (v > 0 && ++held) for (let c = 0; c < 3; c++) expect(played[at + x * 3 + c]).toBe(whole[at + x * 3 + c])
      })
    }
    expect(held).toBeGreaterThan(500)
  })

  test('a grade of many stages is one table there, nearly as exact, and kept while the region moves', () => {
    const worked = setParameter(
      setParameter(setParameter(oval, 'saturation', 'saturation', 1.3), 'contrast', 'contrast', 1.3),
      'local-contrast',
      'localContrast',
      0,
    )
    const cache = playCache(new Map())
    const first = playable(worked, none, frame, 33, cache)
    const moved = playable(
      changeShapeSource(worked, 'region-1', 'component-1', (s) => ({
        ...s,
        shape: { ...s.shape, centreX: 0.3 } as typeof s.shape,
      })),
      none,
      frame,
      33,
      cache,
    )
    expect(first.outside?.stages.map((s) => s.kind)).toEqual(['lattice'])
    expect(moved.outside?.stages[0]).toBe(first.outside?.stages[0])
    const error = signalError(
      sampleSignal(execute(first, frame), 1),
      sampleSignal(execute(compile(worked, none, frame, 33), frame), 1),
      'bt709-2.4',
    )
    expect(error.mean).toBeLessThan(0.3)
  })

  test('mattes of one picture after another in the same memory are those of fresh memory', () => {
    const cache = playedMatteCache()
    for (let turn = 0; turn < 60; turn++) {
      const there = changeShapeSource(oval, 'region-1', 'component-1', (shown) => ({
        ...shown,
        shape: { ...shown.shape, centreX: 0.2 + turn / 100, centreY: turn % 2 ? 0.3 : 0.6 } as typeof shown.shape,
      }))
      const grade = setRegion(there, 'region-1', { strength: 1 - (turn % 50) / 100 })
      const plan = compile(grade, none, frame, 33)
      cache.nextPicture()
      const target = new Uint16Array(frame.data.length)
      executeRows(plan, frame, target, { from: 0, to: frame.height }, cache)
      expect(target).toEqual(execute(plan, frame).data)
    }
  })
})

describe('what looks at other pixels', () => {
  test('compiled is what direct evaluation gives: a key, a local contrast, both in a region', () => {
    const inRegion = setParameter(
      setParameter(key(frame, usualCleaning), 'region-1-sharpness', 'sharpness', -0.8),
      'region-1-local-contrast',
      'localContrast',
      0.5,
    )
    for (const grade of [
      key(frame, noCleaning),
      soft(base, -0.7),
      setParameter(
        setParameter(addRegion(base).grade, 'region-1-sharpness', 'sharpness', 2),
        'region-1-sharpness',
        'detailPercent',
        3,
      ),
      inRegion,
    ]) {
      const plan = compile(grade, none, frame, restSize)
      const exact = executeExactly(plan, frame, false)
      expect(
        signalError(sampleSignal(execute(plan, frame), 1), sampleSignal(exact, 1), 'bt709-2.4').worst,
      ).toBeLessThan(0.2)
      expect(planError(plan, frame).worst).toBeLessThan(0.2)
      // It does something.
      expect(
        signalError(
          sampleSignal(exact, 1),
          sampleSignal(execute(compile(base, none, frame, restSize), frame), 1),
          'bt709-2.4',
        ).worst,
      ).toBeGreaterThan(2)
    }
  })
  test('some rows are what they are in the whole picture', () => {
    for (const grade of [key(frame, usualCleaning), soft(base, 0.6)]) {
      const plan = compile(grade, none, frame, restSize)
      const whole = execute(plan, frame).data
      const part = new Uint16Array(whole.length)
      const canvas = new Uint32Array(frame.width * frame.height)
      for (const [from, to] of [
        [0, 17],
        [17, 40],
        [40, 54],
      ] as const)
        executeRows(plan, frame, part, { from, to }, matteCache(), canvas)
      expect(part.reduce((most, v, i) => Math.max(most, Math.abs(v - whole[i]!)), 0)).toBeLessThanOrEqual(3)
      expect(canvas[20 * 96 + 40]! & 255).toBeCloseTo(whole[(20 * 96 + 40) * 3]! / 257, -0.5)
      expect(condense(plan, frame)).toBeNull()
    }
  })
  test('a few pixels by themselves know what is about them; without the picture nothing changes', () => {
    const grade = soft(base, -1)
    const chain = buildChain(grade, none)
    const stride = 7
    const pixels = sampleSignal(frame, stride)
    const alone = pixels.slice()
    const plain = pixels.slice()
    evaluateDirect(chain, pixels, positionsIn(chain, frame, stride, 0, undefined, true))
    evaluateDirect(chain, alone, { shares: new Float64Array((alone.length / 3) * 2), frameWidth: 96, frameHeight: 54 })
    evaluateDirect(buildChain(base, none), plain, positionsIn(buildChain(base, none), frame, stride))
    alone.forEach((v, i) => expect(v).toBeCloseTo(plain[i]!, 12))
    const whole = sampleSignal(execute(compile(grade, none, frame, restSize), frame), stride)
    pixels.forEach((v, i) => expect(Math.abs(v - whole[i]!)).toBeLessThan(2e-3))
    expect(rastersOf(buildChain(base, none), frame, true)).toBeNull()
  })
  test('toward the mean it is softer, away from it harder, and a flat picture stays', () => {
    const spreadOf = (grade: GradeDocument): number => {
      const v = sampleSignal(execute(compile(grade, none, frame, restSize), frame), 1)
      let sum = 0
      for (let i = 96 * 3; i < v.length; i += 3) sum += (v[i]! - v[i - 96 * 3]!) ** 2
      return sum
    }
    expect(spreadOf(soft(base, -0.8))).toBeLessThan(spreadOf(base))
    expect(spreadOf(soft(base, 0.8))).toBeGreaterThan(spreadOf(base))
    const pixels = new Float32Array(20 * 10 * 4).fill(0.4)
    const stage = { deviation: 0.1, amount: 1.5, weights: [0.3, 0.6, 0.1] } as const
    applyNeighbourhood(stage, neighbourhoodMeans(stage, pixels, 20, 10), pixels)
    pixels.forEach((v) => expect(v).toBeCloseTo(0.4, 5))
  })
})

test('strength 0 leaves every bit, of a region and of its steps', () => {
  const plain = execute(compile(base, none, frame, restSize), frame).data
  const keyed = key(frame, usualCleaning)
  expect(execute(compile(setRegion(keyed, 'region-1', { strength: 0 }), none, frame, restSize), frame).data).toEqual(
    plain,
  )
  expect(
    execute(compile(setStep(keyed, 'region-1-exposure', { strength: 0 }), none, frame, restSize), frame).data,
  ).toEqual(plain)
  const half = sampleSignal(
    execute(compile(setRegion(keyed, 'region-1', { strength: 0.5 }), none, frame, restSize), frame),
    1,
  )
  const whole = sampleSignal(execute(compile(keyed, none, frame, restSize), frame), 1)
  const at = (27 * 96 + 48) * 3
  expect(half[at]!).toBeGreaterThan(plain[at]! / 65535 + 0.02)
  expect(half[at]!).toBeLessThan(whole[at]! - 0.02)
})

test('a key holds when the look changes, and moves with what stands before it', () => {
  const keyed = key(frame, noCleaning)
  const matte = matteIn(keyed, frame)
  expect(matteIn(setParameter(keyed, 'lut', 'interpolation', 'trilinear'), frame)).toEqual(matte)
  expect(matteIn({ ...keyed, show: { ...keyed.show, method: 'rolloff' } }, frame)).toEqual(matte)
  expect(matteIn(setParameter(keyed, 'exposure', 'exposureStops', 2), frame)).not.toEqual(matte)
  // Read before the exposure, it does not know of it.
  const early = changeComponent(keyed, 'region-1', 'component-2', (p) =>
    p.source.kind === 'key' ? { ...p, source: { ...p.source, key: { ...p.source.key, tap: 'read' } } } : p,
  )
  expect(matteIn(setParameter(early, 'exposure', 'exposureStops', 2), frame)).toEqual(matteIn(early, frame))
})

test('a cleaned key is the same at 960 × 540 and at 1920 × 1080', () => {
  const large = footage(1920, 1080, 0.004)
  const small = { ...shrink(large, 960, 540), id: 'small' }
  const grade = key(small, usualCleaning)
  const a = matteIn(grade, small)
  const b = matteIn(grade, large)
  let sum = 0
  let far = 0
  for (let i = 0; i < a.length; i++) {
    const o = Math.floor(i / 960) * 2 * 1920 + (i % 960) * 2
    const off = Math.abs(a[i]! - (b[o]! + b[o + 1]! + b[o + 1920]! + b[o + 1921]!) / 4)
    sum += off
    if (off > 0.25) far++
  }
  expect(sum / a.length).toBeLessThan(0.004)
  expect(far / a.length).toBeLessThan(0.001)
})

describe('edits', () => {
  test('components are added, ordered and removed; a region that others are built from takes those along', () => {
    const one = addRegion(base)
    const two = addRegion(one.grade)
    const built = addComponent(two.grade, two.regionId, {
      id: '',
      mode: 'subtract',
      invert: false,
      opacity: 1,
      source: { kind: 'region', regionId: one.regionId },
    })
    expect(built.grade.regions[1]!.components.map((p) => p.id)).toEqual(['component-1', 'component-2'])
    expect(moveComponent(built.grade, two.regionId, 'component-2', -1).regions[1]!.components.map((p) => p.id)).toEqual(
      ['component-2', 'component-1'],
    )
    expect(moveComponent(built.grade, two.regionId, 'component-2', 1)).toBe(built.grade)
    expect(moveRegion(built.grade, two.regionId, -1).regions.map((r) => r.id)).toEqual(['region-2', 'region-1'])
    const left = removeRegion(built.grade, one.regionId)
    expect(left.regions.map((r) => [r.id, r.components.length])).toEqual([['region-2', 1]])
    expect(left.steps.some((s) => s.regionId === one.regionId)).toBe(false)
  })
  test('a region that follows lies where it lies at each frame; kept for another shot, it stays', () => {
    const shape = {
      kind: 'ellipse',
      centreX: 0.2,
      centreY: 0.5,
      radiusX: 0.1,
      radiusY: 0.1,
      rotationDegrees: 0,
    } as const
    const moving = changeShapeSource(addRegion(base).grade, 'region-1', 'component-1', (s) => ({
      ...s,
      motion: {
        track: null,
        keys: [
          { frame: 0, shape },
          { frame: 10, shape: { ...shape, centreX: 0.8 } },
        ],
        path: 'linear',
        roll: false,
        shown: [],
        fadeFrames: 0,
        aspect: 1.78,
      },
    }))
    expect(gradeAt(moving, 5)).toBe(gradeAt(moving, 5))
    expect(gradeAt(moving, 5).regions[0]!.components[0]!.source).toMatchObject({
      shape: { centreX: expect.closeTo(0.5, 9) },
    })
    const rests = restingAt(moving, 5).regions[0]!.components[0]!.source
    expect(rests).toMatchObject({ shape: { centreX: expect.closeTo(0.5, 9) } })
    expect(rests).not.toHaveProperty('motion')
    expect(
      setShapeAt(moving, 'region-1', 'component-1', { ...shape, centreY: 0.1 }, 5).regions[0]!.components[0]!.source,
    ).toMatchObject({ motion: { keys: [{ frame: 0 }, { frame: 5 }, { frame: 10 }] } })
    expect(placeRegion(moving.regions[0]!, 1.78, { x: 0.1, size: 2 }).components[0]!.source).toMatchObject({
      inner: 0.12,
      shape: { centreX: 0.6, radiusX: 0.6 },
    })
  })
})

test('rows by direct evaluation take their mattes from the whole picture', () => {
  const grade = key(frame, usualCleaning)
  const chain = buildChain(grade, none)
  const out = new Uint16Array(frame.data.length)
  executeDirectRows(chain, frame, out, 20, 30, rastersOf(chain, frame, true))
  const whole = executeExactly(compile(grade, none, frame, restSize), frame, false).data
  expect(out.slice(20 * 96 * 3, 30 * 96 * 3)).toEqual(whole.slice(20 * 96 * 3, 30 * 96 * 3))
})
