// Takes with known truth for teaching and judging Balance: scenes rightly exposed and balanced, spoilt by exposure and
// the colour of the light, seen by a camera, with and without a card, with and without a lamp in the frame.
import { deltaE2000, displayToLab, gamutById, transformPixels } from '@core/colour'
import { compile, defaultGrade, execute, openingShow, whiteBalanceMatrix, type GradeDocument } from '@core/grade'
import { shrink, type Frame } from '@core/image'
import type { Area } from '@core/readings'
import { demoShots } from '../../demo/shots'
import { shoot, type Take } from '../guess/camera'
import { framed, judgingPhotographs, lightOf, photograph, teachingPhotographs } from '../guess/photographs'
import { plateLight, reframed } from '../guess/plate-light'
import { randomSource, type Light } from '../guess/scenes'

export interface BalanceTake {
  readonly name: string
  readonly encodingId: string
  readonly exposureStops: number
  readonly mired: number
  readonly tint: number
  readonly touched: boolean
  readonly withLamp: boolean
  readonly card: Area | null
  readonly frame: Frame
  readonly grade: GradeDocument
  /** The same scene without the faults, as it is shown. */
  readonly truth: Frame
}

export const takeSize = { width: 480, height: 270 } as const
export const takeEncodings = ['log-420-95', 'log-400-95-a', 'log-372-127', 'log-433-128', 'hlg'] as const
const none = (): undefined => undefined

/** A lamp or a window, soft at its edge, of so many stops over grey. */
function withLamp({ width, height, data }: Light, random: () => number): Light {
  const out = data.slice()
  const level = 0.18 * 2 ** (4.5 + 2 * random())
  const [cx, cy] = [random(), random() * 0.6]
  const size = 0.04 + 0.12 * random()
  const square = random() < 0.5
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 3) {
      const dx = Math.abs(x / width - cx) * (width / height)
      const dy = Math.abs(y / height - cy)
      const away = (square ? Math.max(dx, dy * 0.7) : Math.hypot(dx, dy)) / size
      const share = Math.min(1, Math.max(0, (1.05 - away) / 0.1))
      for (let c = 0; c < 3; c++) out[i + c] = out[i + c]! * (1 - share) + share * level
    }
  return { width, height, data: out }
}

/** A grey card held into a photograph, and where it lies. */
function withCard(light: Light, random: () => number): { readonly light: Light; readonly card: Area } {
  const { width, height, data } = light
  const out = data.slice()
  const w = 0.06 + 0.04 * random()
  const left = random() * (0.9 - w)
  const top = 0.3 + random() * 0.5
  const card = { left, top, right: left + w, bottom: top + w }
  for (let y = Math.floor(top * height); y < card.bottom * height; y++)
    for (let x = Math.floor(left * width); x < card.right * width; x++)
      for (let c = 0; c < 3; c++) out[(y * width + x) * 3 + c] = 0.18
  return {
    light: { ...light, data: out },
    card: { left: left + 0.01, top: top + 0.01, right: left + w - 0.01, bottom: top + w - 0.01 },
  }
}

export interface TakesWanted {
  readonly side: 'teaching' | 'judging'
  readonly count: number
  readonly seed?: number
}

/** As many takes as wanted, the same for the same seed. Plates judge; of the photographs each side has its own. */
export function* balanceTakes({ side, count, seed = 1 }: TakesWanted): Generator<BalanceTake> {
  const photographs = side === 'teaching' ? teachingPhotographs : judgingPhotographs
  const plates = side === 'teaching' ? [] : demoShots.map((s) => s.id)
  const sources = [...plates, ...photographs]
  for (let n = 0; n < count; n++) {
    const random = randomSource(seed * 7919 + n)
    const source = sources[n % sources.length]!
    const isPlate = plates.includes(source)
    const scene = isPlate
      ? reframed(plateLight(source, Math.floor(random() * 70)), n + seed)
      : framed(lightOf(photograph(source), 3 + 2 * random()), {
          ...takeSize,
          x: random(),
          y: random(),
          share: 0.6 + 0.4 * random(),
          mirrored: random() < 0.5,
          movedX: 0,
          movedY: 0,
        })
    const lamp = random() < 0.25
    const lit = lamp ? withLamp(scene, random) : scene
    const carded = random() < 0.5 ? withCard(lit, random) : { light: lit, card: null }
    const touched = random() >= 0.25
    const exposureStops = touched ? random() * 4 - 2 : 0
    const mired = touched ? random() * 120 - 60 : 0
    const tint = touched ? random() * 24 - 12 : 0
    const encodingId = takeEncodings[n % takeEncodings.length]!
    yield takeOf({
      name: `${source} ${n}`,
      right: carded.light,
      card: carded.card,
      encodingId,
      exposureStops,
      mired,
      tint,
      touched,
      withLamp: lamp,
      random,
    })
  }
}

interface Spoilt extends Pick<
  BalanceTake,
  'name' | 'card' | 'encodingId' | 'exposureStops' | 'mired' | 'tint' | 'touched' | 'withLamp'
> {
  readonly right: Light
  readonly random: () => number
}

/** A camera without noise that exposes rightly. */
export const cleanCamera: Take = {
  encodingId: 'log-420-95',
  exposureStops: 0,
  noiseBlack: 0,
  noiseGrey: 0,
  range: 'legal',
  flagged: 'legal',
  bits: 10,
  noiseTrouble: 0,
  troublePhase: 0,
  troubleRate: 0,
}

function takeOf({ right, random, ...take }: Spoilt): BalanceTake {
  const { encodingId, exposureStops } = take
  const wrong = right.data.slice()
  // The white balance that takes it away is the inverse of what the light did.
  transformPixels(whiteBalanceMatrix(gamutById('bt709'), take.mired, -take.tint), wrong)
  const noise = 0.002 + 0.006 * random()
  const camera = { ...cleanCamera, encodingId, exposureStops, noiseBlack: noise * 0.3, noiseGrey: noise }
  const frame = shoot({ ...right, data: wrong }, camera, random)
  const clean = shoot(right, { ...cleanCamera, encodingId }, random)
  const grade = openedGrade(encodingId, frame)
  const opened = openedGrade(encodingId, clean)
  return { ...take, frame, grade, truth: shownOf(opened, clean) }
}

/** The grade that footage opens with, by its own brightest light. */
export function openedGrade(encodingId: string, frame: Frame): GradeDocument {
  const plain = defaultGrade(encodingId, undefined, 'legal')
  const codes = frame.data.slice().sort()
  const brightest = codes[Math.floor(codes.length * 0.9999)]! / 65535
  const read = { ...plain.read, brightestSignal: frame.low + brightest * (frame.high - frame.low) }
  return { ...plain, read, show: openingShow(read, plain.show) }
}

const compared = { width: 96, height: 54 } as const

export const shownOf = (grade: GradeDocument, frame: Frame): Frame =>
  shrink(execute(compile(grade, none, frame, 33), frame), compared.width, compared.height)

/** Mean CIEDE2000 of two shown pictures. */
export function apart(a: Frame, b: Frame): number {
  const lab = displayToLab('bt709-2.4')
  const of = ({ data }: Frame, i: number): readonly [number, number, number] =>
    lab(data[i]! / 65535, data[i + 1]! / 65535, data[i + 2]! / 65535)
  let sum = 0
  for (let i = 0; i < a.data.length; i += 3) sum += deltaE2000(of(a, i), of(b, i))
  return (sum * 3) / a.data.length
}
