import type { Finding, ReadingId } from '../readings'
import { jumpsOf, outlierOf, printLine, sceneLines } from '.'

const finding = (id: ReadingId, value: number, more: Partial<Finding> = {}): Finding => ({
  id,
  value,
  confidence: 1,
  detail: '',
  ...more,
})
const shot = (middle: number, mired = 0): readonly Finding[] => [
  finding('middle', middle),
  finding('white', 0.92),
  finding('black', 0.03),
  finding('contrastRange', 6),
  finding('saturation', 0.12),
  finding('neutrals', Math.abs(mired) / 5, { cast: { mired, duv: 0 } }),
]

describe('the course of a scene', () => {
  test('a line per measure, a gap where nothing was measured or the measurement is unsure of itself', () => {
    const lines = sceneLines([shot(0.4), null, [finding('middle', 0.5, { confidence: 0.2 })]])
    expect(lines.map((l) => l.id)).toEqual(['exposure', 'white', 'black', 'contrast', 'saturation', 'warmth'])
    expect(lines[0]!.values).toEqual([0.4, null, null])
    expect(printLine(lines[0]!, 0.4)).toBe('40.0 %')
    expect(printLine(lines[5]!, -12, true)).toBe('−12 mired')
    expect(printLine(lines[5]!, -0.2)).toBe('0 mired')
  })
  test('skin of each subject that is in any of the shots', () => {
    const lines = sceneLines([
      [finding('skinLuma', 0.5, { of: 'Ida' }), finding('skinHue', 123, { of: 'Ida' })],
      [finding('skinLuma', 0.6, { of: 'Ida' })],
    ])
    expect(lines.filter((l) => l.of === 'Ida').map((l) => [l.id, l.values])).toEqual([
      ['skinLuma', [0.5, 0.6]],
      ['skinHue', [123, null]],
    ])
  })
})

describe('jumps', () => {
  test('are ranked by how much they are seen, and what is not seen is none', () => {
    const jumps = jumpsOf(sceneLines([shot(0.4), shot(0.3, 30), shot(0.32, 30)]))
    expect(jumps.map((j) => [j.line.id, j.at])).toEqual([
      ['warmth', 1],
      ['exposure', 1],
    ])
    expect(jumps[1]!.steps).toBeCloseTo(2, 6)
    expect(jumps[1]!.words).toBe('Exposure 40.0 % → 30.0 %')
  })
  test('a gap hides both of its cuts', () => {
    expect(jumpsOf(sceneLines([shot(0.4), null, shot(0.9)]))).toEqual([])
  })
  test('hues meet across the end of the circle', () => {
    const hue = (v: number): Finding[] => [finding('skinLuma', 0.5, { of: 'I' }), finding('skinHue', v, { of: 'I' })]
    expect(jumpsOf(sceneLines([hue(-179), hue(179)]))).toEqual([])
  })
})

describe('the odd one out', () => {
  test('is named by agreement of all others, with what it differs in', () => {
    const odd = outlierOf(sceneLines([shot(0.4), shot(0.41), shot(0.25), shot(0.39)]))!
    expect(odd.shot).toBe(2)
    expect(odd.words).toEqual(['Exposure 25.0 %, the others 40.0 %'])
  })
  test('is none among two, among equals, in a scene that changes all the time, or where two stand apart', () => {
    expect(outlierOf(sceneLines([shot(0.4), shot(0.1)]))).toBeNull()
    expect(outlierOf(sceneLines([shot(0.4), shot(0.41), shot(0.4)]))).toBeNull()
    expect(outlierOf(sceneLines([shot(0.2), shot(0.35), shot(0.5), shot(0.65)]))).toBeNull()
    expect(outlierOf(sceneLines([shot(0.4), shot(0.1), shot(0.4), shot(0.7), shot(0.4)]))).toBeNull()
  })
})
