// The demo scenes as scene light, for judging the guess: the plates that the footage was made from, seen as its camera
// saw them, free of any camera's noise, encoding and compression.
import { join } from 'node:path'
import { demoShots, moveDone } from '../../demo/shots'
import { frameThrough, meanOfPatch, readPlate, windowBetween, type Plate } from '../../demo/encode/plate'
import { randomSource, type Light } from './scenes'

const plates = new Map<string, Plate>()
const lights = new Map<string, Light>()
const size = { width: 480, height: 270 } as const

/** A frame of a demo shot, scene-linear BT.709; the grey card is exactly 0.18 and neutral. */
export function plateLight(shotId: string, index: number): Light {
  const key = `${shotId} ${index}`
  const known = lights.get(key)
  if (known) return known
  const shot = demoShots.find((s) => s.id === shotId)
  if (!shot) throw new RangeError(`There is no demo shot "${shotId}".`)
  const plate = plates.get(shot.plate) ?? readPlate(join('demo', 'plates', `${shot.plate}.exr`))
  plates.set(shot.plate, plate)
  const card = meanOfPatch(plate, shot.patches.greyCard)
  const data = frameThrough(plate, windowBetween(shot.from, shot.to, moveDone(shot, index)), size.width, size.height)
  for (let i = 0; i < data.length; i++) data[i]! *= 0.18 / card[i % 3]!
  const light = { ...size, data }
  lights.set(key, light)
  return light
}

/** A random part of the picture, 70 to 100 % of each side, perhaps mirrored: another framing of the same place. */
export function reframed({ width, height, data }: Light, seed: number): Light {
  const random = randomSource(seed)
  const w = Math.floor(width * (0.7 + 0.3 * random()))
  const h = Math.floor(height * (0.7 + 0.3 * random()))
  const left = Math.floor((width - w) * random())
  const top = Math.floor((height - h) * random())
  const mirror = random() < 0.5
  const out = new Float64Array(w * h * 3)
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const from = ((top + y) * width + left + (mirror ? w - 1 - x : x)) * 3
      out.set(data.subarray(from, from + 3), (y * w + x) * 3)
    }
  return { width: w, height: h, data: out }
}
