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
  /** The part of it that can be helped, where that is less: this is held against the target. */
  readonly counted?: number
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
  /** Something is wrong that no grade can help: it is ranked by these steps and never counts as outside. */
  readonly gravity?: number
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

/** A reading as waivers name it: `subject` is empty where it is of the whole picture. */
interface Waivable {
  readonly reading: string
  readonly subject: string
}
export const waivableKey = ({ reading, subject }: Waivable): string =>
  readingKey({ id: reading as ReadingId, ...(subject ? { of: subject } : {}) })

/** The keys of readings that are waived, with the reason of each. */
export const waivedKeys = (waivers: readonly (Waivable & { readonly reason: string })[]): ReadonlyMap<string, string> =>
  new Map(waivers.map((waiver) => [waivableKey(waiver), waiver.reason]))

const leastConfidence = 1 / 3

/**
 * Holds findings against a standard and ranks them: what is furthest outside first, then what is met, then what has no
 * target.
 */
export function judge(findings: readonly Finding[], standard: HouseStandard): readonly Reading[] {
  return findings
    .map((finding) => judgeOne(finding, standard.targets[finding.id] ?? null, whySpared(finding, findings)))
    .sort((a, b) => rankOf(b) - rankOf(a))
}

/** Casts this near to each other are one cast: steps of a Duv ×10³, and of two and a half mired. */
const oneCast = 3
const isToneCast = (id: ReadingId): boolean => id === 'castBlacks' || id === 'castMids' || id === 'castWhites'

interface Spared {
  /** The side of the target that is not asked for. */
  readonly side: Verdict
  readonly why: string
}

/** Why a target is not asked for of this finding; null where it is. */
function whySpared({ id, cast }: Finding, findings: readonly Finding[]): Spared | null {
  const alarmed = (of: ReadingId): boolean => findings.some((f) => f.id === of && f.alarm)
  if (id === 'white' && alarmed('noWhite')) return { side: 'low', why: 'the scene holds no true white' }
  if (id === 'black' && alarmed('noBlack')) return { side: 'high', why: 'the scene holds no true black' }
  // A cast of the whole picture is told once.
  const whole = isToneCast(id) ? findings.find((f) => f.id === 'neutrals')?.cast : undefined
  if (!whole || !cast) return null
  const apart = Math.hypot((cast.mired - whole.mired) * 0.4, (cast.duv - whole.duv) * 1000)
  return apart <= oneCast ? { side: 'high', why: 'it is that of the whole picture' } : null
}

const strongCast = 7
const rankOf = (r: Reading): number => {
  if (r.weight > 0) return 10 + r.weight * r.confidence
  if (r.gravity) return 10 + r.gravity
  if (r.alarm) return 5
  // A strong cast that is not sure is no verdict, yet worth a look.
  if (r.id === 'neutrals' && r.verdict === null && r.value > strongCast) return 2
  if (r.verdict === 'met') return 1
  return 0
}

function judgeOne(finding: Finding, wanted: Target | null, sparing: Spared | null): Reading {
  const { id, value, counted = value, confidence, of } = finding
  const kind = readingKind(id)
  const name = of ? `${kind.name}, ${of}` : kind.name
  const unsure = confidence < leastConfidence
  const spared = sparing && verdictOf(counted, wanted) === sparing.side ? sparing.why : ''
  const target = unsure || spared ? null : wanted
  const verdict = verdictOf(counted, target)
  const weight = target ? stepsOutside(id, counted, target) : 0
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
  { spared, unsure }: { readonly spared: string; readonly unsure: boolean },
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
    else if (spared) parts.push(`The standard's ${range}${gap}${after} is not asked for: ${spared}.`)
    else
      parts.push(
        verdict === 'met'
          ? `Within the standard's ${range}${gap}${after}.`
          : `The standard wants ${range}${gap}${after}.`,
      )
  }
  return parts.join(' ')
}

/** The standard holds a target for it that this picture is not held to: by the scene, or as it cannot be helped. */
export const isSpared = ({ id, value, target, verdict }: Reading, { targets }: HouseStandard): boolean =>
  targets[id] !== undefined && (target === null || (verdict === 'met' && verdictOf(value, target) !== 'met'))

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
