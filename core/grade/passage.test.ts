import fc from 'fast-check'
import { displayById, encodingById } from '../colour'
import { sampleSignal, type Frame } from '../image'
import type { Lut } from '../luts'
import { applyLut } from '../luts'
import { buildChain, missingLuts } from './chain'
import { compile, dragSize, restSize, type PlanCache, type LatticeSize } from './compile'
import { defaultGrade } from './defaults'
import { evaluateDirect, framePositions } from './direct'
import type { GradeDocument } from './document'
import { setParameter, setShow, setStep } from './edits'
import { addRegion, setRegion } from './region-edits'
import { execute } from './execute'
import { signalError } from './plan-error'

const none = (): undefined => undefined
const log = encodingById('log-420-95')

/** Plausible footage: greys and moderate colours from deep shadow to six stops over grey. */
function footage(width = 96, height = 54, encodingId = 'log-420-95'): Frame {
  const { encode } = encodingById(encodingId).curve
  const data = new Uint16Array(width * height * 3)
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const lightness = 0.18 * 2 ** (-7 + (13 * x) / width)
      const hue = (2 * Math.PI * y) / height
      for (const turn of [0, 2.1, 4.2])
        data[i++] = Math.min(
          65535,
          Math.max(0, Math.round(65535 * encode(lightness * (1 + 0.35 * Math.cos(hue + turn))))),
        )
    }
  return { width, height, data, low: 0, high: 1 }
}

/** A ten-step grade with a region, as a working day would have it. */
function fullGrade(): GradeDocument {
  let grade = defaultGrade('log-420-95')
  grade = setParameter(grade, 'exposure', 'exposureStops', 0.4)
  grade = setParameter(grade, 'white-balance', 'temperatureMired', 9)
  grade = setParameter(grade, 'white-balance', 'tint', -3)
  grade = setParameter(grade, 'contrast', 'contrast', 1.15)
  grade = setParameter(grade, 'tone-curve', 'points', [
    { x: 0.07, y: 0.07 },
    { x: 0.35, y: 0.33 },
    { x: 0.55, y: 0.57 },
    { x: 0.87, y: 0.86 },
  ])
  grade = setParameter(grade, 'saturation', 'saturation', 1.1)
  const added = addRegion(grade)
  grade = setParameter(added.grade, `${added.regionId}-exposure`, 'exposureStops', -0.6)
  return setParameter(grade, `${added.regionId}-saturation`, 'saturation', 0.7)
}

function direct(grade: GradeDocument, frame: Frame, lut: (h: string) => Lut | undefined = none): Float64Array {
  const pixels = sampleSignal(frame, 1)
  evaluateDirect(buildChain(grade, lut), pixels, framePositions(frame.width, frame.height, 1))
  return pixels
}
const compiled = (
  grade: GradeDocument,
  frame: Frame,
  size: LatticeSize,
  lut: (h: string) => Lut | undefined = none,
): Float64Array => sampleSignal(execute(compile(grade, lut, frame, size), frame), 1)

describe('reading and showing', () => {
  test.each(['log-420-95', 'log-400-95-a', 'log-351-128', 'log-372-127', 'hlg', 'gamma-2.4'])(
    'a grey card through %s shows R = G = B at the display code of 18 %%',
    (id) => {
      const code = encodingById(id).curve.encode(0.18)
      const pixels = Float64Array.of(code, code, code)
      evaluateDirect(buildChain(defaultGrade(id), none), pixels, framePositions(1, 1, 1))
      pixels.forEach((v) => expect(v).toBeCloseTo(displayById('bt709-2.4').eotf.encode(0.18), 9))
    },
  )

  test('neutral stays neutral through every tone', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (code) => {
        const pixels = Float64Array.of(code, code, code)
        evaluateDirect(buildChain(defaultGrade('log-400-95-b'), none), pixels, framePositions(1, 1, 1))
        return Math.max(...pixels) - Math.min(...pixels) < 1e-9
      }),
    )
  })

  test('a wrong encoding is seen', () => {
    const frame = footage(32, 18)
    const right = direct(defaultGrade('log-420-95', 'w766'), frame)
    const wrong = direct(defaultGrade('log-285-95', 'w766'), frame)
    expect(signalError(right, wrong, 'bt709-2.4').mean).toBeGreaterThan(10)
  })

  test('any code, however wild, gives a signal of 0..1', () => {
    const chain = buildChain(fullGrade(), none)
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1e3, max: 1e3, noNaN: true }), { minLength: 3, maxLength: 3 }), (rgb) => {
        const pixels = Float64Array.from(rgb)
        evaluateDirect(chain, pixels, framePositions(1, 1, 1))
        return pixels.every((v) => v >= 0 && v <= 1)
      }),
    )
  })
})

describe('the compiler', () => {
  const frame = footage()

  test('is exact for curves and matrices, whatever the size of a lattice', () => {
    const grade = fullGrade()
    const reference = direct(grade, frame)
    for (const size of [dragSize, restSize]) {
      const { mean, worst } = signalError(reference, compiled(grade, frame, size), grade.show.displayId)
      expect(mean).toBeLessThan(0.005)
      expect(worst).toBeLessThan(0.15)
    }
  })

  test('a plain conversion of thirteen stops of saturated colours stays close', () => {
    const grade = defaultGrade('log-420-95')
    expect(
      signalError(direct(grade, frame), compiled(grade, frame, restSize), grade.show.displayId).worst,
    ).toBeLessThan(0.02)
  })

  test('joins all pixel-by-pixel steps into one pass, and a region into three', () => {
    const plain = { ...fullGrade(), regions: [], steps: fullGrade().steps.filter((s) => s.regionId === undefined) }
    expect(compile(plain, none, frame, 33).passes).toHaveLength(1)
    expect(compile(fullGrade(), none, frame, 33).passes.map((p) => p.region !== undefined)).toEqual([
      false,
      true,
      false,
    ])
  })

  test('builds only what an edit touched', () => {
    const cache: PlanCache = new Map()
    const before = compile(fullGrade(), none, frame, 33, cache).passes
    const after = compile(setParameter(fullGrade(), 'exposure', 'exposureStops', 0.5), none, frame, 33, cache).passes
    const same = (pass: number): readonly boolean[] =>
      after[pass]!.stages.map((stage, i) => stage === before[pass]!.stages[i])
    expect(same(0)).toContain(false)
    expect([...same(1), ...same(2)]).not.toContain(false)
    // Within a pass as well: light is raised before the first curve, whose table and those after it stay.
    expect(same(0).slice(1)).not.toContain(false)
  })

  test('tables of one display are not taken for those of another', () => {
    const cache: PlanCache = new Map()
    const step = (g: GradeDocument): GradeDocument =>
      setStep(setParameter(g, 'contrast', 'contrast', 1.2), 'contrast', { side: 'display' })
    const of = (displayId: string): GradeDocument => setShow(step(defaultGrade('log-420-95')), { displayId })
    for (const displayId of ['bt709-2.4', 'bt709-2.2', 'srgb', 'p3-d65', 'bt709-2.4']) {
      const kept = compile(of(displayId), none, frame, 33, cache)
      const fresh = compile(of(displayId), none, frame, 33)
      expect(execute(kept, frame).data).toEqual(execute(fresh, frame).data)
    }
  })

  test('holds only finite numbers whatever the grade', () => {
    let grade = setParameter(defaultGrade('log-285-95'), 'exposure', 'exposureStops', 8)
    grade = setParameter(setParameter(grade, 'contrast', 'contrast', 3), 'saturation', 'saturation', 3)
    for (const show of [
      { method: 'rolloff' },
      { method: 'print', gamutMethod: 'compress' },
      { displayId: 'hlg' },
      { displayId: 'pq-600', method: 'rolloff' },
    ] as const)
      for (const stage of compile(setShow(grade, show), none, frame, 33).passes.flatMap((p) => p.stages))
        expect(
          Object.values(stage)
            .filter((v) => v instanceof Float32Array)
            .every((v) => v.every(Number.isFinite)),
        ).toBe(true)
  })
})

describe('steps', () => {
  const frame = footage(32, 18)

  test('strength 0 and a switched-off step change no bit', () => {
    const neutral = direct(defaultGrade('log-420-95'), frame)
    const off = setParameter(defaultGrade('log-420-95'), 'exposure', 'exposureStops', 2)
    expect(direct(setStep(off, 'exposure', { strength: 0 }), frame)).toEqual(neutral)
    expect(direct(setStep(off, 'exposure', { enabled: false }), frame)).toEqual(neutral)
  })

  test('half strength of exposure is halfway in linear light', () => {
    const grade = setStep(setParameter(defaultGrade('log-420-95'), 'exposure', 'exposureStops', 1), 'exposure', {
      strength: 0.5,
    })
    const code = log.curve.encode(0.1)
    const pixels = Float64Array.of(code, code, code)
    evaluateDirect(buildChain(grade, none), pixels, framePositions(1, 1, 1))
    expect(pixels[0]).toBeCloseTo(displayById('bt709-2.4').eotf.encode(0.15), 9)
  })

  test('a step moved across Show works on the display signal', () => {
    const scene = setParameter(defaultGrade('log-420-95'), 'contrast', 'contrast', 1.5)
    const display = setStep(scene, 'contrast', { side: 'display' })
    const chain = buildChain(display, none)
    expect(chain.leaves).toBe('displaySignal')
    expect(chain.links.findIndex((l) => l.signature.includes('"contrast"'))).toBeGreaterThan(
      chain.links.findIndex((l) => l.station === 'show'),
    )
    const difference = signalError(direct(scene, frame), direct(display, frame), 'bt709-2.4')
    expect(difference.mean).toBeGreaterThan(0.5)
    // Middle grey is the pivot on either side.
    const code = log.curve.encode(0.18)
    const pixels = Float64Array.of(code, code, code)
    evaluateDirect(chain, pixels, framePositions(1, 1, 1))
    expect(pixels[0]).toBeCloseTo(displayById('bt709-2.4').eotf.encode(0.18), 9)
  })

  test('the display-side passes compile to what direct evaluation gives', () => {
    const grade = setStep(setParameter(defaultGrade('log-420-95'), 'saturation', 'saturation', 0.6), 'saturation', {
      side: 'display',
    })
    expect(signalError(direct(grade, frame), compiled(grade, frame, 65), 'bt709-2.4').mean).toBeLessThan(0.2)
  })
})

describe('LUTs in a grade', () => {
  const frame = footage(32, 18)
  const hash = 'b'.repeat(64)
  const invert: Lut = {
    dimensions: 1,
    size: 2,
    title: '',
    data: Float32Array.of(1, 1, 1, 0, 0, 0),
    domainMin: [0, 0, 0],
    domainMax: [1, 1, 1],
  }
  const find = (h: string): Lut | undefined => (h === hash ? invert : undefined)
  const grade = setParameter(defaultGrade('log-420-95'), 'lut', 'lutHash', hash)

  test('a display-side LUT is given the display signal', () => {
    const plain = direct(defaultGrade('log-420-95'), frame)
    direct(grade, frame, find).forEach((v, i) => expect(v).toBeCloseTo(1 - plain[i]!, 9))
  })

  test('strength mixes in the domain it returns; 0 changes no bit', () => {
    const plain = direct(defaultGrade('log-420-95'), frame)
    direct(setStep(grade, 'lut', { strength: 0.5 }), frame, find).forEach((v) => expect(v).toBeCloseTo(0.5, 9))
    expect(direct(setStep(grade, 'lut', { strength: 0 }), frame, find)).toEqual(plain)
  })

  test('one that is not at hand is reported and left out', () => {
    expect(missingLuts(grade, none)).toEqual([hash])
    expect(missingLuts(grade, find)).toEqual([])
    expect(direct(grade, frame)).toEqual(direct(defaultGrade('log-420-95'), frame))
  })

  test('identity 3D tables are the identity to 1e-6, tetrahedral and trilinear', () => {
    const size = 5
    const data = new Float32Array(size ** 3 * 3)
    for (let i = 0; i < size ** 3; i++)
      data.set(
        [i % size, Math.floor(i / size) % size, Math.floor(i / size / size)].map((v) => v / (size - 1)),
        i * 3,
      )
    const identity: Lut = { dimensions: 3, size, data, title: '', domainMin: [0, 0, 0], domainMax: [1, 1, 1] }
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 3, maxLength: 3 }),
        fc.constantFrom('tetrahedral' as const, 'trilinear' as const),
        (rgb, interpolation) => {
          const out = Float64Array.from(rgb)
          applyLut(identity, out, interpolation)
          return out.every((v, i) => Math.abs(v - rgb[i]!) < 1e-6)
        },
      ),
    )
    const outside = Float64Array.of(-4, NaN, 7)
    applyLut(identity, outside, 'tetrahedral')
    expect([...outside]).toEqual([0, 0, 1])
  })
})

describe('regions in a grade', () => {
  const frame = footage(64, 36)
  const { grade, regionId } = addRegion(defaultGrade('log-420-95'))
  const darker = setParameter(grade, `${regionId}-exposure`, 'exposureStops', -2)

  test('act inside and leave the rest as it was', () => {
    const plain = direct(defaultGrade('log-420-95'), frame)
    const changed = direct(darker, frame)
    const at = (x: number, y: number): number => (y * 64 + x) * 3
    expect(changed[at(0, 0)]).toBe(plain[at(0, 0)])
    expect(changed[at(32, 18)]).toBeLessThan(plain[at(32, 18)]!)
  })

  test('switched off, a region changes nothing; inverted, it changes the rest', () => {
    const plain = direct(defaultGrade('log-420-95'), frame)
    expect(direct(setRegion(darker, regionId, { enabled: false }), frame)).toEqual(plain)
    const outside = direct(setRegion(darker, regionId, { invert: true }), frame)
    expect(outside[(18 * 64 + 32) * 3]).toBeCloseTo(plain[(18 * 64 + 32) * 3]!, 9)
    expect(outside[20 * 3]).not.toBeCloseTo(plain[20 * 3]!, 3)
  })

  test('compile to what direct evaluation gives', () => {
    expect(signalError(direct(darker, frame), compiled(darker, frame, 65), 'bt709-2.4').mean).toBeLessThan(0.15)
  })
})
