// One reading: a measured number with its standing, its evidence and its sentence.
import type { Area } from './picture'
import { printValue, readingKind, unitForm, type ReadingId } from './kinds'
import type { Cast } from './white'
import { stepsOutside, verdictOf, type HouseStandard, type Target, type Verdict } from './standards'

/** What a measurement found, before it is held against a standard. */
export interface Finding {
  readonly id: ReadingId
  /** In the kind's carried unit. */
  readonly value: number
  /** How sure the measurement is of itself, 0..1. Under a third it is not judged. */
  readonly confidence: number
  /** Whose reading it is, where there may be several: the subject's name. */
  readonly of?: string
  /** More of it in words: direction, largest patch, tones. */
  readonly detail: string
  /** Where in the frame it rests. */
  readonly area?: Area
  /** Some of the places it rests on, where they are many small ones. */
  readonly places?: readonly Area[]
  /** Of casts: in which direction. */
  readonly cast?: Pick<Cast, 'mired' | 'duv'>
  /** The finding itself says that something is wrong, whatever the standard. */
  readonly alarm?: boolean
}

export interface Reading extends Finding {
  readonly name: string
  readonly target: Target | null
  readonly verdict: Verdict | null
  /** The number first, then what is wanted. */
  readonly sentence: string
  /** Steps outside the target; what is ranked by. */
  readonly weight: number
}

/** What tells a reading from another, where there are several subjects. */
export const readingKey = (r: Pick<Finding, 'id' | 'of'>): string => (r.of ? `${r.id} ${r.of}` : r.id)

/** The keys of readings that are waived, with the reason of each. */
export const waivedKeys = (
  waivers: readonly { readonly reading: string; readonly subject: string; readonly reason: string }[],
): ReadonlyMap<string, string> =>
  new Map(
    waivers.map(({ reading, subject, reason }) => [
      readingKey({ id: reading as ReadingId, ...(subject ? { of: subject } : {}) }),
      reason,
    ]),
  )

const leastConfidence = 1 / 3

/**
 * Holds findings against a standard and ranks them: what is furthest outside first, then what is met, then what has no
 * target.
 */
export function judge(findings: readonly Finding[], standard: HouseStandard): readonly Reading[] {
  const noWhite = findings.some((f) => f.id === 'noWhite' && f.alarm)
  const noBlack = findings.some((f) => f.id === 'noBlack' && f.alarm)
  return findings.map((finding) => judgeOne(finding, standard, noWhite, noBlack)).sort((a, b) => rankOf(b) - rankOf(a))
}

const rankOf = (r: Reading): number => {
  if (r.weight > 0) return 10 + r.weight * r.confidence
  if (r.alarm) return 5
  if (r.verdict === 'met') return 1
  return 0
}

function judgeOne(finding: Finding, standard: HouseStandard, noWhite: boolean, noBlack: boolean): Reading {
  const { id, value, confidence, of } = finding
  const kind = readingKind(id)
  const name = of ? `${kind.name}, ${of}` : kind.name
  const wanted = standard.targets[id] ?? null
  const unsure = confidence < leastConfidence
  // Where the scene holds no white or no black, a stretch is not asked for.
  const spared =
    (id === 'white' && noWhite && wanted !== null && value < wanted.low) ||
    (id === 'black' && noBlack && wanted !== null && value > wanted.high)
  const target = unsure || spared ? null : wanted
  const verdict = verdictOf(value, target)
  const weight = target ? stepsOutside(id, value, target) : 0
  return {
    ...finding,
    name,
    target,
    verdict,
    weight,
    sentence: sentenceOf(name, finding, wanted, verdict, { spared, unsure }),
  }
}

function sentenceOf(
  name: string,
  { id, value, detail }: Finding,
  wanted: Target | null,
  verdict: Verdict | null,
  { spared, unsure }: { readonly spared: boolean; readonly unsure: boolean },
): string {
  const { unit } = readingKind(id)
  const { after } = unitForm(unit)
  const gap = after === '°' || after === '×' ? '' : ' '
  const parts = [`${name}: ${printValue(value, unit)}${gap}${after}.`]
  if (detail) parts.push(detail)
  if (wanted) {
    const range =
      wanted.low === 0 && id !== 'black'
        ? `at most ${printValue(wanted.high, unit)}`
        : `${printValue(wanted.low, unit)} to ${printValue(wanted.high, unit)}`
    if (unsure) parts.push('Too uncertain to be judged.')
    else if (spared)
      parts.push(`The standard's ${range}${gap}${after} is not asked for: the scene holds no true ${id}.`)
    else
      parts.push(
        verdict === 'met'
          ? `Within the standard's ${range}${gap}${after}.`
          : `The standard wants ${range}${gap}${after}.`,
      )
  }
  return parts.join(' ')
}

/** The readings that lie outside their targets. */
export const outside = (readings: readonly Reading[]): readonly Reading[] => readings.filter((r) => r.weight > 0)

/**
 * The cast of the light as far as it is known: by a picked card, else by the greys found; null where both are unsure.
 */
export function knownCast(findings: readonly Finding[]): Pick<Cast, 'mired' | 'duv'> | null {
  const by = (id: 'cardWhite' | 'neutrals'): Finding | undefined =>
    findings.find((f) => f.id === id && f.cast && f.confidence >= leastConfidence)
  return by('cardWhite')?.cast ?? by('neutrals')?.cast ?? null
}
