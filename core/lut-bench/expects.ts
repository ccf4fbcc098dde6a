// What a LUT expects: is it a look, with a display picture in and out, or does it contain the conversion from a
// camera's encoding, and from which. Every known conversion is kept as colours; a LUT is explained by one of them with
// a plain look on top, or by no conversion at all, and what is left over decides.
import { Matrix, solve } from 'ml-matrix'
import { encodingById, encodings } from '../colour'
import { buildChain, defaultGrade, evaluateDirect, setShow, type GradeDocument } from '../grade'
import { applyLut, type Lut } from '../luts'

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
  readonly kind: 'look' | 'conversion'
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

const nowhere = { shares: new Float64Array(0), frameWidth: 1, frameHeight: 1 }

/**
 * The colours that are looked at: a row of greys, and small steps off each to every side, as RGB triples of code
 * values. They lie on the entries of a table of `size` per axis, so that what is measured is the table and not the
 * lines between its entries.
 */
const sides = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
  [-1, 0, 0],
  [0, -1, 0],
  [0, 0, -1],
  [1, 1, 0],
  [1, 0, 1],
  [0, 1, 1],
] as const
function probeColours(size: number): Pick<Known, 'colours' | 'greys'> {
  const last = size - 1
  const every = Math.max(1, Math.round(last / 40))
  const near = Math.max(1, Math.round(last * 0.03))
  const far = Math.max(near + 1, Math.round(last * 0.08))
  const out: number[] = []
  for (let i = 0; i <= last; i += every) out.push(i, i, i)
  const greys = out.length / 3
  for (let n = 0; n < greys; n++) {
    const i = out[n * 3]
    for (const d of [near, far]) for (const [r, g, b] of sides) out.push(i + r * d, i + g * d, i + b * d)
  }
  return { colours: Float64Array.from(out, (v) => Math.min(1, Math.max(0, v / last))), greys }
}

type Way = 'straight' | 'rolloff' | 'print'
interface Reference {
  readonly encodingId: string
  readonly gamutId: string
  readonly way: Way
  readonly displayId: string
  readonly signal: Float64Array
}
interface Known {
  readonly colours: Float64Array
  /** How many of them are greys, at the beginning. */ readonly greys: number
  readonly references: readonly Reference[]
}

const known = new Map<number, Known>()
/**
 * Every known camera encoding, in each gamut it is used with, shown in each of the usual ways on the usual displays.
 */
function knownFor(size: number): Known {
  const found = known.get(size)
  if (found) return found
  if (known.size >= 6) known.clear()
  const { colours, greys } = probeColours(size)
  const references = encodings
    .filter((e) => e.group !== 'display')
    .flatMap((e) =>
      e.gamutIds.flatMap((gamutId) =>
        (['straight', 'rolloff', 'print'] as const).flatMap((way) =>
          shownOn.map((displayId): Reference => {
            const grade: GradeDocument = setShow(defaultGrade(e.id, gamutId), { method: way, displayId })
            const signal = colours.slice()
            evaluateDirect(
              buildChain(grade, () => undefined),
              signal,
              nowhere,
            )
            return { encodingId: e.id, gamutId, way, displayId, signal }
          }),
        ),
      ),
    )
  const made = { colours, greys, references }
  known.set(size, made)
  return made
}
const shownOn = ['bt709-2.4', 'bt709-2.2', 'srgb', 'p3-d65'] as const

// A plain look: each channel a sum of these, of the channels and of luma.
const terms = 10
function termsOf(r: number, g: number, b: number, own: number, into: Float64Array): void {
  const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b
  into[0] = 1
  into[1] = r
  into[2] = g
  into[3] = b
  into[4] = own * own
  into[5] = own * own * own
  into[6] = luma * luma
  into[7] = luma * luma * luma
  into[8] = own * luma
  into[9] = own * own * luma
}

interface Explained {
  readonly residual: number
  readonly look: number
  readonly points: number
  /**
   * The largest step of the LUT between greys that the conversion makes one and the same: no look can part them again.
   */
  readonly parted: number
}

/** How well `out` is explained by a plain look over `from`; null where too few colours lie inside both. */
function explain(from: Float64Array, out: Float64Array, greys: number): Explained | null {
  const inside: number[] = []
  const count = from.length / 3
  for (let p = 0; p < count; p++) {
    let ok = true
    for (let c = p * 3; c < p * 3 + 3; c++)
      ok &&= from[c] > 0.015 && from[c] < 0.985 && out[c] > 0.004 && out[c] < 0.996
    if (ok) inside.push(p)
  }
  if (inside.length < 24) return null
  const row = new Float64Array(terms)
  let left = 0
  let moved = 0
  for (let c = 0; c < 3; c++) {
    // Ridge toward doing nothing: a look that is not needed is not found.
    const normal = Array.from({ length: terms }, () => new Array<number>(terms).fill(0))
    const right = new Array<number>(terms).fill(0)
    const ridge = inside.length * 1e-6
    for (let k = 0; k < terms; k++) normal[k][k] += ridge
    for (const p of inside) {
      const r = from[p * 3]
      const g = from[p * 3 + 1]
      const b = from[p * 3 + 2]
      const own = from[p * 3 + c]
      const wanted = out[p * 3 + c] - own
      termsOf(r, g, b, own, row)
      for (let k = 0; k < terms; k++) {
        for (let j = 0; j < terms; j++) normal[k][j] += row[k] * row[j]
        right[k] += row[k] * wanted
      }
    }
    const weights = solve(new Matrix(normal), Matrix.columnVector(right)).to1DArray()
    for (const p of inside) {
      const own = from[p * 3 + c]
      const wanted = out[p * 3 + c] - own
      termsOf(from[p * 3], from[p * 3 + 1], from[p * 3 + 2], own, row)
      let fitted = 0
      for (let k = 0; k < terms; k++) fitted += row[k] * weights[k]
      left += (wanted - fitted) ** 2
      moved += wanted ** 2
    }
  }
  return {
    residual: Math.sqrt(left / inside.length / 3),
    look: Math.sqrt(moved / inside.length / 3),
    points: inside.length,
    parted: partedGreys(from, out, greys),
  }
}

function partedGreys(from: Float64Array, out: Float64Array, greys: number): number {
  let most = 0
  for (let n = 0; n + 1 < greys; n++) {
    let same = true
    let step = 0
    for (let c = n * 3; c < n * 3 + 3; c++) {
      same &&= Math.abs(from[c] - from[c + 3]) < 1e-6
      step = Math.max(step, Math.abs(out[c] - out[c + 3]))
    }
    if (same) most = Math.max(most, step)
  }
  return most
}

interface Source extends Explained {
  readonly encodingId: string
  readonly gamutId: string
  readonly way: Way
  readonly displayId: string
}
interface Evidence {
  readonly identity: Explained | null
  readonly sources: readonly Source[]
}

/** Where the conversion is the LUT itself, to a few steps of 16 bits, no look is looked for. */
function exactly(from: Float64Array, out: Float64Array): boolean {
  for (let i = 0; i < out.length; i++) if (Math.abs(from[i] - out[i]) > 5e-4) return false
  return true
}

function gatherEvidence(lut: Lut): Evidence {
  const { colours, greys, references } = knownFor(lut.dimensions === 3 ? lut.size : 33)
  const out = colours.slice()
  applyLut(lut, out, 'tetrahedral')
  return {
    identity: explain(colours, out, greys),
    sources: references.flatMap(({ signal, ...of }): readonly Source[] => {
      if (exactly(signal, out)) return [{ ...of, residual: 0, look: 0, points: greys, parted: 0 }]
      // A look takes up the difference between display gammas.
      const found = of.displayId === 'bt709-2.4' ? explain(signal, out, greys) : null
      return found ? [{ ...found, ...of }] : []
    }),
  }
}

/** What is left over, with a price on how far the look has to move colours: small and plain explanations first. */
const cost = ({ residual, look, parted }: Explained, price: number): number =>
  residual + price * look + Math.max(0, parted - 0.003)
const kindPrice = 0.1
const sourcePrice = 0.02
/**
 * Sources that cost no more than this many times the best, and a little, cannot be told from it. Found on made LUTs;
 * see the test.
 */
const alikeWithin = { times: 1.5, plus: 0.0005 } as const
// The log of cost without a conversion over cost with one, where looks end and conversions begin, and how fast doubt
// goes.
const turning = { at: 0.33, steepness: 10 } as const

/** What a LUT was made for. Never certain where two sources fit. */
export function expectationOf(lut: Lut): Expectation {
  const { identity, sources } = gatherEvidence(lut)
  const withConversion = Math.min(Infinity, ...sources.map((s) => cost(s, kindPrice)))
  if (!identity && sources.length === 0)
    return {
      kind: 'look',
      certainty: 0,
      sources: [],
      alike: [],
      certain: false,
      sentences: ['It gives too few different colours to tell what it was made for.'],
    }
  const gap = identity ? Math.log((cost(identity, kindPrice) + 1e-4) / (withConversion + 1e-4)) : Infinity
  const chance = 1 / (1 + Math.exp(-turning.steepness * (gap - turning.at)))
  if (chance < 0.5)
    return {
      kind: 'look',
      certainty: 1 - chance,
      sources: [],
      alike: [],
      certain: chance < 0.05,
      sentences: lookSentences(1 - chance, identity),
    }
  const best = new Map<string, Source>()
  for (const s of sources) {
    const known = best.get(s.encodingId)
    if (!known || cost(s, sourcePrice) < cost(known, sourcePrice)) best.set(s.encodingId, s)
  }
  const ranked = [...best.values()].sort((a, b) => cost(a, sourcePrice) - cost(b, sourcePrice))
  const [first] = ranked
  const reach = first ? cost(first, sourcePrice) * alikeWithin.times + alikeWithin.plus : 0
  const alike = ranked.filter((s) => cost(s, sourcePrice) <= reach).map((s) => s.encodingId)
  const certain = alike.length === 1 && chance > 0.95 && first !== undefined && first.residual < 0.01
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

const percent = (v: number): string => `${(v * 100).toFixed(v < 0.1 ? 2 : 0)} %`
function lookSentences(certainty: number, identity: Explained | null): readonly string[] {
  const moved = identity
    ? `It moves colours by ${percent(identity.look)} of the signal.`
    : 'It moves colours too far to be followed.'
  return [`${percent(certainty)} sure: a look. It takes a display picture and gives one back.`, moved]
}
function conversionSentences(
  chance: number,
  [first, second]: readonly Source[],
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
