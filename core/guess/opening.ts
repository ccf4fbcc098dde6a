// How a medium opens: a mistaken log is ruin and a log left flat is harmless, so only what is sure and sane is applied;
// else the picture stays as its file looks, and what it may be is asked.
import { encodingById, gamutById, gamutToGamut, middleGrey, type Encoding } from '../colour'
import { kindOf } from './candidates'
import { taggedEncoding } from './priors'
import type { FrameStatistics } from './statistics'

/** A finished picture is shown as its codes are: the reading that the usual display undoes. */
export const asItLooks = 'gamma-2.4'

/** How sure an encoding has to be to be applied by itself. */
export const sureAt = 0.9
/** From this probability on that the picture is not meant to be seen as it is, a person is asked. */
const askedFrom = 0.3
const mostOffers = 3

/** A picture through an encoding, in numbers that tell ruin from a picture. */
export interface PictureThrough {
  /** Share of samples with a channel clearly below zero in BT.709. */
  readonly outOfGamut: number
  /** Share of samples whose brightest channel lies under the encoding's black, where no light can be. */
  readonly underBlack: number
  /** Share of samples over six stops from middle grey, or at the top of what the encoding holds. */
  readonly clipped: number
  /** Mean distance from neutral, 0..1. */
  readonly saturation: number
  /** The middle tone in stops from middle grey. */
  readonly middleStops: number
}

/** What a sane picture stays within; a night is dark and a flower colourful, and both pass. */
export const saneBounds = {
  outOfGamut: 0.25,
  underBlack: 0.02,
  clipped: 0.12,
  saturation: 0.7,
  darkest: -5,
  brightest: 2.5,
} as const

export function pictureThrough(
  encoding: Pick<Encoding, 'curve' | 'gamutIds'>,
  { samples }: Pick<FrameStatistics, 'samples'>,
): PictureThrough {
  const m = gamutToGamut(gamutById(encoding.gamutIds[0]), gamutById('bt709'))
  const { decode, encode } = encoding.curve
  const top = decode(1) * 0.99
  const black = encode(0) - 0.006
  const count = samples.length / 3
  const luminance = new Float64Array(count)
  let outOfGamut = 0
  let clipped = 0
  let underBlack = 0
  let saturation = 0
  for (let p = 0, i = 0; p < count; p++, i += 3) {
    const light = [decode(samples[i]), decode(samples[i + 1]), decode(samples[i + 2])] as const
    const [r, g, b] = [0, 3, 6].map((row) => m[row] * light[0] + m[row + 1] * light[1] + m[row + 2] * light[2]) as [
      number,
      number,
      number,
    ]
    const most = Math.max(r, g, b)
    const least = Math.min(r, g, b)
    luminance[p] = 0.2126 * r + 0.7152 * g + 0.0722 * b
    if (Math.max(samples[i], samples[i + 1], samples[i + 2]) < black) underBlack++
    if (least < -0.05 * Math.max(most, 0.01)) outOfGamut++
    if (most > middleGrey * 64 || Math.max(...light) >= top) clipped++
    if (most > 1e-4) saturation += Math.min(1, (most - Math.max(0, least)) / most)
  }
  luminance.sort()
  return {
    outOfGamut: outOfGamut / count,
    clipped: clipped / count,
    underBlack: underBlack / count,
    saturation: saturation / count,
    middleStops: Math.log2(Math.max(luminance[count >> 1], 1e-6) / middleGrey),
  }
}

export const isSane = ({ outOfGamut, underBlack, clipped, saturation, middleStops }: PictureThrough): boolean =>
  outOfGamut <= saneBounds.outOfGamut &&
  underBlack <= saneBounds.underBlack &&
  clipped <= saneBounds.clipped &&
  saturation <= saneBounds.saturation &&
  middleStops >= saneBounds.darkest &&
  middleStops <= saneBounds.brightest

export interface Offer {
  readonly encodingId: string
  readonly name: string
  /** Of the encoding with all that this picture cannot tell from it. */
  readonly probability: number
}

export interface Opening {
  readonly encodingId: string
  readonly because: 'tag' | 'sure' | 'as it looks'
  /** The picture may well not be meant to be seen as it is: which of the offers it is, only a person knows. */
  readonly asks: boolean
  readonly offers: readonly Offer[]
}

const isDisplay = (encoding: Encoding): boolean => kindOf(encoding) === 'display gamma'

/** What a medium opens by whose pixels were not looked at: by its tag, where that names anything but plain video. */
export function openingByTag(transfer: string | undefined): string {
  const tagged = taggedEncoding(transfer)
  return tagged === undefined || isDisplay(encodingById(tagged)) ? asItLooks : tagged
}

interface OpeningQuestion {
  readonly groups: readonly {
    readonly probability: number
    readonly members: readonly { encodingId: string; name: string; probability: number }[]
  }[]
  readonly kinds: ReadonlyMap<string, number>
  readonly taggedId: string | null
  readonly encodingOf: (id: string) => Encoding
}

/** Throws nothing: what is not sure stays as it looks. */
export function openingOf(
  { groups, kinds, taggedId, encodingOf }: OpeningQuestion,
  statistics: Pick<FrameStatistics, 'samples'>,
): Opening {
  if (taggedId !== null)
    return {
      encodingId: isDisplay(encodingOf(taggedId)) ? asItLooks : taggedId,
      because: 'tag',
      asks: false,
      offers: [],
    }
  // One offer for each group that holds something else than plain video, by its likeliest member.
  const offers: Offer[] = []
  for (const { members } of groups) {
    const others = members.filter((m) => !isDisplay(encodingOf(m.encodingId)))
    const [first] = [...others].sort((a, b) => b.probability - a.probability)
    if (!first || offers.some((o) => o.encodingId === first.encodingId)) continue
    offers.push({
      encodingId: first.encodingId,
      name: first.name,
      probability: others.reduce((sum, m) => sum + m.probability, 0),
    })
    if (offers.length === mostOffers) break
  }
  const flat = 1 - (kinds.get('display gamma') ?? 0)
  const [best] = [...offers].sort((a, b) => b.probability - a.probability)
  // A flat gamma is nobody's: it stands for all flat profiles that have no name, and those are asked about.
  const hasName = best !== undefined && kindOf(encodingOf(best.encodingId)) !== 'flat gamma'
  if (hasName && best.probability >= sureAt && isSane(pictureThrough(encodingOf(best.encodingId), statistics)))
    return { encodingId: best.encodingId, because: 'sure', asks: false, offers }
  return { encodingId: asItLooks, because: 'as it looks', asks: flat >= askedFrom && offers.length > 0, offers }
}
