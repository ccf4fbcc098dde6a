// Judges the guess over the demo scenes: every encoding, noise, ±1.5 stop of exposure error, right and wrong range
// flags.
import { guessEncoding, kindOf, otherRange, type Guess, type Sight } from '@core/guess'
import { encodingById } from '@core/colour'
import type { Frame } from '@core/image'
import { shoot, type Take } from './camera'
import { fileOf, randomTake, taken } from './dataset'
import { demoShots } from '../../demo/shots'
import { plateLight, reframed } from './plate-light'
import { randomSource } from './scenes'

export interface Judged {
  readonly scene: string
  readonly take: Take
  readonly guess: Guess
  readonly deepBlack: boolean
}

export interface JudgeOptions {
  readonly framings: number
  /** What is guessed from: three places of a clip with two frames each, or one frame as a still picture. */
  readonly from: 'clip' | 'still'
  /** The share of takes whose noise is not a sensor's any more. */
  readonly troubled: number
  /** Whether files of high range carry the tag that names their transfer, as they commonly do. */
  readonly tagged: boolean
  readonly scenes?: readonly string[]
}

const placesOfClip = [0, 35, 70] as const

/** Guesses every encoding on framings of each demo scene. */
export function* judge({
  framings,
  from,
  troubled,
  tagged,
  scenes = demoShots.map((s) => s.id),
}: JudgeOptions): Generator<Judged> {
  for (let n = 0; n < framings; n++)
    for (const id of scenes) {
      const seed = n * 101 + ([...id].reduce((sum, c) => sum * 31 + c.charCodeAt(0), 7) % 10007)
      const random = randomSource(seed)
      const places = from === 'clip' ? placesOfClip : [placesOfClip[n % 3]!]
      const views = places.map((index) => ({
        now: reframed(plateLight(id, index), seed + index),
        next: reframed(plateLight(id, index + 1), seed + index),
      }))
      for (const encodingId of taken) {
        const take = randomTake(encodingId, random, 0.25, troubled)
        const sights = views.map(({ now, next }): Sight => ({
          frame: shoot(now, take, random),
          ...(from === 'clip' ? { next: shoot(next, take, random) } : {}),
        }))
        yield {
          scene: id,
          take,
          guess: guessEncoding(sights, take.flagged, { ...fileOf(take), ...(tagged ? tagsOf(encodingId) : {}) }),
          deepBlack: sights.some(({ frame }) => hasDeepBlack(frame, take)),
        }
      }
    }
}

/** The transfer tag that files of high range carry; logs and plain video carry none that says more. */
const tagsOf = (encodingId: string): { transfer?: string } =>
  ({ hlg: { transfer: 'arib-std-b67' }, pq: { transfer: 'smpte2084' } })[encodingId] ?? {}

/** True when a share of the picture lies within a few codes of the true black. */
function hasDeepBlack({ data, low, high }: Frame, { encodingId, range, flagged }: Take): boolean {
  const signal = (code: number): number => low + ((high - low) * code) / 65535
  const black = encodingById(encodingId).curve.encode(0)
  let read = black
  if (range !== flagged) read = flagged === 'legal' ? (black * 1023 - 64) / 876 : (black * 876 + 64) / 1023
  let near = 0
  for (let i = 0; i < data.length; i += 3) if (signal(data[i + 1]!) < read + 8 / 1023) near++
  return near > (data.length / 3) * 0.005
}

const isLog = (id: string): boolean => kindOf(encodingById(id)) === 'camera log'
const publishedLog = (id: string): boolean => /^log-/.test(id)
const blackOf = (id: string): number => (encodingById(id).curve.encode(0) * 1023 > 110 ? 128 : 95)

export interface Score {
  readonly name: string
  readonly right: number
  readonly of: number
}

/** The bars, each as right answers of all that count. */
export function scores(all: readonly Judged[]): readonly Score[] {
  const count = (name: string, among: readonly Judged[], right: (j: Judged) => boolean): Score => ({
    name,
    right: among.filter(right).length,
    of: among.length,
  })
  const shareOfLogs = ({ guess }: Judged): number =>
    guess.ranked.filter((r) => isLog(r.encodingId)).reduce((s, r) => s + r.probability, 0)
  const saysLog = (j: Judged): boolean => shareOfLogs(j) > 0.5
  const logs = all.filter((j) => publishedLog(j.take.encodingId))
  const topGroup = ({ guess, take }: Judged): boolean =>
    guess.groups[0]?.members.some((m) => m.encodingId === take.encodingId && m.range === take.range) ?? false
  /** The best group of logs, as if it were known that the footage is a log of the stated range. */
  const amongLogs = ({ guess, take }: Judged): boolean => {
    const best = guess.groups
      .map((g) => ({
        g,
        p: g.members
          .filter((m) => publishedLog(m.encodingId) && m.range === take.range)
          .reduce((s, m) => s + m.probability, 0),
      }))
      .sort((a, b) => b.p - a.p)[0]
    return best?.g.members.some((m) => m.encodingId === take.encodingId && m.range === take.range) ?? false
  }
  /** Of the likeliest log that cameras write. */
  const blackSaid = ({ guess }: Judged): number =>
    blackOf(guess.ranked.find((r) => publishedLog(r.encodingId))?.encodingId ?? '')
  const wrongFlag = all.filter((j) => j.take.range !== j.take.flagged)
  const sure = all.filter(({ guess }) => (guess.groups[0]?.probability ?? 0) >= 0.9)
  const rightFlag = all.filter((j) => j.take.range === j.take.flagged)
  return [
    count('camera log or not', all, (j) => saysLog(j) === isLog(j.take.encodingId)),
    count(
      'kind of five (log, display, flat, HLG, PQ)',
      all,
      (j) => j.guess.kind === kindOf(encodingById(j.take.encodingId)),
    ),
    count('among logs, the right group first', logs, amongLogs),
    count('the right group of all encodings and both ranges first', logs, topGroup),
    count(
      'the same, of files that are flagged right',
      logs.filter((j) => j.take.range === j.take.flagged),
      topGroup,
    ),
    count(
      'black 95 against 128, deep black in frame',
      logs.filter((j) => j.deepBlack),
      (j) => blackSaid(j) === blackOf(j.take.encodingId),
    ),
    count(
      'wrong range flag found, deep black in frame',
      wrongFlag.filter((j) => j.deepBlack),
      (j) => j.guess.range.conflict,
    ),
    count('wrong range flag found, all', wrongFlag, (j) => j.guess.range.conflict),
    count('right range flag left alone', rightFlag, (j) => !j.guess.range.conflict),
    count('of groups given at 90 % or more, right', sure, topGroup),
    count(
      'of range conflicts given at 90 % or more, right',
      all.filter(({ guess }) => guess.range.otherProbability >= 0.9),
      (j) => j.take.range === otherRange(j.take.flagged),
    ),
  ]
}
