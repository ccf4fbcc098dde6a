// The guess: every candidate weighed by a model that was taught on made-up scenes, alike ones put into one group, and
// the evidence said in sentences.
import { middleGrey } from '../colour'
import type { CodeRange } from '../image'
import { candidatesFor, kindOf, otherRange, rereadCode, type Candidate, type FootageKind } from './candidates'
import { featureNames, featureRows, measureFacts, type Facts } from './features'
import model from './model.json'
import type { Sight } from './sights'
import { measureStatistics, type FrameStatistics } from './statistics'

/** What a file says about itself; what it does not say is left out. */
export interface ColourTags {
  readonly transfer?: string
  readonly primaries?: string
  readonly matrix?: string
  readonly range?: CodeRange
}

export interface RankedCandidate {
  readonly encodingId: string
  readonly name: string
  readonly range: CodeRange
  /** 0..1 over all candidates. */
  readonly probability: number
  readonly facts: Facts
  readonly evidence: readonly string[]
}

/**
 * Encodings whose decoded pictures differ by less than a quarter stop over the tones in use: no picture can tell them
 * apart.
 */
export interface GuessGroup {
  readonly members: readonly RankedCandidate[]
  readonly probability: number
}

export interface Guess {
  readonly kind: FootageKind
  readonly kindProbability: number
  readonly groups: readonly GuessGroup[]
  readonly ranked: readonly RankedCandidate[]
  readonly range: {
    readonly flagged: CodeRange
    /** The likelier of the two, and how likely the one is that the file does not state. */
    readonly likely: CodeRange
    readonly otherProbability: number
    /** The one not stated is likely enough to look into. */
    readonly conflict: boolean
  }
  /** What the file's tags name, when they name an encoding; they come first where the pixels do not object. */
  readonly tagged: { readonly encodingId: string; readonly agrees: boolean } | null
  readonly sentences: readonly string[]
}

const encodingOfTransfer: Readonly<Record<string, string>> = {
  'arib-std-b67': 'hlg',
  smpte2084: 'pq',
  'iec61966-2-1': 'srgb',
  gamma22: 'gamma-2.2',
  linear: 'linear',
}
/** The encoding that a transfer tag names; undefined for tags that cameras also put on their logs. */
export const taggedEncoding = (transfer: string | undefined): string | undefined => encodingOfTransfer[transfer ?? '']

/**
 * Guesses the encoding of a picture, or of places of a clip, whose codes were read by the range that the file states.
 * Frames that follow each other say most: what changes between them is noise, and noise shows the slope of the curve.
 * Throws RangeError for no picture and for pictures under 24×24 pixels.
 */
export function guessEncoding(sights: readonly Sight[], flagged: CodeRange, tags: ColourTags = {}): Guess {
  const statistics = measureStatistics(sights)
  const candidates = candidatesFor(flagged)
  const facts = candidates.map((c) => measureFacts(c, statistics, flagged))
  const taggedId = taggedEncoding(tags.transfer)
  const byPixels = weigh(featureRows(candidates, facts, statistics, flagged))
  const tagAgrees =
    candidates.reduce((sum, c, i) => sum + (c.encoding.id === taggedId ? byPixels[i] : 0), 0) > objection
  const probabilities = tagAgrees
    ? believed(
        byPixels,
        candidates.map((c) => c.encoding.id === taggedId),
      )
    : byPixels
  const all = candidates
    .map((candidate, i) => ({ candidate, facts: facts[i], probability: probabilities[i] }))
    .sort((a, b) => b.probability - a.probability)
  const ranked = all.map(({ candidate, facts: f, probability }): RankedCandidate => ({
    encodingId: candidate.encoding.id,
    name: candidate.encoding.name,
    range: candidate.range,
    probability,
    facts: f,
    evidence: evidenceOf(candidate, f),
  }))
  const groups = groupAlike(
    ranked,
    all.map((a) => a.candidate),
    statistics,
    flagged,
  )
  const { kind, probability: kindProbability } = likeliestKind(all)
  const range = judgeRange(ranked, flagged)
  const tagged = taggedId === undefined ? null : { encodingId: taggedId, agrees: tagAgrees }
  return {
    kind,
    kindProbability,
    groups,
    ranked,
    range,
    tagged,
    sentences: sentencesOf({ kind, kindProbability, groups, range, tagged }, statistics),
  }
}

/** Below this the pixels object to what a tag says. */
const objection = 0.02
/** How much likelier a tag makes what it names, where the pixels do not object. */
const tagWeight = 100

function believed(probabilities: readonly number[], named: readonly boolean[]): readonly number[] {
  const weighed = probabilities.map((p, i) => (named[i] ? p * tagWeight : p))
  const total = weighed.reduce((a, b) => a + b, 0)
  return weighed.map((p) => p / total)
}

interface Model {
  readonly features: readonly string[]
  readonly temperature: number
  readonly linear: readonly number[]
  readonly units: readonly { readonly bias: number; readonly out: number; readonly weights: readonly number[] }[]
}

/** Softmax over the candidates of the model's score: a weighted sum of the features plus a few bent ones. */
function weigh(rows: readonly Float64Array[]): readonly number[] {
  const { features, temperature, linear, units } = model as Model
  if (features.length !== featureNames.length || features.some((name, i) => name !== featureNames[i]))
    throw new RangeError('The model was taught on other features; teach it anew.')
  const weighed = (row: Float64Array, weights: readonly number[]): number =>
    weights.reduce((sum, w, d) => sum + w * row[d], 0)
  const scores = rows.map(
    (row) =>
      (weighed(row, linear) + units.reduce((sum, u) => sum + u.out * Math.tanh(weighed(row, u.weights) + u.bias), 0)) /
      temperature,
  )
  const most = Math.max(...scores)
  const shares = scores.map((s) => Math.exp(s - most))
  const total = shares.reduce((a, b) => a + b, 0)
  return shares.map((s) => s / total)
}

function likeliestKind(all: readonly { candidate: Candidate; probability: number }[]): {
  kind: FootageKind
  probability: number
} {
  const sums = new Map<FootageKind, number>()
  for (const { candidate, probability } of all)
    sums.set(kindOf(candidate.encoding), (sums.get(kindOf(candidate.encoding)) ?? 0) + probability)
  const [kind, probability] = [...sums].sort((a, b) => b[1] - a[1])[0] ?? ['camera log', 0]
  return { kind, probability }
}

/** A wrong flag spoils every tone, so it is spoken of while it is still the less likely of the two. */
const suspicion = 0.25

function judgeRange(ranked: readonly RankedCandidate[], flagged: CodeRange): Guess['range'] {
  const other = ranked.filter((r) => r.range !== flagged).reduce((s, r) => s + r.probability, 0)
  return {
    flagged,
    likely: other > 0.5 ? otherRange(flagged) : flagged,
    otherProbability: other,
    conflict: other > suspicion,
  }
}

/** Largest difference allowed inside a group, in stops, after the best shift of exposure. */
export const groupStops = 0.25

/** Groups of candidates that decode this picture alike, each about the one that gathers most probability around it. */
function groupAlike(
  ranked: readonly RankedCandidate[],
  candidates: readonly Candidate[],
  statistics: FrameStatistics,
  flagged: CodeRange,
): readonly GuessGroup[] {
  const codes = tonesInUse(statistics)
  const stops = candidates.map((c) => decodedStops(c, codes, flagged))
  const alike = stops.map((a) => stops.flatMap((b, i) => (differenceAfterShift(a, b) < groupStops ? [i] : [])))
  const free = new Set(ranked.keys())
  const groups: GuessGroup[] = []
  const massAbout = (leader: number): number =>
    (alike[leader] ?? []).reduce((sum, i) => sum + (free.has(i) ? ranked[i].probability : 0), 0)
  while (free.size > 0) {
    let leader = -1
    let most = -1
    for (const i of free) {
      const mass = massAbout(i)
      if (mass > most) [leader, most] = [i, mass]
    }
    const members = (alike[leader] ?? []).filter((i) => free.has(i))
    for (const i of members) free.delete(i)
    groups.push({ members: members.map((i) => ranked[i]), probability: most })
  }
  return groups
}

/** Codes from the 1st to the 99th percentile of green, evenly by share. */
function tonesInUse({ samples }: FrameStatistics): readonly number[] {
  const green = Float64Array.from({ length: samples.length / 3 }, (_, p) => samples[p * 3 + 1]).sort()
  return Array.from({ length: 25 }, (_, i) => green[Math.floor((0.01 + (0.98 * i) / 24) * (green.length - 1))])
}

const floorLight = middleGrey * 2 ** -9
function decodedStops({ encoding, range }: Candidate, codes: readonly number[], flagged: CodeRange): readonly number[] {
  return codes.map((code) =>
    Math.log2(Math.max(encoding.curve.decode(rereadCode(code, flagged, range)), floorLight) / middleGrey),
  )
}

/** Half the spread of the differences: what remains at the worst tone after the best common shift. */
export function differenceAfterShift(a: readonly number[], b: readonly number[]): number {
  const differences = a.map((v, i) => v - b[i])
  return (Math.max(...differences) - Math.min(...differences)) / 2
}

const inStops = (light: number): string => {
  if (light <= 0) return 'below black'
  const stops = Math.log2(light / middleGrey)
  return `${stops >= 0 ? '+' : '−'}${Math.abs(stops).toFixed(1)} stops`
}
const percent = (share: number): string => `${(share * 100).toFixed(share < 0.0995 ? 1 : 0)} %`

function evidenceOf({ encoding, range }: Candidate, f: Facts): readonly string[] {
  const [darkest = 0, , , middle = 0, , , brightest = 0] = f.light
  const out: string[] = []
  if (f.underBlack > 0.001)
    out.push(`${percent(f.underBlack)} of the codes lie under its black, where no light can be.`)
  else if (f.blackGapCodes < 6)
    out.push(`The darkest tones touch its black (code ${Math.round(encoding.curve.encode(0) * 1023)}).`)
  else out.push(`The darkest tones lie ${Math.round(f.blackGapCodes)} codes over its black.`)
  if (f.overTop > 0.001) out.push(`${percent(f.overTop)} of the codes lie over its highest.`)
  out.push(`Darkest ${inStops(darkest)}, middle ${inStops(middle)}, brightest ${inStops(brightest)} from grey.`)
  if (Number.isFinite(f.noise.misfit))
    out.push(
      f.noise.misfit < 0.01
        ? "Its noise grows with light as a sensor's does."
        : `Its noise departs from a sensor's by ×${Math.exp(Math.sqrt(f.noise.misfit) / 2).toFixed(2)}.`,
    )
  if (Number.isFinite(f.driftDark) && f.driftDark > 0.6) out.push('Shaded surfaces change colour in the dark.')
  out.push(`Saturation ${Math.round(f.saturation * 100)} %; pictures usually lie between 15 and 45 %.`)
  if (range === 'legal') out.push('Read as legal range.')
  return out
}

function sentencesOf(
  {
    kind,
    kindProbability,
    groups,
    range,
    tagged,
  }: Pick<Guess, 'kind' | 'kindProbability' | 'groups' | 'range' | 'tagged'>,
  { noiseTold }: FrameStatistics,
): readonly string[] {
  const out: string[] = []
  if (tagged)
    out.push(
      tagged.agrees
        ? `The file itself says ${tagged.encodingId}, and the pixels do not object.`
        : `The file says ${tagged.encodingId}, but the pixels do not look like it.`,
    )
  const [best] = groups
  const all = groups.reduce((n, g) => n + g.members.length, 0)
  if (best && best.members.length > all * 0.6) {
    out.push('This picture holds too few tones to tell encodings apart: choose a frame with dark and bright parts.')
    return out
  }
  if (best) {
    const names = [
      ...new Set(best.members.filter((m) => m.probability > 0.02 || m === best.members[0]).map((m) => m.name)),
    ]
    const alike =
      names.length > 1
        ? `${names.slice(0, 4).join(', ')}${names.length > 4 ? ' and others' : ''}: no picture can tell them apart`
        : names[0]
    out.push(`${Math.round(best.probability * 100)} %: ${alike}.`)
    if (best.probability < 0.6)
      out.push(
        'This is uncertain: a grey scale, a card at several exposures, or the data sheet would settle ' +
          `it.${noiseTold === 'place' ? ' A clip would say more than one picture.' : ''}`,
      )
    if (noiseTold === 'spoilt')
      out.push('Compression has changed the noise of this clip, so it says nothing of the curve.')
  }
  out.push(`${Math.round(kindProbability * 100)} % sure that it is ${kind === 'camera log' ? 'a camera log' : kind}.`)
  if (range.conflict)
    out.push(
      `The file says ${range.flagged} range, but its codes ` +
        `${range.otherProbability > 0.5 ? 'look like' : 'may be'} ${otherRange(range.flagged)} range ` +
        `(${Math.round(range.otherProbability * 100)} %).`,
    )
  return out
}
