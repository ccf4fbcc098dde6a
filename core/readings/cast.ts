// Casts: the greys of a picture are found as the colour of light that tones of every brightness share, and measured by
// tone.
import { workingGamut } from '../colour'
import { clamp } from '../numbers'
import { blocksOf, type Blocks } from './greys/blocks'
import { otherWays } from './greys/other-ways'
import { densest, settle, type Peak, type Settled } from './greys/shared-colour'
import type { Area, MeasuredPicture } from './picture'
import type { Finding } from './reading'
import { castOf, castWords, type Cast, type Uv } from './white'

export interface ToneCast extends Cast {
  readonly share: number
}
export interface Casts {
  /** Of all greys that were found; null where none are. */
  readonly all:
    | (ToneCast & {
        readonly confidence: number
        readonly doubt: string
        readonly area: Area
        readonly places: readonly Area[]
      })
    | null
  readonly blacks: ToneCast | null
  readonly mids: ToneCast | null
  readonly whites: ToneCast | null
}

/** Tones by luma: what the eye calls dark, middle and bright. */
const darkBelow = 0.25
const brightOver = 0.62

/** Finds the greys of the picture as it is shown and says how far they are from neutral, by tone. */
export function measureCasts(picture: MeasuredPicture): Casts {
  const s = blocksOf(picture)
  const none: Casts = { all: null, blacks: null, mids: null, whites: null }
  if (s.count < 200) return none
  const peak = densest(s)
  if (!peak) return none
  const all = settle(s, peak.at, 0, 1)
  if (!all) return none
  const tone = (low: number, high: number): ToneCast | null => {
    const found = settle(s, all.at, low, high)
    return found && { ...castOf(found.at, workingGamut), share: found.share }
  }
  const cast = castOf(all.at, workingGamut)
  const { confidence, doubt } = confidenceOf(s, peak, all)
  return {
    all: { ...cast, share: all.share, confidence, doubt, area: all.area, places: all.places },
    blacks: tone(0, darkBelow),
    mids: tone(darkBelow, brightOver),
    whites: tone(brightOver, 1),
  }
}

/** Brighter than this on the mean, a surface is white. */
const whiteLuma = 0.75
/** As near to the greys found as another way must come to agree with them. */
const agreesWithin = 0.008
const isNear = (a: Uv, b: Uv, reach: number): boolean => Math.hypot(a.u - b.u, a.v - b.v) < reach

interface Confidence {
  readonly confidence: number
  /** What speaks most against the greys found; empty where little does. */
  readonly doubt: string
}

/**
 * How sure it is that what was found is grey: no other colour is shared as widely, it stands in several places among
 * other colours, and other ways come to the same. The bounds were found on photographs (tests/guess/photographs.ts).
 */
function confidenceOf(blocks: Blocks, peak: Peak, found: Settled): Confidence {
  let alike = 0
  for (let i = 0; i < blocks.count; i++) if (isNear({ u: blocks.u[i], v: blocks.v[i] }, found.at, 0.016)) alike++
  const agreeing = otherWays(blocks).filter((uv) => isNear(uv, found.at, agreesWithin)).length
  const grounds = [
    { sure: clamp((0.9 - peak.rival) / 0.9, 0, 1), doubt: 'Another colour could as well be the grey.' },
    { sure: clamp((1 - alike / blocks.count) / 0.15, 0, 1), doubt: 'One colour fills the frame.' },
    { sure: Math.min(1, found.frame / 0.4), doubt: 'It lies in few places.' },
    { sure: Math.min(1, found.share / 0.02), doubt: 'It is little of the picture.' },
    // White needs no other tones beside it; a wall in one light may be of any colour.
    {
      sure: found.luma >= whiteLuma ? 1 : clamp((found.tones - 2) / 4, 0, 1),
      doubt: 'It has nearly one brightness, as one surface has.',
    },
    { sure: [0.2, 0.5][agreeing] ?? 1, doubt: 'Other ways to the light come to another answer.' },
  ]
  const confidence = grounds.reduce((product, { sure }) => product * sure, 1)
  const weakest = grounds.reduce((a, b) => (b.sure < a.sure ? b : a))
  return { confidence, doubt: confidence < 1 / 3 ? weakest.doubt : '' }
}

export function castFindings(picture: MeasuredPicture): readonly Finding[] {
  const { all, blacks, mids, whites } = measureCasts(picture)
  if (!all) return []
  const byTone = (
    [
      ['castBlacks', blacks],
      ['castMids', mids],
      ['castWhites', whites],
    ] as const
  ).flatMap(([id, cast]): Finding[] =>
    cast
      ? [
          {
            id,
            value: cast.distance,
            confidence: all.confidence * Math.min(1, cast.share / 0.01),
            detail: sentence(castWords(cast)),
            cast,
          },
        ]
      : [],
  )
  return [
    {
      id: 'neutrals',
      value: all.distance,
      confidence: all.confidence,
      detail: [`${(all.share * 100).toFixed(0)} % of the picture is near grey: ${castWords(all)}.`, all.doubt]
        .filter((words) => words !== '')
        .join(' '),
      area: all.area,
      places: all.places,
      cast: all,
    },
    ...byTone,
  ]
}
const sentence = (words: string): string => `${words[0]?.toUpperCase() ?? ''}${words.slice(1)}.`
