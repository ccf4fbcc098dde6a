import { displayById, encodingById, gamutById, oklabOf, toOklab } from '../../colour'
import type { Frame } from '../../image'
import { buildChain } from '../chain'
import { compile, restSize } from '../compile'
import { defaultGrade } from '../defaults'
import { evaluateDirect, framePositions } from '../direct'
import type { GradeDocument } from '../document'
import { setShow } from '../edits'

import { accuracyBound, planError } from '../plan-error'

const linear = defaultGrade('linear', 'bt709')
function show(grade: GradeDocument, rgb: readonly number[]): number[] {
  const pixels = Float64Array.from(rgb)
  evaluateDirect(
    buildChain(grade, () => undefined),
    pixels,
    framePositions(1, 1, 1),
  )
  return [...pixels]
}

describe('rendered', () => {
  const stops = (s: number): number => 0.18 * 2 ** s
  const rendered = (maximum: number, displayId = 'bt709-2.4', bleach = 0) =>
    setShow(linear, {
      method: 'rendered',
      displayId,
      params: { ...linear.show.params, sceneMaximumStops: maximum, bleach },
    })
  const light = (grade: GradeDocument, rgb: readonly number[]): readonly number[] =>
    show(grade, rgb).map((v) => displayById(grade.show.displayId).eotf.decode(v))

  test.each([3, 5, 8])(
    'with %p stops over grey: the middle is left, the maximum is white, nothing between is lost',
    (maximum) => {
      const grade = rendered(maximum)
      const grey = (s: number): number => light(grade, [stops(s), stops(s), stops(s)])[0]!
      expect(Math.abs(Math.log2(grey(0) / 0.18))).toBeLessThan(0.02)
      // Up to a face's highlights the slope is kept: a stop is a stop.
      for (const s of [-2, -1, 0]) expect(Math.log2(grey(s + 1) / grey(s))).toBeCloseTo(1, 1)
      expect(grey(maximum)).toBeCloseTo(1, 2)
      let before = 0
      for (let s = -9; s <= maximum; s += 0.1) {
        expect(grey(s)).toBeGreaterThan(before)
        before = grey(s)
      }
    },
  )

  test('holds hue while colour goes to white, from a lit surface to a light beyond the display', () => {
    const space = oklabOf(gamutById('bt709'))
    const grade = rendered(6)
    const hueOf = (rgb: readonly number[]): number => {
      const [, a, b] = toOklab(space, rgb[0]!, rgb[1]!, rgb[2]!)
      return Math.atan2(b, a)
    }
    const chromaOf = (rgb: readonly number[]): number => {
      const [, a, b] = toOklab(space, rgb[0]!, rgb[1]!, rgb[2]!)
      return Math.hypot(a, b)
    }
    for (const colour of [
      [1, 0.3, 0.2],
      [0.2, 0.35, 1],
      [1, 0.8, 0.15],
      [0.3, 1, 0.5],
    ]) {
      const at = (s: number): readonly number[] =>
        light(
          grade,
          colour.map((v) => v * stops(s)),
        )
      const hue = hueOf(colour)
      for (const s of [0, 2, 3, 4, 5]) {
        const turned = Math.abs(((hueOf(at(s)) - hue + 3 * Math.PI) % (2 * Math.PI)) - Math.PI)
        expect(turned).toBeLessThan(0.12)
        for (const v of at(s)) expect(v).toBeGreaterThanOrEqual(0)
      }
      expect(chromaOf(at(6))).toBeLessThan(chromaOf(at(1)) * 0.4)
    }
  })

  test('a saturated light keeps its drawing: brighter is never the same, and no channel is cut', () => {
    const grade = rendered(6)
    const luminance = (rgb: readonly number[]): number => 0.2126 * rgb[0]! + 0.7152 * rgb[1]! + 0.0722 * rgb[2]!
    // A neon of a colour that BT.709 does not have.
    const neon = (s: number): readonly number[] =>
      light(
        grade,
        [1, -0.15, 0.4].map((v) => v * stops(s)),
      )
    for (let s = -2; s < 5.5; s += 0.5) {
      const [here, brighter] = [neon(s), neon(s + 0.5)]
      expect(luminance(here)).toBeLessThan(luminance(brighter))
      for (const v of here.slice(0, 1)) expect(v).toBeLessThan(1)
      for (const v of here) expect(v).toBeGreaterThan(0)
    }
  })

  test('fire turns yellow as it brightens, and never salmon: blue stays behind green', () => {
    const grade = rendered(6, 'bt709-2.4', linear.show.params.bleach)
    const fire = (s: number): readonly number[] =>
      light(
        grade,
        [1, 0.11, 0.012].map((v) => v * stops(s)),
      )
    let greenOverRed = 0
    for (let s = 0; s <= 5; s += 0.5) {
      const [red, green, blue] = fire(s)
      expect(green! / red!).toBeGreaterThanOrEqual(greenOverRed - 1e-3)
      greenOverRed = green! / red!
      if (s <= 4) expect(blue!).toBeLessThan(green! * 0.6)
    }
    expect(greenOverRed).toBeGreaterThan(0.4)
  })

  test('what lies under the knee and inside the display is what it was', () => {
    const grade = rendered(6)
    const straight = setShow(linear, { method: 'straight', displayId: 'bt709-2.4' })
    for (const rgb of [
      [0.18, 0.12, 0.08],
      [0.05, 0.09, 0.2],
      [0.3, 0.25, 0.1],
      [0.02, 0.02, 0.02],
    ]) {
      const [a, b] = [show(grade, rgb), show(straight, rgb)]
      for (const c of [0, 1, 2]) expect(Math.abs(a[c]! - b[c]!)).toBeLessThan(0.012)
    }
  })

  test.each([3, 5.5, 8])(
    'to %p stops, the lattice of the preview is within its bound on every kind of colour',
    (maximum) => {
      const { encode } = encodingById('log-420-95').curve
      const log = setShow(defaultGrade('log-420-95', 'bt709'), {
        method: 'rendered',
        params: { ...linear.show.params, sceneMaximumStops: maximum },
      })
      const side = 80
      const data = new Uint16Array(side * side * 3)
      for (let p = 0; p < side * side; p++) {
        // Across: all hues; down: eight stops under grey to the brightest light; purity in a pattern.
        const hue = ((p % side) / side) * 2 * Math.PI
        const level = stops(-8 + (Math.floor(p / side) / side) * (8 + maximum))
        const purity = (p * 7) % 10 < 5 ? 0.35 : 0.8
        for (let c = 0; c < 3; c++) {
          const signal = encode(level * (1 + purity * Math.cos(hue + c * 2.1)))
          data[p * 3 + c] = Math.min(65535, Math.max(0, Math.round(signal * 65535)))
        }
      }
      const frame: Frame = { width: side, height: side, data, low: 0, high: 1 }
      const plan = compile(log, () => undefined, frame, restSize)
      const { mean, worst } = planError(plan, frame)
      expect(mean).toBeLessThan(accuracyBound.mean * 1.5)
      expect(worst).toBeLessThan(accuracyBound.worst * 1.5)
    },
  )
})
