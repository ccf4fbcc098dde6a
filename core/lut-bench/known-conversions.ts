// Conversions that this program makes itself, kept as colours: a LUT is explained by one of them with a plain look on
// top, or by such a look alone.
import { Matrix, solve } from 'ml-matrix'
import { encodings } from '../colour'
import { buildChain, defaultGrade, evaluateDirect, setShow, type GradeDocument } from '../grade'
import { applyLut, type Lut } from '../luts'
import { probeColours, type ProbeColours } from './probe-colours'

const nowhere = { shares: new Float64Array(0), frameWidth: 1, frameHeight: 1 }

type Way = 'straight' | 'rolloff' | 'print'
interface Reference {
  readonly encodingId: string
  readonly gamutId: string
  readonly way: Way
  readonly displayId: string
  readonly signal: Float64Array
}
interface Known extends ProbeColours {
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

export interface Explained {
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

export interface KnownSource extends Explained {
  readonly encodingId: string
  readonly gamutId: string
  readonly way: Way
  readonly displayId: string
}
export interface KnownEvidence {
  readonly identity: Explained | null
  readonly sources: readonly KnownSource[]
}

/** Where the conversion is the LUT itself, to a few steps of 16 bits, no look is looked for. */
function exactly(from: Float64Array, out: Float64Array): boolean {
  for (let i = 0; i < out.length; i++) if (Math.abs(from[i] - out[i]) > 5e-4) return false
  return true
}

/** Every conversion that ships, laid against what a LUT makes of the colours. */
export function knownEvidence(lut: Lut): KnownEvidence {
  const { colours, greys, references } = knownFor(lut.dimensions === 3 ? lut.size : 33)
  const out = colours.slice()
  applyLut(lut, out, 'tetrahedral')
  return {
    identity: explain(colours, out, greys),
    sources: references.flatMap(({ signal, ...of }): readonly KnownSource[] => {
      if (exactly(signal, out)) return [{ ...of, residual: 0, look: 0, points: greys, parted: 0 }]
      // A look takes up the difference between display gammas.
      const found = of.displayId === 'bt709-2.4' ? explain(signal, out, greys) : null
      return found ? [{ ...found, ...of }] : []
    }),
  }
}
