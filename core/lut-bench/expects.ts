// What a LUT expects: is it a look, with a display picture in and out, or does it contain the conversion from a
// camera's encoding, and from which. Every encoding is tried in two ways: as a known conversion with a plain look on
// top, and by whatever curve the LUT's own greys tell; a look is tried as no conversion. What is left over decides.
import { encodingById, encodings, middleGrey, type Encoding } from '../colour'
import { applyLut, type Lut } from '../luts'
import { curveAt, curvePlaces, fitFreeCurve, greyRow, type FreeFit } from './free-curve'
import { knownEvidence, type Explained, type KnownEvidence } from './known-conversions'
import { coloursOffGrey } from './probe-colours'
import { technicalOf } from './technical'

export interface SourceCandidate {
  readonly encodingId: string
  readonly gamutId: string
  /**
   * What is left between the LUT and this conversion with a plain look on top: root mean square, in % of the signal.
   */
  readonly residualPercent: number
  /** How far that look moves colours: root mean square, in % of the signal. */
  readonly lookPercent: number
}

export interface Expectation {
  /** technical: it changes the range, the display gamma, or a display picture to HDR, and nothing else. */
  readonly kind: 'look' | 'conversion' | 'technical'
  /** 0..1: how sure that is. */
  readonly certainty: number
  /** Sources of a conversion, the best first; empty for a look. */
  readonly sources: readonly SourceCandidate[]
  /** The sources that cannot be told from the best by what the LUT does, itself included. */
  readonly alike: readonly string[]
  /** True when only one source fits, and fits well. */
  readonly certain: boolean
  readonly sentences: readonly string[]
}

/** A source with the cheapest of its explanations, its cost and what it leaves. */
interface Weighed {
  readonly encodingId: string
  readonly gamutId: string
  readonly cost: number
  readonly residual: number
  readonly look: number
  /** The conversion is the table itself. */
  readonly exact: boolean
}

// Prices and bounds, found on the tables that teach (tests/support/foreign-luts.ts, made-luts.ts).
/** A known conversion needs ten numbers of a look on each channel where it is not the table itself. */
const knownPrice = { look: 0.02, freedom: 0.006 } as const
/** Of a free curve: by the natural log of the saturation on top, and by how implausible its greys are. */
const freePrice = { saturation: 0.003, greys: 0.01, rare: 0.005 } as const
/** How much a known conversion that fits badly counts against a free curve that fits well. */
const mixed = 0.2
/** Where conversions put middle grey on a display, how much of a signal black may be lifted, and how far doubt goes. */
const plausible = { darkest: 0.34, brightest: 0.56, black: 0.06, per: 0.1 } as const
/** Made by programs alone, and so the rarer case. */
const rare = new Set(['acescc', 'acescct', 'linear'])
/** Sources that cost no more than this many times the best, and a little, cannot be told from it. */
const alikeWithin = { times: 1.15, plus: 0.0005 } as const
/** What has to lie between the best source and the next for the best to be certain, and what it may leave. */
const certainBy = { times: 1.6, plus: 0.004, residual: 0.008 } as const
/** What a look may leave, and how far it may move colours, to be certain. */
const certainLook = { cost: 0.012, moved: 0.15 } as const
// The log of cost without a conversion over cost with one, where looks end and conversions begin, and how fast doubt
// goes.
const turning = { at: 0.5, steepness: 10, floor: 0.004 } as const
/** Greys that come out within less than this say nothing. */
const leastSpan = 0.02
const displayIds = ['gamma-2.4', 'gamma-2.2', 'srgb'] as const

/** What a LUT was made for. Never certain where two sources fit. */
export function expectationOf(lut: Lut): Expectation {
  const evidence = knownEvidence(lut)
  const free = freeEvidence(lut)
  const ranked = weighSources(evidence, free)
  const [best, second] = ranked
  if ((!evidence.identity && !best) || free.greySpan < leastSpan) return nothing
  const technical = best?.exact ? null : technicalOf(lut)
  if (technical)
    return { ...nothing, kind: 'technical', certainty: 0.99, certain: true, sentences: [`It ${technical}.`] }
  const without = costOfLook(evidence.identity, free.identity)
  // A table that is a known conversion to its last entry is that, whatever else could explain it.
  const exact = best?.exact === true
  const chance = exact ? 0.999 : chanceOfConversion(evidence, best, without)
  if (!best || chance < 0.5) {
    // In the display's own gamut colours off grey say nothing: what sends a lifted black to black may be either.
    const either = free.crushesDarks && best !== undefined && best.cost < without + turning.floor
    const certainty = either ? Math.min(1 - chance, 0.6) : 1 - chance
    return {
      ...nothing,
      certainty,
      certain: certainty > 0.95 && without < certainLook.cost && (evidence.identity?.look ?? 1) < certainLook.moved,
      sentences: lookSentences(certainty, evidence.identity),
    }
  }
  const alike = ranked
    .filter((s) => s.cost <= best.cost * alikeWithin.times + alikeWithin.plus)
    .map((s) => s.encodingId)
  const apart = second === undefined || second.cost >= best.cost * certainBy.times + certainBy.plus
  const certain = chance > 0.95 && alike.length === 1 && (exact || (apart && best.residual < certainBy.residual))
  return {
    kind: 'conversion',
    certainty: chance,
    alike,
    certain,
    sources: ranked.slice(0, 8).map(({ encodingId, gamutId, residual, look }) => ({
      encodingId,
      gamutId,
      residualPercent: residual * 100,
      lookPercent: look * 100,
    })),
    sentences: conversionSentences(chance, ranked, alike, certain),
  }
}

/** 0..1, by what a look leaves over against what a conversion does. */
function chanceOfConversion({ identity, sources }: KnownEvidence, best: Weighed | undefined, without: number): number {
  const chance = (gap: number, at: number): number => 1 / (1 + Math.exp(-turning.steepness * (gap - at)))
  const byCurve = best ? chance(Math.log((without + turning.floor) / (best.cost + turning.floor)), turning.at) : 0
  if (without < byKnown.from) return byCurve
  // Where no plain look explains it, known conversions are asked as well, and far looks are dear.
  const cost = ({ residual, look, parted }: Explained): number =>
    residual + byKnown.look * look + Math.max(0, parted - 0.003) + 1e-4
  const least = Math.min(Infinity, ...sources.map(cost))
  return Math.max(byCurve, identity ? chance(Math.log(cost(identity) / least), byKnown.at) : 0)
}
const byKnown = { from: 0.006, look: 0.1, at: 0.33 } as const

const nothing: Expectation = {
  kind: 'look',
  certainty: 0,
  sources: [],
  alike: [],
  certain: false,
  sentences: ['It gives too few different colours to tell what it was made for.'],
}

interface FreeSourceFit extends FreeFit {
  readonly encodingId: string
  readonly gamutId: string
  readonly greyPenalty: number
}
interface FreeEvidence {
  readonly sources: readonly FreeSourceFit[]
  /** As a look on a display picture. */
  readonly identity: FreeFit | null
  /** From the darkest to the brightest grey, and whether the darkest twentieth of the codes all come out as one. */
  readonly greySpan: number
  readonly crushesDarks: boolean
}

function freeEvidence(lut: Lut): FreeEvidence {
  const colours = coloursOffGrey(lut.dimensions === 3 ? lut.size : 33)
  const out = colours.slice()
  applyLut(lut, out, 'tetrahedral')
  const greys = greyRow(lut)
  const luma = (code: number): number =>
    0.2126 * curveAt(greys, code, 0) + 0.7152 * curveAt(greys, code, 1) + 0.0722 * curveAt(greys, code, 2)
  const fits = (encoding: Encoding, gamutId: string): readonly FreeFit[] =>
    curvePlaces.flatMap((place) => fitFreeCurve(colours, out, greys, { encoding, gamutId }, place) ?? [])
  const sources = encodings
    .filter((e) => e.group !== 'display')
    .flatMap((encoding): readonly FreeSourceFit[] => {
      const grey = luma(encoding.curve.encode(middleGrey))
      const black = luma(encoding.curve.encode(0)) - luma(0)
      const off = Math.max(0, plausible.darkest - grey, grey - plausible.brightest)
      const greyPenalty = (off + Math.max(0, black - plausible.black)) / plausible.per
      return encoding.gamutIds.flatMap((gamutId) =>
        fits(encoding, gamutId).map((fit) => ({ ...fit, encodingId: encoding.id, gamutId, greyPenalty })),
      )
    })
  const [identity = null] = displayIds
    .flatMap((id) => fits(encodingById(id), 'bt709'))
    .sort((a, b) => costOfFree(a) - costOfFree(b))
  const lumas = Array.from({ length: 41 }, (_, i) => luma(i / 40))
  const darkest = Math.min(...lumas)
  return {
    sources,
    identity,
    greySpan: Math.max(...lumas) - darkest,
    crushesDarks: luma(0.05) < darkest + 0.02,
  }
}

const costOfFree = ({ residual, saturation }: FreeFit): number =>
  residual + freePrice.saturation * Math.abs(Math.log(Math.max(saturation, 0.05)))
const costOfKnown = ({ residual, look, parted }: Explained): number =>
  residual + knownPrice.look * look + Math.max(0, parted - 0.003) + (residual > 0 ? knownPrice.freedom : 0)

function costOfLook(known: Explained | null, free: FreeFit | null): number {
  if (free) return costOfFree(free)
  return known ? costOfKnown(known) : Infinity
}

/** Every encoding with the cheaper of its two explanations, the cheapest first. */
function weighSources({ sources }: KnownEvidence, free: FreeEvidence): readonly Weighed[] {
  const known = cheapest(
    sources.map((s) => ({
      encodingId: s.encodingId,
      gamutId: s.gamutId,
      residual: s.residual,
      look: s.look,
      exact: s.residual === 0,
      cost: costOfKnown(s),
    })),
  )
  const least = Math.min(0.5, ...[...known.values()].map((s) => s.cost))
  const byCurve = cheapest(
    free.sources.map((s) => ({
      encodingId: s.encodingId,
      gamutId: s.gamutId,
      residual: s.residual,
      look: s.look,
      exact: false,
      cost:
        costOfFree(s) +
        freePrice.greys * s.greyPenalty +
        (rare.has(s.encodingId) ? freePrice.rare : 0) +
        mixed * ((known.get(s.encodingId)?.cost ?? least + 0.05) - least),
    })),
  )
  return [...cheapest([...known.values(), ...byCurve.values()]).values()].sort((a, b) => a.cost - b.cost)
}

function cheapest(all: readonly Weighed[]): ReadonlyMap<string, Weighed> {
  const best = new Map<string, Weighed>()
  for (const s of all) if (s.cost < (best.get(s.encodingId)?.cost ?? Infinity)) best.set(s.encodingId, s)
  return best
}

const percent = (v: number): string => `${(v * 100).toFixed(v < 0.1 ? 2 : 0)} %`
function lookSentences(certainty: number, identity: Explained | null): readonly string[] {
  const moved = identity
    ? `It moves colours by ${percent(identity.look)} of the signal.`
    : 'It moves colours too far to be followed.'
  return [`${percent(certainty)} sure: a look. It takes a display picture and gives one back.`, moved]
}
function conversionSentences(
  chance: number,
  [first, second]: readonly Weighed[],
  alike: readonly string[],
  certain: boolean,
): readonly string[] {
  if (!first) return ['It contains a conversion, from an encoding that is not known here.']
  const name = encodingById(first.encodingId).name
  const rest =
    `${percent(first.residual)} of the signal is left ` +
    `over${first.look > 0.002 ? `, with a look on top that moves colours by ${percent(first.look)}` : ''}.`
  const head = `${percent(chance)} sure: it contains a conversion.`
  if (certain) {
    const next = second ? ` The next, ${encodingById(second.encodingId).name}, leaves ${percent(second.residual)}.` : ''
    return [head, `Made for ${name}: ${rest}${next}`]
  }
  if (alike.length > 1)
    return [
      head,
      `Most like ${name}: ${rest}`,
      `It could as well be made for ${alike
        .slice(1)
        .map((id) => encodingById(id).name)
        .join(', ')}: what it does cannot tell them apart.`,
    ]
  return [head, `Most like ${name}, but not surely: ${rest}`]
}
