import fc from 'fast-check'
import { displayById, displays, encodingById, middleGrey, type EncodingDefinition } from '../../colour'
import type { Frame } from '../../image'
import type { Lut } from '../../luts'
import { buildChain } from '../chain'
import { compile, type PlanCache } from '../compile'
import { defaultGrade } from '../defaults'
import type { GradeDocument } from '../document'
import { execute } from '../execute'
import { evaluateDirect, framePositions } from '../direct'
import { setParameter, setRead, setShow, setStep, workOn } from '../edits'
import { addRegion } from '../region-edits'
import { operate } from '../operation'
import { planError, withinBound } from '../plan-error'
import { gamutCompression } from './gamut-compression'
import { printCurve, rolloffCurve } from '.'

const none = (): undefined => undefined
const one = framePositions(1, 1, 1)
const show = (
  grade: ReturnType<typeof defaultGrade>,
  rgb: readonly number[],
  lut: (h: string) => Lut | undefined = none,
): number[] => {
  const pixels = Float64Array.from(rgb)
  evaluateDirect(buildChain(grade, lut), pixels, one)
  return [...pixels]
}
const linear = defaultGrade('linear', 'bt709')

describe('rolloff', () => {
  const curve = rolloffCurve(0.5, 11.5, 1)

  test(
    'leaves what lies under the knee, brings the maximum to white, meets the knee with slope 1 and ' + 'always rises',
    () => {
      expect(curve(0.3)).toBe(0.3)
      expect(curve(11.5)).toBeCloseTo(1, 12)
      expect((curve(0.5 + 1e-6) - 0.5) / 1e-6).toBeCloseTo(1, 4)
      fc.assert(
        fc.property(
          fc.double({ min: -5, max: 500, noNaN: true }),
          fc.double({ min: 1e-6, max: 50, noNaN: true }),
          (x, d) => curve(x + d) > curve(x),
        ),
      )
    },
  )

  test('is the identity where the maximum already fits', () => {
    expect(rolloffCurve(0.5, 0.9, 1)(0.8)).toBe(0.8)
  })

  test('keeps the hue of bright light without bleach, and lets it go to white with it', () => {
    const bright = [8, 2, 1]
    const kept = show(setShow(linear, { method: 'rolloff', params: { ...linear.show.params, bleach: 0 } }), bright)
    const bleached = show(setShow(linear, { method: 'rolloff', params: { ...linear.show.params, bleach: 1 } }), bright)
    const light = kept.map((v) => v ** 2.4)
    expect(light[0]! / light[1]!).toBeCloseTo(4, 6)
    expect(bleached[1]! / bleached[0]!).toBeGreaterThan(kept[1]! / kept[0]!)
  })
})

describe('print', () => {
  test.each([
    [1, 1.2, 0.4, 0.5, 0.18],
    [1, 2, 0, 1, 0.1],
    [4.9, 1.5, 1, 0, 0.2],
  ])('peak %p, contrast %p: grey, its slope, black and the peak are exact', (peak, contrast, toe, shoulder, grey) => {
    const curve = printCurve({ contrast, toe, shoulder, grey }, peak)
    expect(curve(middleGrey)).toBeCloseTo(grey, 10)
    const h = 1e-5
    expect(Math.log2(curve(middleGrey * 2 ** h) / curve(middleGrey * 2 ** -h)) / (2 * h)).toBeCloseTo(contrast, 3)
    expect(curve(0)).toBe(0)
    expect(curve(-3)).toBe(0)
    expect(curve(1e9)).toBeLessThanOrEqual(peak)
    let before = 0
    for (let stops = -14; stops < 14; stops += 0.1) {
      const v = curve(middleGrey * 2 ** stops)
      expect(v).toBeGreaterThanOrEqual(before)
      before = v
    }
  })
})

describe('gamut compression', () => {
  const run = (rgb: number[]): number[] => {
    const pixels = Float64Array.from(rgb)
    operate(gamutCompression(0.8, 1.3), pixels)
    return [...pixels]
  }
  test('leaves neutrals and quiet colours, brings the limit to the edge, keeps the largest channel', () => {
    expect(run([0.5, 0.5, 0.5])).toEqual([0.5, 0.5, 0.5])
    expect(run([0.5, 0.2, 0.3])).toEqual([0.5, 0.2, 0.3])
    const edge = run([1, -0.3, 0.2])
    expect(edge[0]).toBe(1)
    expect(edge[1]).toBeCloseTo(0, 9)
    expect(edge[2]).toBe(0.2)
  })
  test('never folds: a purer colour stays purer', () => {
    let before = 1
    for (let g = 1; g > -1; g -= 0.01) {
      const now = run([1, g, 1])[1]!
      expect(now).toBeLessThanOrEqual(before + 1e-12)
      before = now
    }
  })
})

describe('the same grade on every display', () => {
  const tones = [0, 0.01, 0.18, 0.9, 4, 30]
  test.each(displays.map((d) => d.id))(
    '%s: neutrals stay neutral and rise, grey keeps its light, the peak is held',
    (displayId) => {
      const display = displayById(displayId)
      for (const method of ['straight', 'rendered', 'rolloff'] as const) {
        const grade = setShow(defaultGrade('linear', 'bt709'), { displayId, method })
        let before = -1
        for (const tone of tones) {
          const out = show(grade, [tone, tone, tone])
          expect(Math.max(...out) - Math.min(...out)).toBeLessThan(1e-9)
          expect(out[0]).toBeGreaterThanOrEqual(before)
          expect(out[0]).toBeLessThanOrEqual(display.eotf.encode(display.carriedPeak) + 1e-12)
          before = out[0]!
        }
        // The rendering finds light in a table of eight thousand places.
        if (display.systemGamma === undefined)
          expect(display.eotf.decode(show(grade, [0.18, 0.18, 0.18])[0]!)).toBeCloseTo(
            0.18,
            method === 'rendered' ? 6 : 9,
          )
      }
    },
  )

  test.each(displays.map((d) => d.id))('%s: compiled and direct agree within the bound', (displayId) => {
    const data = new Uint16Array(64 * 36 * 3)
    const { encode } = encodingById('log-420-95').curve
    for (let p = 0, i = 0; p < 64 * 36; p++)
      for (const turn of [0, 2.1, 4.2])
        data[i++] = Math.min(
          65535,
          Math.max(
            0,
            Math.round(65535 * encode(0.18 * 2 ** (-7 + (13 * (p % 64)) / 64) * (1 + 0.6 * Math.cos(p / 300 + turn)))),
          ),
        )
    const frame = { width: 64, height: 36, data, low: 0, high: 1 }
    for (const method of ['rolloff', 'print'] as const) {
      const plan = compile(
        setShow(defaultGrade('log-420-95'), { displayId, method, gamutMethod: 'compress' }),
        none,
        frame,
        33,
      )
      const report = planError(plan, frame)
      expect(withinBound(report)).toBe(true)
    }
  })

  test('the least light that can be written is not below black', () => {
    for (const { id } of displays)
      expect(show(setShow(linear, { displayId: id }), [0, 0, 4.03e-107]).every((v) => v >= 0)).toBe(true)
  })

  test('any light, however wild, gives a finite signal', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1e4, max: 1e4, noNaN: true }), { minLength: 3, maxLength: 3 }),
        fc.constantFrom(...displays.map((d) => d.id)),
        fc.constantFrom('straight', 'rolloff', 'print'),
        fc.constantFrom('clip', 'compress'),
        (rgb, displayId, method, gamutMethod) =>
          show(setShow(linear, { displayId, method: method, gamutMethod: gamutMethod }), rgb).every(
            (v) => v >= 0 && v <= 1,
          ),
      ),
    )
  })
})

describe('both schools', () => {
  const hash = 'c'.repeat(64)
  const half: Lut = {
    dimensions: 3,
    size: 2,
    title: '',
    domainMin: [0, 0, 0],
    domainMax: [1, 1, 1],
    data: Float32Array.from({ length: 24 }, (_, i) => ((Math.floor(i / 3) >> (i % 3)) & 1) / 2),
  }
  const find = (h: string): Lut | undefined => (h === hash ? half : undefined)

  test('a LUT in Show takes working log and returns the signal', () => {
    const out = show(setShow(linear, { method: 'lut', lutHash: hash }), [0.18, 0.18, 0.18], find)
    out.forEach((v) => expect(v).toBeCloseTo(0.413588 / 2, 5))
  })

  test('a LUT in Read takes code values, and what it returns is decoded', () => {
    const grade = setRead(defaultGrade('gamma-2.4', 'bt709'), { method: 'lut', lutHash: hash })
    show(grade, [0.6, 0.6, 0.6], find).forEach((v) => expect(v).toBeCloseTo(0.3, 9))
    const plan = compile(grade, find, { low: 0, high: 1 }, 33)
    expect(plan.passes[0]!.stages.some((s) => s.kind === 'lattice' && s.lattice.size === 2)).toBe(true)
  })

  test('a LUT in Show counts by its strength, over the straight conversion; at none it changes no bit', () => {
    const by = (lutStrength: number, rgb = [0.18, 0.3, 0.05]): readonly number[] =>
      show(setShow(linear, { method: 'lut', lutHash: hash, lutStrength }), rgb, find)
    const whole = by(1)
    const plain = show(linear, [0.18, 0.3, 0.05])
    expect(by(0)).toEqual(plain)
    by(0.25).forEach((v, c) => expect(v).toBeCloseTo(plain[c]! + (whole[c]! - plain[c]!) * 0.25, 12))
    const grade = setShow(linear, { method: 'lut', lutHash: hash, lutStrength: 0.4 })
    const frame: Frame = {
      width: 40,
      height: 10,
      data: Uint16Array.from({ length: 1200 }, (_, i) => (i * 7919) % 65536),
      low: 0,
      high: 1,
    }
    // The lattice that stands for the mix is near direct evaluation, and others' strengths are not taken for it.
    const cache: PlanCache = new Map()
    for (const lutStrength of [0.4, 0.9, 0.4])
      expect(planError(compile(setShow(grade, { lutStrength }), find, frame, 65, cache), frame).mean).toBeLessThan(0.3)
    const none = { method: 'lut', lutHash: hash, lutStrength: 0 } as const
    expect(execute(compile(setShow(linear, none), find, frame, 65), frame).data).toEqual(
      execute(compile(linear, find, frame, 65), frame).data,
    )
  })

  test('a LUT in Read counts by its strength among the code values; at none it changes no bit', () => {
    const by = (lutStrength: number): GradeDocument =>
      setRead(defaultGrade('gamma-2.4', 'bt709'), { method: 'lut', lutHash: hash, lutStrength })
    show(by(0.5), [0.6, 0.6, 0.6], find).forEach((v) => expect(v).toBeCloseTo(0.45, 9))
    const frame: Frame = {
      width: 40,
      height: 10,
      data: Uint16Array.from({ length: 1200 }, (_, i) => (i * 7919) % 65536),
      low: 0,
      high: 1,
    }
    expect(execute(compile(by(0), find, frame, 65), frame).data).toEqual(
      execute(compile(defaultGrade('gamma-2.4', 'bt709'), find, frame, 65), frame).data,
    )
    expect(execute(compile(by(0.5), find, frame, 65), frame).data).not.toEqual(
      execute(compile(by(1), find, frame, 65), frame).data,
    )
  })

  test('without its LUT at hand the formula stands in', () => {
    expect(show(setShow(linear, { method: 'lut', lutHash: hash }), [0.18, 0.18, 0.18])).toEqual(
      show(linear, [0.18, 0.18, 0.18]),
    )
  })

  test('working display-referred moves every step, and those still to come', () => {
    const grade = workOn(setParameter(linear, 'exposure', 'exposureStops', 1), 'display')
    expect(grade.steps.every((s) => s.side === 'display')).toBe(true)
    expect(addRegion(grade).grade.steps.every((s) => s.side === 'display')).toBe(true)
    // On the display side light above white is gone before exposure can take it back.
    const dark = setStep(setParameter(linear, 'exposure', 'exposureStops', -2), 'exposure', { side: 'display' })
    expect(show(dark, [3, 3, 3])[0]! ** 2.4).toBeCloseTo(0.25, 9)
    expect(show(setParameter(linear, 'exposure', 'exposureStops', -2), [3, 3, 3])[0]! ** 2.4).toBeCloseTo(0.75, 9)
  })
})

test('an encoding of one’s own travels in the grade', () => {
  const own: EncodingDefinition = {
    id: 'own-kiln',
    name: 'Kiln',
    gamutId: 'bt709',
    source: 'test',
    curve: {
      family: 'table',
      entries: [
        { code: 0, linear: 0 },
        { code: 0.5, linear: 0.18 },
        { code: 1, linear: 4 },
      ],
    },
  }
  const grade = setRead(linear, { encodingId: own.id, gamutId: 'bt709', own })
  show(grade, [0.5, 0.5, 0.5]).forEach((v) => expect(v ** 2.4).toBeCloseTo(0.18, 9))
  expect(setRead(grade, { encodingId: 'srgb' }).read.own).toBeUndefined()
})
