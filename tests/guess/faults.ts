// Real photographs as finished pictures, put under one fault each.
import { gamutById, gamutToGamut, invert, multiply, transform, workingGamut } from '@core/colour'
import { whiteBalanceMatrix } from '@core/grade'
import type { Frame } from '@core/image'
import { framed, photograph } from './photographs'
import { randomSource } from './scenes'

export interface Fault {
  /** What the camera's balance missed: positive is too warm, and too green. */
  readonly mired: number
  readonly tint: number
  readonly stops: number
  /** Blacks lifted by this share of the signal. */
  readonly lift: number
}
export const noFault: Fault = { mired: 0, tint: 0, stops: 0, lift: 0 }

const gamma = 2.4
const width = 480
const height = 270

/** A part of a photograph under a fault, as an 8-bit BT.709 picture at gamma 2.4. `seed` chooses the part. */
export function faultyPicture(name: string, seed: number, fault: Fault): Frame {
  const { width: w, height: h, codes } = photograph(name)
  const random = randomSource(seed)
  const part = framed(
    { width: w, height: h, data: codes },
    {
      width,
      height,
      x: random(),
      y: random(),
      share: 0.6 + 0.4 * random(),
      mirrored: random() < 0.5,
      movedX: 0,
      movedY: 0,
    },
  )
  const bt709 = gamutById('bt709')
  const balance = multiply(
    gamutToGamut(workingGamut, bt709),
    multiply(invert(whiteBalanceMatrix(workingGamut, -fault.mired, fault.tint)), gamutToGamut(bt709, workingGamut)),
  )
  const gain = 2 ** fault.stops
  const data = new Uint16Array(part.data.length)
  for (let i = 0; i < data.length; i += 3) {
    const light = (c: number): number => part.data[i + c]! ** gamma * gain
    const moved = transform(balance, [light(0), light(1), light(2)])
    for (let c = 0; c < 3; c++) {
      const signal = Math.min(1, Math.max(0, moved[c]!)) ** (1 / gamma)
      data[i + c] = Math.round((signal + fault.lift * (1 - signal)) * 255) * 257
    }
  }
  return { width, height, data, low: 0, high: 1 }
}
