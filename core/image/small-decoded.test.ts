import { frameOfDecoded, type DecodedPicture } from './decoded'
import { planeBytes, type PlaneLayout } from './planes'
import { fitWithin, shrink } from './resample'
import { smallFrameOfDecoded } from './small-decoded'

const layouts: readonly (readonly [string, PlaneLayout])[] = [
  ['8 bit 4:2:0', { width: 96, height: 54, model: 'ycbcr', bitDepth: 8, chromaShiftX: 1, chromaShiftY: 1 }],
  ['10 bit 4:2:2', { width: 96, height: 54, model: 'ycbcr', bitDepth: 10, chromaShiftX: 1, chromaShiftY: 0 }],
  ['12 bit 4:4:4', { width: 96, height: 54, model: 'ycbcr', bitDepth: 12, chromaShiftX: 0, chromaShiftY: 0 }],
  ['odd 4:2:0', { width: 95, height: 53, model: 'ycbcr', bitDepth: 10, chromaShiftX: 1, chromaShiftY: 1 }],
  ['RGB', { width: 96, height: 54, model: 'rgb', bitDepth: 10, chromaShiftX: 0, chromaShiftY: 0 }],
  ['grey', { width: 96, height: 54, model: 'grey', bitDepth: 16, chromaShiftX: 0, chromaShiftY: 0 }],
]

/** Soft colours with noise, so that every sample counts and no code is cut at its end. */
function picture(layout: PlaneLayout, rotation: 0 | 90 | 180, range: 'full' | 'legal'): DecodedPicture {
  let state = 11
  const top = 2 ** layout.bitDepth - 1
  const bytes = new Uint8Array(planeBytes(layout))
  const samples = layout.bitDepth > 8 ? new Uint16Array(bytes.buffer) : bytes
  const next = (): number => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32
  for (let i = 0; i < samples.length; i++) samples[i] = Math.round((0.4 + 0.2 * next()) * top)
  return { planes: bytes, layout, range, matrix: 'bt709', rotation }
}

describe.each(layouts)('a small frame of %s', (_, layout) => {
  test.each([
    [48, 27, 0, 'legal'],
    [40, 40, 0, 'full'],
    [31, 31, 90, 'legal'],
    [9, 9, 180, 'full'],
    [400, 400, 90, 'legal'],
  ] as const)('within %i×%i, turned by %i, is what the whole one shrinks to', (width, height, turn, range) => {
    const source = picture(layout, turn, range)
    const whole = frameOfDecoded(source)
    const size = fitWithin(whole.width, whole.height, width, height)
    const wanted = shrink(whole, size.width, size.height)
    const got = smallFrameOfDecoded(source, width, height)
    expect([got.width, got.height, got.low, got.high]).toEqual([size.width, size.height, wanted.low, wanted.high])
    const worst = got.data.reduce((most, v, i) => Math.max(most, Math.abs(v - wanted.data[i]!)), 0)
    expect(worst).toBeLessThanOrEqual(1)
  })
})
