// The guess: every candidate weighed by a model that was taught on made-up scenes, alike ones put into one group, and
// the evidence said in sentences.
import { encodingById, middleGrey, type Encoding } from '../colour'
import type { CodeRange } from '../image'
import { candidatesFor, kindOf, otherRange, rereadCode, type Candidate, type FootageKind } from './candidates'
import { ceilingOf } from './ceiling'
import { featureNames, featureRows, measureFacts, type Facts } from './features'
import model from './model.json'
import { openingOf, type Opening } from './opening'
import { priorOf, taggedEncoding, type FileFacts } from './priors'
import type { Sight } from './sights'
import { measureStatistics, type FrameStatistics } from './statistics'

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
 * Encodings whose decoded pictures, once exposed alike, differ by less than a quarter stop over the tones in use: no
 * picture can tell them apart.
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
    /** The likelier of the two, and how much the codes by themselves speak for the one that the file does not state. */
    readonly likely: CodeRange
    readonly otherProbability: number
    /** They all but prove that one. */
    readonly conflict: boolean
  }
  /** The encoding that the file's tags name, where they name one: that is believed. */
  readonly taggedId: string | null
  /** How it is read at first. */
  readonly opening: Opening
  readonly codeCeiling: number
  readonly sentences: readonly string[]
}

/**
 * Guesses the encoding of a picture, or of places of a clip, whose codes were read by the range that the file states.
 * Frames that follow each other say most: what changes between them is noise, and noise shows the slope of the curve.
 * Throws RangeError for no picture and for pictures under 24×24 pixels.
 */
export function guessEncoding(
  sights: readonly Sight[],
  flagged: CodeRange,
  file: FileFacts,
  own: readonly Encoding[] = [],
): Guess {
  const statistics = measureStatistics(sights)
  const candidates = candidatesFor(flagged, file, own)
  const facts = candidates.map((c) => measureFacts(c, statistics, flagged))
  const byPixels = weigh(featureRows(candidates, facts, statistics, flagged))
  const taggedId = taggedEncoding(file.transfer)
  const probabilities = shared(
    candidates.map(
      ({ encoding, range }, i) =>
        byPixels[i] * priorOf(encoding, range === flagged, file) * (encoding.id === taggedId ? tagWeight : 1),
    ),
  )
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
  const kinds = kindsOf(all)
  const [kind, kindProbability] = [...kinds].sort((a, b) => b[1] - a[1])[0] ?? ['display gamma', 0]
  const range = judgeRange(candidates, byPixels, flagged)
  const byId = new Map(candidates.map(({ encoding }) => [encoding.id, encoding]))
  const opening = openingOf(
    { groups, kinds, taggedId: taggedId ?? null, encodingOf: (id) => byId.get(id) ?? encodingById(id) },
    statistics,
  )
  return {
    kind,
    kindProbability,
    groups,
    ranked,
    range,
    taggedId: taggedId ?? null,
    opening,
    // Cameras of one kind and setting share it.
    codeCeiling: ceilingOf(statistics.codeShares),
    sentences: sentencesOf({ kind, kindProbability, groups, range, taggedId: taggedId ?? null }, statistics),
  }
}

/**
 * How much likelier a tag makes what it names. Who writes HLG or PQ into a file knows it: pixels alone never overrule
 * that.
 */
const tagWeight = 1e6

function shared(weights: readonly number[]): readonly number[] {
  const total = weights.reduce((a, b) => a + b, 0)
  return weights.map((w) => w / total)
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

function kindsOf(all: readonly { candidate: Candidate; probability: number }[]): ReadonlyMap<FootageKind, number> {
  const sums = new Map<FootageKind, number>()
  for (const { candidate, probability } of all)
    sums.set(kindOf(candidate.encoding), (sums.get(kindOf(candidate.encoding)) ?? 0) + probability)
  return sums
}

/**
 * What a file states of its range is seldom wrong: it is doubted only where the codes by themselves speak for it. At
 * this, seven right flags in a thousand are doubted on teaching photographs that a model was not taught with.
 */
const suspicion = 0.75

function judgeRange(candidates: readonly Candidate[], byPixels: readonly number[], flagged: CodeRange): Guess['range'] {
  const other = candidates.reduce((sum, c, i) => sum + (c.range === flagged ? 0 : byPixels[i]), 0)
  const conflict = other > suspicion
  return { flagged, likely: conflict ? otherRange(flagged) : flagged, otherProbability: other, conflict }
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
    taggedId,
  }: Pick<Guess, 'kind' | 'kindProbability' | 'groups' | 'range' | 'taggedId'>,
  { noiseTold, noiseWhite }: FrameStatistics,
): readonly string[] {
  const out: string[] = []
  if (taggedId) out.push(`The file itself says ${taggedId}.`)
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
        ? `${names.slice(0, 4).join(', ')}${names.length > 4 ? ' and others' : ''}: ` +
          'but for exposure, no picture can tell them apart'
        : names[0]
    out.push(`${Math.round(best.probability * 100)} %: ${alike}.`)
    if (best.probability < 0.6)
      out.push(
        'This is uncertain: a grey scale, a card at several exposures, or the data sheet would settle ' +
          `it.${noiseTold === 'place' ? ' A clip would say more than one picture.' : ''}`,
      )
    if (noiseTold === 'spoilt' || noiseWhite < 0.6)
      out.push(
        'Compression has changed the noise of this clip, so it says ' +
          `${noiseTold === 'spoilt' ? 'nothing' : 'little'} of the curve.`,
      )
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
