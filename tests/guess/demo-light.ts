// The demo clips as scene light, at half size so that their own noise is small, for judging the guess.
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { demoShots } from '../../demo/shots'
import { encodingById, gamutById, gamutToGamut, frameOfDecoded, sampleSignal, transformPixels } from '@core/index'
import { decodeFrame, decodedPicture } from '../../server/media/decode'
import { probe } from '../../server/media/probe'
import { randomSource, type Light } from './scenes'

const cache = new Map<string, Light>()

/** One frame of a demo clip, scene-linear BT.709, its stated exposure error taken out. */
export async function demoLight(shotId: string, index: number, folder = join('demo', 'footage')): Promise<Light> {
  const key = `${shotId} ${index}`
  const known = cache.get(key)
  if (known) return known
  const path = join(folder, `${shotId}.mov`)
  const truth = JSON.parse(readFileSync(join(folder, `${shotId}.truth.json`), 'utf8')) as { encodingId: string; gamutId: string; exposureErrorStops: number }
  const { facts, frameTimes } = await probe(path, shotId)
  const full = frameOfDecoded(decodedPicture(await decodeFrame(path, facts, frameTimes, index), facts))
  const data = sampleSignal(full, 1)
  const { decode } = encodingById(truth.encodingId).curve, gain = 2 ** -truth.exposureErrorStops
  for (let i = 0; i < data.length; i++) data[i] = decode(data[i]!) * gain
  transformPixels(gamutToGamut(gamutById(truth.gamutId), gamutById('bt709')), data)
  const light = averaged({ width: full.width, height: full.height, data }, 2)
  cache.set(key, light)
  return light
}

export const demoFrames = demoShots.flatMap((shot) => [0, 35, 71].map((index) => ({ id: shot.id, index })))

/** Averages squares of `side` pixels of light. */
function averaged({ width, height, data }: Light, side: number): Light {
  const w = Math.floor(width / side), h = Math.floor(height / side), out = new Float64Array(w * h * 3)
  for (let y = 0; y < h * side; y++)
    for (let x = 0; x < w * side; x++)
      for (let c = 0; c < 3; c++) out[(Math.floor(y / side) * w + Math.floor(x / side)) * 3 + c]! += data[(y * width + x) * 3 + c]! / side ** 2
  return { width: w, height: h, data: out }
}

/** A random part of the picture, 70 to 100 % of each side, perhaps mirrored: another framing of the same place. */
export function reframed({ width, height, data }: Light, seed: number): Light {
  const random = randomSource(seed)
  const w = Math.floor(width * (0.7 + 0.3 * random())), h = Math.floor(height * (0.7 + 0.3 * random()))
  const left = Math.floor((width - w) * random()), top = Math.floor((height - h) * random()), mirror = random() < 0.5
  const out = new Float64Array(w * h * 3)
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const from = ((top + y) * width + left + (mirror ? w - 1 - x : x)) * 3
      out.set(data.subarray(from, from + 3), (y * w + x) * 3)
    }
  return { width: w, height: h, data: out }
}
