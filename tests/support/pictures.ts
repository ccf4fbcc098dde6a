// Made-up pictures with known truth, for tests of what is measured.
import { buildChain, compile, defaultGrade, execute, restSize, type GradeDocument } from '@core/grade'
import type { Frame } from '@core/image'
import { measuredPicture, type MeasuredPicture } from '@core/readings'

/** Uniform numbers of 0..1 from a seed: the same every time (a 32-bit congruential step, well mixed). */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), state | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** Normal deviates from uniform ones (Box and Muller 1958). */
export const normalFrom = (random: () => number) => (): number =>
  Math.sqrt(-2 * Math.log(Math.max(random(), 1e-12))) * Math.cos(2 * Math.PI * random())

/** A frame whose code at each pixel is given as R, G, B of 0..1; values outside are held. */
export function frameOf(
  width: number,
  height: number,
  colour: (x: number, y: number) => readonly [number, number, number],
): Frame {
  const data = new Uint16Array(width * height * 3)
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (const v of colour(x, y)) data[i++] = Math.round(Math.min(1, Math.max(0, v)) * 65535)
  return { width, height, data, low: 0, high: 1 }
}

/** A frame through a grade, ready to be measured; by default a picture made for BT.709 at gamma 2.4, shown as it is. */
export function pictureOf(
  source: Frame,
  grade: GradeDocument = defaultGrade('gamma-2.4', 'bt709'),
  sourceBits = 10,
): MeasuredPicture {
  const lut = (): undefined => undefined
  return measuredPicture({
    source,
    sourceBits,
    shown: execute(compile(grade, lut, source, restSize), source),
    grade,
    chain: buildChain(grade, lut),
    lut,
  })
}

/** A frame that is its own display signal: BT.709 at gamma 2.4, read and shown straight. */
export function shownAsIs(source: Frame): MeasuredPicture {
  const grade = defaultGrade('gamma-2.4', 'bt709')
  const lut = (): undefined => undefined
  return measuredPicture({
    source,
    sourceBits: 10,
    shown: source,
    grade,
    chain: (straight ??= buildChain(grade, lut)),
    lut,
  })
}
let straight: ReturnType<typeof buildChain> | undefined
