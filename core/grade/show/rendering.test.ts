import { displayById, gamutById, oklabOf, toOklab } from '../../colour'
import { buildChain } from '../chain'
import { defaultGrade } from '../defaults'
import { evaluateDirect, framePositions } from '../direct'
import type { GradeDocument } from '../document'
import { setShow } from '../edits'

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
    // A neon of a colour that BT.709 does not have.
    const neon = (s: number): readonly number[] =>
      light(
        grade,
        [1, -0.15, 0.4].map((v) => v * stops(s)),
      )
    for (let s = -2; s < 5.5; s += 0.5) {
      const [here, brighter] = [neon(s), neon(s + 0.5)]
      expect(here.reduce((a, v) => a + v, 0)).toBeLessThan(brighter.reduce((a, v) => a + v, 0))
      for (const v of here.slice(0, 1)) expect(v).toBeLessThan(1)
      for (const v of here) expect(v).toBeGreaterThan(0)
    }
  })
})
