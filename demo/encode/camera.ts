// An invented camera: scene light with its faults and noise → 10-bit Y'CbCr planes in the camera's own encoding.
import {
  encodingById,
  gamutById,
  gamutToGamut,
  invert,
  lumaWeights,
  multiply,
  transformPixels,
  workingGamut,
  type Matrix3,
} from '@core/colour'
import { whiteBalanceMatrix } from '../../core/grade/steps/white-balance'
import type { DemoShot, FileKind } from '../shots'

/** Gaussian noise from a seed: the same clip every time (xorshift32 and the polar method of Marsaglia). */
export function noiseSource(seed: number): () => number {
  let state = seed | 0 || 1
  let spare: number | undefined
  const uniform = (): number => {
    state ^= state << 13
    state ^= state >>> 17
    state ^= state << 5
    return (state >>> 0) / 4294967296
  }
  return () => {
    if (spare !== undefined) {
      const value = spare
      spare = undefined
      return value
    }
    for (;;) {
      const u = 2 * uniform() - 1
      const v = 2 * uniform() - 1
      const s = u * u + v * v
      if (s > 0 && s < 1) {
        const scale = Math.sqrt((-2 * Math.log(s)) / s)
        spare = v * scale
        return u * scale
      }
    }
  }
}

/** Plate light (BT.709, already balanced on the card) → camera-linear, with the shot's exposure and white error. */
export function cameraMatrix(shot: DemoShot, cardBalance: Matrix3): Matrix3 {
  const toWorking = multiply(gamutToGamut(gamutById('bt709'), workingGamut), cardBalance)
  const { temperatureMired, tint } = shot.neutralisedBy
  const fault = invert(whiteBalanceMatrix(workingGamut, temperatureMired, tint))
  return multiply(gamutToGamut(workingGamut, gamutById(shot.gamutId)), multiply(fault, toWorking))
}

/** One frame of light → yuv422p10le in the range and matrix of the camera's file. Changes `light`. */
export function expose(
  shot: DemoShot,
  light: Float64Array,
  matrix: Matrix3,
  stops: number,
  width: number,
  height: number,
  noise: () => number,
): Buffer {
  transformPixels(matrix, light)
  const gain = 2 ** (shot.exposureErrorStops + stops)
  const { encode } = encodingById(shot.encodingId).curve
  const black = shot.noise.black ** 2
  const perLight = (shot.noise.grey ** 2 - black) / 0.18
  for (let i = 0; i < light.length; i++) {
    const x = light[i] * gain
    const noisy = x + noise() * Math.sqrt(black + perLight * Math.max(x, 0))
    light[i] = Math.min(Math.max(encode(noisy), 0), 1)
  }
  return toPlanes(light, width, height, shot.file)
}

function toPlanes(codes: Float64Array, width: number, height: number, { range, matrix }: FileKind): Buffer {
  const w = lumaWeights(matrix)
  const legal = range === 'legal'
  const half = width / 2
  const y = new Uint16Array(width * height)
  const cb = new Uint16Array(half * height)
  const cr = new Uint16Array(half * height)
  const rowB = new Float64Array(width)
  const rowR = new Float64Array(width)
  for (let row = 0; row < height; row++) {
    for (let x = 0; x < width; x++) {
      const i = (row * width + x) * 3
      const luma = w.red * codes[i] + w.green * codes[i + 1] + w.blue * codes[i + 2]
      y[row * width + x] = Math.round(legal ? 64 + luma * 876 : luma * 1023)
      rowB[x] = (codes[i + 2] - luma) / w.cbDivisor
      rowR[x] = (codes[i] - luma) / w.crDivisor
    }
    // Co-sited 4:2:2: each chroma sample is a 1-2-1 average about its luma sample.
    for (let c = 0; c < half; c++) {
      const x = c * 2
      const before = Math.max(0, x - 1)
      cb[row * half + c] = Math.round(((rowB[before] + 2 * rowB[x] + rowB[x + 1]) / 4) * (legal ? 896 : 1023) + 512)
      cr[row * half + c] = Math.round(((rowR[before] + 2 * rowR[x] + rowR[x + 1]) / 4) * (legal ? 896 : 1023) + 512)
    }
  }
  return Buffer.concat([y, cb, cr].map((p) => Buffer.from(p.buffer)))
}
