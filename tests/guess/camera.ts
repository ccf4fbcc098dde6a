// A simulated camera for teaching and judging the guess: exposure error, gamut, noise, encoding, range, rounding.
import { encodingById, gamutById, gamutToGamut, transformPixels } from '@core/colour'
import type { CodeRange, Frame } from '@core/image'
import { gaussian, randomSource, type Light } from './scenes'

export interface Take {
  readonly encodingId: string
  readonly exposureStops: number
  readonly noiseBlack: number
  readonly noiseGrey: number
  /** How the codes were written, and how the file says they were. */
  readonly range: CodeRange
  readonly flagged: CodeRange
  readonly bits: 8 | 10
  /** How much the noise departs from a sensor's, by tone: noise reduction, compression. 0 is none. */
  readonly noiseTrouble: number
  /** Where that departure begins, 0..2π, and how fast it changes with tone, 0..1. */
  readonly troublePhase: number
  readonly troubleRate: number
}

/** A long row of normal deviates, made once: drawing each anew would take most of the time. */
const normals = ((): Float32Array => {
  const random = randomSource(99)
  return Float32Array.from({ length: 2 ** 20 }, () => gaussian(random))
})()

/** The frame a reader would make of such a file, by the range it is flagged with. */
export function shoot({ width, height, data: scene }: Light, take: Take, random: () => number): Frame {
  const encoding = encodingById(take.encodingId)
  const light = scene.slice()
  transformPixels(gamutToGamut(gamutById('bt709'), gamutById(encoding.gamutIds[0])), light)
  const gain = 2 ** take.exposureStops
  const black = take.noiseBlack ** 2
  const perLight = Math.max(0, take.noiseGrey ** 2 - black) / 0.18
  const top = 2 ** take.bits - 1
  const unit = 2 ** (take.bits - 8)
  const data = new Uint16Array(light.length)
  const phase = take.troublePhase
  const rate = 0.4 + take.troubleRate
  const start = Math.floor(random() * normals.length)
  const trouble = (x: number): number =>
    take.noiseTrouble === 0 ? 1 : Math.exp(take.noiseTrouble * Math.sin(Math.log2(Math.max(x, 1e-4)) * rate + phase))
  for (let i = 0; i < light.length; i++) {
    const x = light[i]! * gain
    const noisy =
      x + normals[(start + i) & (normals.length - 1)]! * Math.sqrt(black + perLight * Math.max(x, 0)) * trouble(x)
    const signal = Math.min(Math.max(encoding.curve.encode(noisy), 0), 1)
    const code = Math.round(take.range === 'legal' ? 16 * unit + signal * 219 * unit : signal * top)
    const read = take.flagged === 'legal' ? (code - 16 * unit) / (219 * unit) : code / top
    data[i] = Math.min(65535, Math.max(0, Math.round(((read + 0.25) / 1.5) * 65535)))
  }
  return { width, height, data, low: -0.25, high: 1.25 }
}
