import fc from 'fast-check'
import cameraLogs from './camera-logs.json'
import { encodingById, encodings } from './encodings'
import { isGamutId } from './gamuts'

const codes = Array.from({ length: 4001 }, (_, i) => i / 4000)
const finite = fc.double({ min: -1e6, max: 1e6, noNaN: true })

describe('camera encodings', () => {
  const declared = Object.entries(cameraLogs.curves)

  test.each(declared)('%s reproduces its published check values to 1e-5', (id, { check }) => {
    const { encode, decode } = encodingById(id).curve
    expect(encode(0)).toBeCloseTo(check.black, 5)
    expect(encode(0.18)).toBeCloseTo(check.grey, 5)
    expect(encode(0.9)).toBeCloseTo(check.white90, 5)
    expect(decode(check.black)).toBeCloseTo(0, 5)
    expect(Math.abs(decode(check.grey) - 0.18)).toBeLessThan(1e-5)
    expect(Math.abs(decode(check.white90) - 0.9)).toBeLessThan(1e-5)
    // The published light at full code is given to six figures.
    expect(Math.abs(decode(1) / check.sceneLinearAtCode1 - 1)).toBeLessThan(1e-5)
    expect(Math.log2(decode(1) / 0.18)).toBeCloseTo(check.stopsAboveGrey, 2)
  })

  test('are named by the codes of grey and black', () => {
    expect(encodingById('log-420-95').name).toBe('Log 420/95')
    expect(encodingById('log-400-95-b').name).toBe('Log 400/95 B')
  })
})

describe.each(encodings.map((e) => [e.name, e] as const))('%s', (_, encoding) => {
  const { encode, decode } = encoding.curve

  test('decode undoes encode to 1e-6 over the range of its codes', () => {
    const worst = Math.max(...codes.map((code) => Math.abs(encode(decode(code)) - code)))
    expect(worst).toBeLessThan(1e-6)
  })

  test('rises with light', () => {
    const light = codes.map(decode)
    expect(light.slice(1).filter((v, i) => v < light[i]!)).toEqual([])
  })

  test('gives a number for every number', () => {
    fc.assert(fc.property(finite, (x) => Number.isFinite(encode(x)) && Number.isFinite(decode(x))))
  })

  test('names gamuts that exist', () => {
    expect(encoding.gamutIds.every(isGamutId)).toBe(true)
  })
})

test('an unknown encoding is refused by name', () => {
  expect(() => encodingById('log-1-2')).toThrow('There is no encoding "log-1-2".')
})
