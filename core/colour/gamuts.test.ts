import Color from 'colorjs.io'
import { gamutById, gamuts, gamutToGamut, luminanceWeights, rgbToXyz } from './gamuts'
import { identity3, invert, multiply, transform, type Vector3 } from './matrix'

const colours: Vector3[] = [
  [1, 1, 1],
  [0.18, 0.18, 0.18],
  [0.8, 0.1, 0.05],
  [0.02, 0.4, 0.1],
  [0.1, 0.15, 0.9],
  [2.5, 0.4, 3],
]

describe('conversion between gamuts', () => {
  // An independent library with its own matrices and Bradford adaptation.
  test.each([
    ['bt709', 'srgb-linear', 'ap1', 'acescg'],
    ['bt2020', 'rec2020-linear', 'bt709', 'srgb-linear'],
    ['p3-d65', 'p3-linear', 'bt2020', 'rec2020-linear'],
    ['ap1', 'acescg', 'bt709', 'srgb-linear'],
  ])('%s to %s agrees with an independent library', (from, fromSpace, to, toSpace) => {
    const matrix = gamutToGamut(gamutById(from), gamutById(to))
    for (const colour of colours) {
      const theirs = new Color(fromSpace, [...colour]).to(toSpace).coords.map(Number)
      transform(matrix, colour).forEach((value, i) =>
        expect(Math.abs(value - theirs[i]!)).toBeLessThan(5e-4 * Math.max(1, Math.abs(value))),
      )
    }
  })

  test.each(gamuts.map((g) => [g.id]))('%s to AP1 and back is the identity to 1e-10, and white stays white', (id) => {
    const there = gamutToGamut(gamutById(id), gamutById('ap1'))
    const back = gamutToGamut(gamutById('ap1'), gamutById(id))
    multiply(back, there).forEach((v, i) => expect(Math.abs(v - identity3[i]!)).toBeLessThan(1e-10))
    transform(there, [1, 1, 1]).forEach((v) => expect(v).toBeCloseTo(1, 10))
  })
})

test('BT.709 luminance weights are those that the standard rounds', () => {
  const [r, g, b] = luminanceWeights(gamutById('bt709'))
  expect([r, g, b].map((v) => Number(v.toFixed(4)))).toEqual([0.2126, 0.7152, 0.0722])
})

test('RGB to XYZ of BT.709 has its published first row', () => {
  expect(
    rgbToXyz(gamutById('bt709'))
      .slice(0, 3)
      .map((v) => Number(v.toFixed(4))),
  ).toEqual([0.4124, 0.3576, 0.1805])
})

test('a matrix without an inverse is refused', () => {
  expect(() => invert([1, 2, 3, 2, 4, 6, 0, 0, 1])).toThrow(RangeError)
})
