// Pairs of pictures of one scene with known truth: two cameras, exposures, lights, contrasts and framings; and pairs
// that have nothing in common.
import { deltaE2000, displayToLab, encodingById, gamutById, transformPixels } from '@core/colour'
import {
  compile,
  defaultGrade,
  executeExactly,
  openingShow,
  restSize,
  whiteBalanceMatrix,
  type GradeDocument,
} from '@core/grade'
import type { Frame } from '@core/image'
import { shoot } from '../guess/camera'
import { framed, lightOf, photograph, type Framing } from '../guess/photographs'
import { plateLight } from '../guess/plate-light'
import { randomSource, type Light } from '../guess/scenes'

export interface Side {
  readonly frame: Frame
  readonly grade: GradeDocument
}
export interface MatchPair {
  readonly name: string
  readonly reference: Side
  readonly shot: Side
  /** What the shot should look like: its own framing, seen as the reference was. Null where nothing is in common. */
  readonly truth: Side | null
  /** Of each pixel of the shot: whether the reference shows it too. */
  readonly shared: Uint8Array
}

const size = { width: 480, height: 270 } as const
const encodings = [
  'log-420-95',
  'log-400-95-a',
  'log-372-127',
  'log-433-128',
  'log-407-95',
  'log-351-128',
  'flat-gamma',
  'hlg',
] as const
const none = (): undefined => undefined

/** A scene by name: a demo plate, or a photograph with its highlights drawn out. */
function sceneOf(name: string, random: () => number): Light {
  return name.includes('/') ? lightOf(photograph(name), 2.6 + random()) : plateLight(name, 36)
}

/** Exposure, light and contrast on scene-linear BT.709. */
function spoilt(light: Light, stops: number, mired: number, tint: number, contrast: number): Light {
  const data = Float64Array.from(light.data, (v) => 0.18 * (Math.max(v, 0) / 0.18) ** contrast * 2 ** stops)
  transformPixels(whiteBalanceMatrix(gamutById('bt709'), mired, tint), data)
  return { ...light, data }
}

function sideOf(light: Light, encodingId: string, random: () => number): Side {
  const grey = 0.0015 + 0.003 * random()
  const frame = shoot(
    light,
    {
      encodingId,
      range: 'full',
      flagged: 'full',
      bits: 10,
      exposureStops: 0,
      noiseBlack: grey / 3.5,
      noiseGrey: grey,
      noiseTrouble: 0,
      troublePhase: 0,
      troubleRate: 0,
    },
    random,
  )
  const opened = defaultGrade(encodingId, encodingById(encodingId).gamutIds[0], 'full')
  return { frame, grade: { ...opened, show: openingShow(opened.read, opened.show) } }
}

/** @param seed of what is drawn: faults, cameras and framings */
export function matchPair(scene: string, seed: number): MatchPair {
  const random = randomSource(seed)
  for (let k = 0; k < 5; k++) random()
  const between = (a: number, b: number): number => a + (b - a) * random()
  const pick = (): string => encodings[Math.floor(random() * encodings.length)]!
  const light = sceneOf(scene, random)
  const framing = (share: number): Framing => ({
    ...size,
    share,
    x: random(),
    y: random(),
    mirrored: false,
    movedX: 0,
    movedY: 0,
  })
  // The larger one holds at least a good part of the smaller one.
  const wide = framing(between(0.85, 1))
  const near = framing(between(0.6, 0.85))
  const [ofReference, ofShot] = random() < 0.5 ? [wide, near] : [near, wide]
  const [first, second] = [pick(), pick()]
  const faults = [between(-1.5, 1.5), between(-50, 50), between(-10, 10), between(0.7, 1.4)] as const
  const seen = framed(light, ofShot)
  const shot = sideOf(spoilt(seen, ...faults), second, random)
  const reference = sideOf(framed(light, ofReference), first, random)
  const truth = sideOf(seen, first, () => 0.5)
  return { name: `${scene} ${seed}`, reference, shot, truth, shared: sharedOf(light, ofReference, ofShot) }
}

/** Two scenes that have nothing in common. */
export function strangers(first: string, second: string, seed: number): MatchPair {
  const a = matchPair(first, seed)
  const b = matchPair(second, seed + 1)
  return { name: `${first} and ${second}`, reference: a.reference, shot: b.shot, truth: null, shared: new Uint8Array() }
}

/** Which pixels of one framing the other one holds. */
function sharedOf(light: Light, reference: Framing, shot: Framing): Uint8Array {
  const windowOf = (f: Framing): { left: number; top: number; width: number; height: number } => {
    const aspect = f.width / f.height
    const width = Math.min(light.width, light.height * aspect) * f.share - 2
    return {
      left: f.x * (light.width - width - 2),
      top: f.y * (light.height - width / aspect - 2),
      width,
      height: width / aspect,
    }
  }
  const a = windowOf(reference)
  const b = windowOf(shot)
  const out = new Uint8Array(shot.width * shot.height)
  for (let y = 0; y < shot.height; y++)
    for (let x = 0; x < shot.width; x++) {
      const px = b.left + (x / shot.width) * b.width
      const py = b.top + (y / shot.height) * b.height
      if (px > a.left && px < a.left + a.width && py > a.top && py < a.top + a.height) out[y * shot.width + x] = 1
    }
  return out
}

/**
 * ΔE 2000 of a matched shot to its truth on the surfaces that both pictures show: over even blocks, sorted. Blocks that
 * a camera clipped are left out: what is gone cannot be matched.
 */
export function errorsOf({ shot, truth, shared }: MatchPair, grade: GradeDocument): readonly number[] {
  if (!truth) return []
  const shown = (of: Frame, by: GradeDocument): Frame => executeExactly(compile(by, none, of, restSize), of)
  const is = shown(shot.frame, grade)
  const should = shown(truth.frame, truth.grade)
  const lab = displayToLab(grade.show.displayId)
  const { width, height } = is
  const block = 12
  const top = shot.frame.data.reduce((m, v) => Math.max(m, v), 0)
  const truthTop = truth.frame.data.reduce((m, v) => Math.max(m, v), 0)
  const errors: number[] = []
  for (let y = 0; y + block <= height; y += block)
    for (let x = 0; x + block <= width; x += block) {
      const a = blockOf(is, x, y, block)
      const b = blockOf(should, x, y, block)
      const codes = blockOf(shot.frame, x, y, block)
      if (!shared[(y + block / 2) * width + x + block / 2] || b.spread > 0.02) continue
      if (codes.most >= top - 400 || blockOf(truth.frame, x, y, block).most >= truthTop - 400) continue
      errors.push(deltaE2000(lab(...a.mean), lab(...b.mean)))
    }
  return errors.sort((a, b) => a - b)
}

function blockOf(
  { width, data, low, high }: Frame,
  x0: number,
  y0: number,
  size: number,
): { readonly mean: [number, number, number]; readonly spread: number; readonly most: number } {
  const sum = [0, 0, 0]
  let squares = 0
  let most = 0
  for (let y = y0; y < y0 + size; y++)
    for (let x = x0; x < x0 + size; x++)
      for (let c = 0; c < 3; c++) {
        const code = data[(y * width + x) * 3 + c]!
        const v = low + (code / 65535) * (high - low)
        most = Math.max(most, code)
        sum[c]! += v
        squares += v * v
      }
  const n = size * size
  const mean = sum.map((s) => s / n) as [number, number, number]
  const own = mean.reduce((s, m) => s + m * m, 0)
  return { mean, spread: Math.sqrt(Math.max(0, squares / n - own) / 3), most }
}
