import { encodingById, fromOklab, middleGrey, oklabOf, workingGamut } from '../colour'
import { defaultGrade, setParameter, setStep, workOn } from '../grade'
import type { Frame } from '../image'
import { colourBefore, distributionBefore, lowestStops, steepTones } from './distribution'

const none = (): undefined => undefined
const { encode } = encodingById('acescct').curve
const space = oklabOf(workingGamut)
const grade = defaultGrade('acescct', 'ap1')
/** Left half a colour of one hue, right half grey two stops up. */
function halves(degrees: number, purity: number): Frame {
  const lightness = Math.cbrt(middleGrey)
  const angle = (degrees * Math.PI) / 180
  const left = fromOklab(space, lightness, lightness * purity * Math.cos(angle), lightness * purity * Math.sin(angle))
  const right = [middleGrey * 4, middleGrey * 4, middleGrey * 4]
  return {
    width: 40,
    height: 10,
    low: 0,
    high: 1,
    data: Uint16Array.from({ length: 1200 }, (_, i) =>
      Math.round(encode((Math.floor(i / 3) % 40 < 20 ? left : right)[i % 3]!) * 65535),
    ),
  }
}

test('finds the tones, the hue and the purity that are there', () => {
  const { tones, hues, purities } = distributionBefore(grade, none, halves(142, 0.2), 'hue', 'scene')
  const peaks = [...tones].flatMap((v, i) => (v > 0.5 ? [lowestStops + (i + 0.5) / 4] : []))
  expect(peaks.map((p) => Math.round(p) + 0)).toEqual([0, 2])
  expect(hues.indexOf(1)).toBe(Math.floor(142 / 5))
  expect(Math.max(purities[9]!, purities[10]!)).toBeGreaterThan(0.9)
})

test('stands before the station: what the station does is not in it, what comes earlier is', () => {
  const worked = setParameter(setParameter(grade, 'saturation', 'saturation', 0), 'exposure', 'exposureStops', 1)
  const found = colourBefore(worked, none, halves(30, 0.15), 'hue', 'scene', 0.25, 0.5)
  expect(found).toMatchObject({
    stops: expect.closeTo(1, 1),
    degrees: expect.closeTo(30, 0),
    purity: expect.closeTo(0.15, 2),
  })
  expect(colourBefore(worked, none, halves(30, 0.15), 'regions', 'scene', 0.25, 0.5)!.purity).toBeLessThan(0.001)
  // On the display side it is the display's light.
  expect(
    colourBefore(
      workOn(setStep(worked, 'saturation', { side: 'display' }), 'display'),
      none,
      halves(30, 0.15),
      'hue',
      'display',
      0.25,
      0.5,
    )!.degrees,
  ).toBeCloseTo(30, 0)
})

test('eight bits band where a curve is steep, twelve do not', () => {
  const steep = setParameter(defaultGrade('log-420-95'), 'contrast', 'contrast', 2.2)
  expect(steepTones(steep, none, 8, 'shape').length).toBeGreaterThan(0)
  expect(steepTones(steep, none, 12, 'shape')).toEqual([])
  expect(steepTones(defaultGrade('gamma-2.4', 'bt709'), none, 8, 'shape')).toEqual([])
})
