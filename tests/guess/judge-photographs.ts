// Judges the guess on photographs that it was never taught with, through real codecs.
import { encodingById } from '@core/colour'
import { guessEncoding, kindOf, sureAt, type Guess } from '@core/guess'
import type { Codec } from './clips'
import { judgingPhotographs } from './photographs'
import { kindOfContent, randomRealTake, recorded, recordedLogs, type Content, type RealTake } from './real-takes'

export interface JudgedTake {
  readonly take: RealTake
  readonly guess: Guess
  readonly deepBlack: boolean
  readonly ms: number
}

export interface PhotographEffort {
  readonly photographs: number
  readonly finished: number
  readonly takesPerLog: number
  readonly flats: number
  readonly wrongFlags: number
}
export const wholeEffort: PhotographEffort = {
  photographs: judgingPhotographs.length,
  finished: 50,
  takesPerLog: 3,
  flats: 10,
  wrongFlags: 12,
}

export async function* judgePhotographs(effort: PhotographEffort): AsyncGenerator<JudgedTake> {
  const tenBit: readonly Codec[] = ['H.264 10 bit', 'HEVC 10 bit', 'all-intra 10 bit']
  for (const [p, photo] of judgingPhotographs.slice(0, effort.photographs).entries()) {
    let n = 0
    const wanted: { content: Content; tagged?: boolean; wrong?: boolean; codecs?: readonly Codec[] }[] = [
      ...Array.from({ length: effort.finished }, () => ({ content: 'finished' })),
      ...recordedLogs.flatMap((id) =>
        Array.from({ length: effort.takesPerLog }, (_, i) => ({
          content: id,
          ...(i % 3 === 2 ? {} : { codecs: tenBit }),
        })),
      ),
      ...['hlg', 'pq'].flatMap((content) => [
        { content, tagged: true },
        { content, tagged: true },
        { content },
        { content },
      ]),
      ...Array.from({ length: effort.flats }, (_, i) => ({ content: i % 2 === 0 ? 'flat-gamma' : 'unknown flat' })),
      ...Array.from({ length: effort.wrongFlags }, (_, i) => ({
        content: i % 2 === 0 ? 'finished' : recordedLogs[(i * 5) % recordedLogs.length]!,
        wrong: true,
      })),
    ]
    for (const { content, tagged = false, wrong = false, codecs } of wanted) {
      // Every six takes another part of the photograph is seen.
      const take = randomRealTake(photo, content, 5_000_017 + p * 10_007 + n * 37, 900 + Math.floor(n / 6), {
        wrongFlag: wrong ? 1 : 0,
        tagged,
        mostNoise: 2.5,
        ...(codecs ? { codecs } : {}),
      })
      n++
      const { sights, flagged, file } = await recorded(take)
      const began = performance.now()
      const guess = guessEncoding(sights, flagged, file)
      const ms = performance.now() - began
      yield { take, guess, deepBlack: hasDeepBlack(sights[0]!.frame.data), ms }
    }
  }
}

/** Some of the picture is black: half a percent lies within six codes of what one in a thousand lies under. */
function hasDeepBlack(data: Uint16Array): boolean {
  const green = Uint16Array.from({ length: data.length / 3 }, (_, p) => data[p * 3 + 1]!).sort()
  const reach = ((6 / 1023) * 65535) / 1.5
  return green[Math.floor(green.length * 0.006)]! < green[Math.floor(green.length * 0.001)]! + reach
}

const isLog = ({ content }: RealTake): boolean => content.startsWith('log-')
const bitsOf = ({ recording }: RealTake): number => (recording.codec.endsWith('8 bit') ? 8 : 10)
const rightFlag = ({ take, guess }: JudgedTake): boolean => guess.range.flagged === take.recording.range
const hasTag = ({ recording }: RealTake): boolean => recording.transfer !== undefined
const rankOf = ({ take, guess }: JudgedTake): number =>
  guess.opening.offers.findIndex(
    (o) =>
      o.encodingId === take.content ||
      guess.groups.some(
        (g) =>
          g.members.some((m) => m.encodingId === o.encodingId) && g.members.some((m) => m.encodingId === take.content),
      ),
  )

export interface PhotographScore {
  readonly name: string
  readonly right: number
  readonly of: number
  readonly bar: string
}

export function photographScores(all: readonly JudgedTake[]): readonly PhotographScore[] {
  const count = (
    name: string,
    bar: string,
    among: readonly JudgedTake[],
    right: (j: JudgedTake) => boolean,
  ): PhotographScore => ({ name, bar, right: among.filter(right).length, of: among.length })
  const flaggedRight = all.filter(rightFlag)
  const kindRight = ({ take, guess }: JudgedTake): boolean => guess.kind === kindOfContent(take.content)
  const untagged = flaggedRight.filter(({ take }) => !hasTag(take))
  const finished = flaggedRight.filter(({ take }) => take.content === 'finished')
  const logs = flaggedRight.filter(({ take }) => isLog(take) && bitsOf(take) === 10)
  const flats = flaggedRight.filter(({ take }) => kindOfContent(take.content) === 'flat gamma')
  const sure = flaggedRight.filter(({ take, guess }) => !hasTag(take) && (guess.groups[0]?.probability ?? 0) >= sureAt)
  const applied = flaggedRight.filter(({ take, guess }) => !hasTag(take) && guess.opening.because === 'sure')
  const inFirstGroup = ({ take, guess }: JudgedTake): boolean =>
    take.content === 'finished'
      ? kindOf(encodingById(guess.groups[0]!.members[0]!.encodingId)) === 'display gamma'
      : guess.groups[0]!.members.some((m) => m.encodingId === take.content)
  return [
    count(
      'display video taken for something else and applied',
      '0 %',
      finished,
      ({ guess }) => guess.opening.because === 'sure',
    ),
    count('display video asked about', '–', finished, ({ guess }) => guess.opening.asks),
    count(
      'kind right at 10 bits',
      '≥ 95 %',
      untagged.filter(({ take }) => bitsOf(take) === 10),
      kindRight,
    ),
    count(
      'kind right at 8 bits',
      '≥ 90 %',
      untagged.filter(({ take }) => bitsOf(take) === 8),
      kindRight,
    ),
    count(
      'HLG and PQ by their tags',
      '100 %',
      all.filter(({ take }) => hasTag(take)),
      ({ take, guess }) => guess.opening.encodingId === take.content,
    ),
    count(
      'HLG and PQ without tags, kind',
      '–',
      untagged.filter(({ take }) => /^(hlg|pq)$/.test(take.content)),
      kindRight,
    ),
    count(
      'flat profile seen as flat, or not sure',
      '≥ 95 %',
      flats,
      ({ guess }) => guess.kind === 'flat gamma' || guess.opening.because === 'as it looks',
    ),
    count('flat profile asked about', '–', flats, ({ guess }) => guess.opening.asks),
    count('log at 10 bits among the three offered', '≥ 85 %', logs, (j) => rankOf(j) >= 0),
    count('log at 10 bits first of them', '≥ 60 %', logs, (j) => rankOf(j) === 0),
    count(
      'log asked about or applied right',
      '–',
      logs,
      ({ take, guess }) => guess.opening.asks || guess.opening.encodingId === take.content,
    ),
    count('of answers at 90 % or more, right', '≥ 95 %', sure, inFirstGroup),
    count('of those applied, right to a quarter stop', '–', applied, ({ take, guess }) =>
      guess.groups.some(
        (g) =>
          g.members.some((m) => m.encodingId === take.content) &&
          g.members.some((m) => m.encodingId === guess.opening.encodingId),
      ),
    ),
    count('right range flag doubted', '≤ 2 %', flaggedRight, ({ guess }) => guess.range.conflict),
    count(
      'wrong range flag found, deep black in frame',
      '≥ 90 %',
      all.filter((j) => !rightFlag(j) && j.deepBlack),
      ({ guess }) => guess.range.conflict,
    ),
    count(
      'wrong range flag found, all',
      '–',
      all.filter((j) => !rightFlag(j)),
      ({ guess }) => guess.range.conflict,
    ),
  ]
}
