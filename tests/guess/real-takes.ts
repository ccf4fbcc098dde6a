// Takes of real photographs through real codecs: what a camera with each curve, or a finished picture, leaves in a
// file, and what the program's own reader finds there.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { encodingById, encodings, type TransferCurve } from '@core/colour'
import { fileFactsOf, type FileFacts, type FootageKind, type Sight } from '@core/guess'
import { frameOfDecoded, type CodeRange, type Frame } from '@core/image'
import { decodeAll, decodedPicture } from '@media/decode'
import { probe, type Probed } from '@media/probe'
import { decodeSights } from '@media/sights'
import { codecs, finishedSignal, signalOf, writeClip, type Codec, type Recording, type Sensor } from './clips'
import { framed, lightOf, photograph, type Framing } from './photographs'
import { randomSource, type Light } from './scenes'

/** What was put into a file: a curve that ships, a finished picture, or a flat profile that nobody can name. */
export type Content = string | 'finished' | 'unknown flat'

export interface RealTake {
  readonly photo: string
  readonly content: Content
  readonly recording: Recording
  readonly sensor: Sensor
  readonly seed: number
  /** What of the photograph is seen, how it moves, and how bright its white is; takes that share it are made faster. */
  readonly view: number
}

/** The curves that video cameras write. */
export const recordedLogs = encodings.filter((e) => /^log-/.test(e.id)).map((e) => e.id)

export const kindOfContent = (content: Content): FootageKind => {
  if (content === 'finished') return 'display gamma'
  if (content === 'unknown flat' || content === 'flat-gamma') return 'flat gamma'
  if (content === 'hlg') return 'HLG'
  return content === 'pq' ? 'PQ' : 'camera log'
}

/** A flat profile as cameras have them: black lifted, white lowered, a gentle power between. */
export function unknownFlat(random: () => number): Pick<TransferCurve, 'encode'> {
  const black = 0.05 + 0.07 * random()
  const top = 0.85 + 0.12 * random()
  const power = 1 / (2 + 1.2 * random())
  const white = 0.18 * 2 ** (2.6 + 1.4 * random())
  return { encode: (x) => black + (top - black) * Math.sign(x) * (Math.abs(x) / white) ** power }
}

export interface TakeOptions {
  readonly wrongFlag: number
  /** HLG and PQ carry their tags. */
  readonly tagged: boolean
  readonly codecs?: readonly Codec[]
  readonly mostNoise?: number
}

/** A take of its own for every seed and view. */
export function randomRealTake(
  photo: string,
  content: Content,
  seed: number,
  view: number,
  options: TakeOptions,
): RealTake {
  const random = randomSource(seed)
  for (let n = 0; n < 5; n++) random()
  const choice = options.codecs ?? codecs
  const codec = choice[Math.floor(random() * choice.length)]!
  const range: CodeRange = random() < 0.2 ? 'full' : 'legal'
  const wrong = random() < options.wrongFlag
  const other: CodeRange = range === 'full' ? 'legal' : 'full'
  const stated = range === 'full' || random() < 0.5 ? range : undefined
  // A file that says nothing is taken for legal range, which is as wrong as saying so.
  const mistaken = other === 'legal' && random() < 0.5 ? undefined : other
  const flagged = wrong ? mistaken : stated
  const noise = (options.mostNoise ?? 4) ** random()
  return {
    photo,
    content,
    recording: {
      codec,
      coarseness: random(),
      range,
      ...(flagged ? { flagged } : {}),
      ...(options.tagged && content === 'hlg' ? { transfer: 'arib-std-b67', primaries: 'bt2020' } : {}),
      ...(options.tagged && content === 'pq' ? { transfer: 'smpte2084', primaries: 'bt2020' } : {}),
    },
    sensor: {
      exposureStops: random() * 2.4 - 1.4,
      noiseBlack: 0.0003 * noise,
      noiseGrey: 0.0015 * noise,
    },
    seed,
    view,
  }
}

const size = { width: 480, height: 270 } as const
const frameCount = 6

/** The frames of a view: light, and the finished picture's codes. */
interface View {
  readonly light: readonly Light[]
  readonly codes: readonly Light[]
}
let lastView: { readonly key: string; readonly made: View } | undefined

function viewOf(photo: string, view: number): View {
  const key = `${photo} ${view}`
  if (lastView?.key === key) return lastView.made
  const random = randomSource(view * 7919 + 77)
  const picture = photograph(photo)
  const still: Framing = {
    ...size,
    x: random(),
    y: random(),
    share: 0.75 + 0.2 * random(),
    mirrored: random() < 0.5,
    movedX: 0,
    movedY: 0,
  }
  const moving = random() < 0.6
  const speedX = moving ? (random() - 0.5) * 5 : 0
  const speedY = moving ? (random() - 0.5) * 2 : 0
  const of = (source: { width: number; height: number; data: ArrayLike<number> }): readonly Light[] =>
    Array.from({ length: frameCount }, (_, n) => framed(source, { ...still, movedX: n * speedX, movedY: n * speedY }))
  const made = {
    light: of(lightOf(picture, 3 + 2 * random())),
    codes: of({ ...picture, data: picture.codes }),
  }
  lastView = { key, made }
  return made
}

function framesOf({ photo, content, sensor, seed, view }: RealTake): readonly Light[] {
  const random = randomSource(seed + 77)
  const { light, codes } = viewOf(photo, view)
  if (content === 'finished') {
    // Finished pictures are a little lighter or darker, of a little more or less contrast.
    const power = 2 ** ((random() - 0.5) * 0.5)
    return codes.map((frame) =>
      finishedSignal({ ...frame, data: frame.data.map((v) => Math.max(0, v) ** power) }, sensor.noiseGrey * 2, random),
    )
  }
  const curve = content === 'unknown flat' ? unknownFlat(random) : encodingById(content).curve
  const gamut = content === 'unknown flat' ? 'bt709' : encodingById(content).gamutIds[0]
  return light.map((frame) => signalOf(frame, sensor, curve, gamut, random))
}

/** What the program's own reader finds in such a file. */
export interface Found {
  readonly sights: readonly Sight[]
  readonly flagged: CodeRange
  readonly file: FileFacts
}

/** Files of one recording differ in nothing that their header says. */
const headers = new Map<string, Probed>()

export async function recorded(take: RealTake): Promise<Found> {
  const folder = mkdtempSync(join(tmpdir(), 'pale-take-'))
  try {
    const { recording } = take
    const path = join(folder, recording.codec === 'all-intra 10 bit' ? 'take.mov' : 'take.mp4')
    writeClip(path, framesOf(take), recording)
    const key = JSON.stringify([recording.codec, recording.flagged, recording.transfer, recording.primaries])
    const { facts } = headers.get(key) ?? (await probe(path, 'take'))
    headers.set(key, { facts, frameTimes: [] })
    const frames: Frame[] = []
    for await (const planes of decodeAll(path, facts).frames) frames.push(frameOfDecoded(decodedPicture(planes, facts)))
    const sights = frames.flatMap((frame, i) => (i % 2 === 0 && frames[i + 1] ? [{ frame, next: frames[i + 1]! }] : []))
    return { sights, flagged: facts.range, file: fileFactsOf(facts) }
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

/** What the program's reader finds in any file. */
export async function found(path: string): Promise<Found> {
  const { facts, frameTimes } = await probe(path, 'file')
  const frameOf = (planes: Buffer): Frame => frameOfDecoded(decodedPicture(planes, facts))
  const sights = (await decodeSights(path, facts, frameTimes)).map(({ planes, next }): Sight => ({
    frame: frameOf(planes),
    ...(next ? { next: frameOf(next) } : {}),
  }))
  return { sights, flagged: facts.range, file: fileFactsOf(facts) }
}
