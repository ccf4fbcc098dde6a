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
  /** Where a place of the reference lies in the shot, in shares of both; null where nothing is in common. */
  readonly lies: ((x: number, y: number) => readonly [number, number]) | null
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

/** Something that moved between the two: a round piece of another scene, laid into both. */
export interface Visitor {
  readonly scene: string
  /** Its middle and radius: shares of the reference; and how far it has gone by the shot, in shares of its width. */
  readonly x: number
  readonly y: number
  readonly radius: number
  readonly gone: number
}

/** @param seed of what is drawn: faults, cameras and framings */
export function matchPair(scene: string, seed: number, visitor?: Visitor): MatchPair {
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
  const lies = layoutBetween(light, ofReference, ofShot)
  const seen = framed(light, ofShot)
  const before = framed(light, ofReference)
  if (visitor) {
    const stranger = sceneOf(visitor.scene, random)
    const [x, y] = lies(visitor.x, visitor.y)
    const [edge] = lies(visitor.x + 0.1, visitor.y)
    layInto(before, stranger, visitor.x, visitor.y, visitor.radius)
    layInto(seen, stranger, x + visitor.gone, y, (visitor.radius * (edge - x)) / 0.1)
  }
  const shot = sideOf(spoilt(seen, ...faults), second, random)
  const reference = sideOf(before, first, random)
  const truth = sideOf(seen, first, () => 0.5)
  return { name: `${scene} ${seed}`, reference, shot, truth, shared: sharedOf(light, ofReference, ofShot), lies }
}

/**
 * One scene from elsewhere: another part of it, seen mirrored, so that its surfaces come again but nothing lies as it
 * did.
 */
export function otherAngle(scene: string, seed: number): MatchPair {
  const random = randomSource(seed)
  for (let k = 0; k < 5; k++) random()
  const between = (a: number, b: number): number => a + (b - a) * random()
  const pick = (): string => encodings[Math.floor(random() * encodings.length)]!
  const light = sceneOf(scene, random)
  const part = (mirrored: boolean): Framing => ({
    ...size,
    share: between(0.6, 0.8),
    x: random(),
    y: random(),
    mirrored,
    movedX: 0,
    movedY: 0,
  })
  const [first, second] = [pick(), pick()]
  const faults = [between(-1.5, 1.5), between(-50, 50), between(-10, 10), between(0.8, 1.25)] as const
  const before = framed(light, part(false))
  const seen = framed(light, part(true))
  return {
    name: `${scene} from elsewhere ${seed}`,
    reference: sideOf(before, first, random),
    shot: sideOf(spoilt(seen, ...faults), second, random),
    truth: sideOf(seen, first, () => 0.5),
    shared: new Uint8Array(size.width * size.height).fill(1),
    lies: null,
  }
}

/** Two scenes that have nothing in common. */
export function strangers(first: string, second: string, seed: number): MatchPair {
  const a = matchPair(first, seed)
  const b = matchPair(second, seed + 1)
  return {
    name: `${first} and ${second}`,
    reference: a.reference,
    shot: b.shot,
    truth: null,
    shared: new Uint8Array(),
    lies: null,
  }
}

/** A round piece of a scene laid into a picture: about a place, in shares of the picture and of its width. */
function layInto(picture: Light, piece: Light, x: number, y: number, radius: number): void {
  const { width, height, data } = picture
  const r = radius * width
  const span = Math.min(piece.width, piece.height) * 0.6
  for (let v = Math.max(0, Math.ceil(y * height - r)); v < Math.min(height, y * height + r); v++)
    for (let u = Math.max(0, Math.ceil(x * width - r)); u < Math.min(width, x * width + r); u++) {
      const dx = (u - x * width) / r
      const dy = (v - y * height) / r
      if (dx * dx + dy * dy > 1) continue
      const px = Math.floor(piece.width / 2 + (dx * span) / 2)
      const py = Math.floor(piece.height / 2 + (dy * span) / 2)
      for (let c = 0; c < 3; c++) data[(v * width + u) * 3 + c] = piece.data[(py * piece.width + px) * 3 + c]!
    }
}

/** The part of a scene that a framing holds, in pixels of the scene. */
function windowOf(light: Light, f: Framing): { left: number; top: number; width: number; height: number } {
  const aspect = f.width / f.height
  const width = Math.min(light.width, light.height * aspect) * f.share - 2
  return {
    left: f.x * (light.width - width - 2),
    top: f.y * (light.height - width / aspect - 2),
    width,
    height: width / aspect,
  }
}

function layoutBetween(light: Light, reference: Framing, shot: Framing): NonNullable<MatchPair['lies']> {
  const a = windowOf(light, reference)
  const b = windowOf(light, shot)
  return (x, y) => [(a.left + x * a.width - b.left) / b.width, (a.top + y * a.height - b.top) / b.height]
}

/** Which pixels of one framing the other one holds. */
function sharedOf(light: Light, reference: Framing, shot: Framing): Uint8Array {
  const back = layoutBetween(light, shot, reference)
  const out = new Uint8Array(shot.width * shot.height)
  for (let y = 0; y < shot.height; y++)
    for (let x = 0; x < shot.width; x++) {
      const [u, v] = back(x / shot.width, y / shot.height)
      if (u > 0 && u < 1 && v > 0 && v < 1) out[y * shot.width + x] = 1
    }
  return out
}

/** So near the end of a camera's codes, of 65535, its own noise and steps are as large as what is told apart. */
const endCodes = 400

/**
 * ΔE 2000 of a matched shot to its truth on the surfaces that both pictures show: over even blocks, sorted. Blocks that
 * a camera clipped, or holds within a few codes of its black, are left out: what is gone cannot be matched.
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
  const [black, truthBlack] = [shot, truth].map(({ grade: { read } }) => encodingById(read.encodingId).curve.encode(0))
  const errors: number[] = []
  for (let y = 0; y + block <= height; y += block)
    for (let x = 0; x + block <= width; x += block) {
      const a = blockOf(is, x, y, block)
      const b = blockOf(should, x, y, block)
      const codes = blockOf(shot.frame, x, y, block)
      if (!shared[(y + block / 2) * width + x + block / 2] || b.spread > 0.02) continue
      const truthCodes = blockOf(truth.frame, x, y, block)
      if (codes.most >= top - endCodes || truthCodes.most >= truthTop - endCodes) continue
      if (Math.min(...codes.mean) < black! + endCodes / 65535) continue
      if (Math.min(...truthCodes.mean) < truthBlack! + endCodes / 65535) continue
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
