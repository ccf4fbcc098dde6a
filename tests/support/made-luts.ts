// LUTs made for tests: looks, and conversions from every known encoding to three displays, with and without a look on
// top.
import { bakeLut } from '../../core/bake/bake'
import { encodings } from '../../core/colour'
import { addStep, defaultGrade, setParameter, setShow, setStep, type GradeDocument } from '../../core/grade'
import type { Lut3d } from '../../core/luts'

export interface MadeLut {
  readonly name: string
  readonly kind: 'look' | 'conversion'
  readonly encodingId: string | null
  readonly make: () => Lut3d
}

/** Numbers that look like chance and are always the same. */
function chance(seed: number): () => number {
  let state = (seed * 2654435761) >>> 0
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
}

/**
 * Steps of a look on the display side: contrast, saturation, a tint in the darks and one in the lights, a lifted black.
 */
function withLook(grade: GradeDocument, seed: number): GradeDocument {
  const next = chance(seed)
  const within = (low: number, high: number): number => low + (high - low) * next()
  let g = setParameter(grade, 'contrast', 'contrast', within(0.85, 1.35))
  g = setStep(g, 'contrast', { side: 'display' })
  g = setStep(setParameter(g, 'saturation', 'saturation', within(0.4, 1.35)), 'saturation', { side: 'display' })
  for (const [name, centre] of [
    ['Darks', -3],
    ['Lights', 2],
  ] as const) {
    const before = new Set(g.steps.map((s) => s.id))
    const more = addStep(g, 'zone', name, {
      centreStops: centre,
      widthStops: 3,
      reach: centre < 0 ? 'below' : 'above',
      tintDegrees: within(0, 360),
      tintAmount: within(0, 0.25),
      exposureStops: within(-0.3, 0.3),
    })
    for (const step of more.steps) if (!before.has(step.id)) g = setStep(more, step.id, { side: 'display' })
  }
  return next() < 0.4
    ? setStep(setParameter(g, 'black-offset', 'blackOffset', within(0, 0.01)), 'black-offset', { side: 'display' })
    : g
}

const toDisplays = ['bt709-2.4', 'bt709-2.2', 'p3-d65'] as const
const ways = ['straight', 'rolloff', 'print'] as const

/** At least 200, in a fixed order; another `series` puts other looks on them. */
export function madeLuts(series = 0): readonly MadeLut[] {
  const made: MadeLut[] = []
  const sizes = [17, 33, 25, 17, 21]
  let n = series
  let turn = series
  const add = (name: string, kind: MadeLut['kind'], encodingId: string | null, grade: GradeDocument): void => {
    const size = n % 40 === 39 ? 65 : sizes[n % sizes.length]!
    n++
    made.push({ name: `${name}, ${size}`, kind, encodingId, make: () => bakeLut(grade, () => undefined, size, name) })
  }
  for (const e of encodings.filter((candidate) => candidate.group !== 'display')) {
    toDisplays.forEach((displayId, d) => {
      const way = ways[(turn + d) % 3]
      const plain = setShow(defaultGrade(e.id, e.gamutIds[turn++ % e.gamutIds.length]), { method: way, displayId })
      add(`${e.name} to ${displayId}, ${way}`, 'conversion', e.id, plain)
      add(`${e.name} to ${displayId}, ${way}, with a look`, 'conversion', e.id, withLook(plain, n + series * 7919))
    })
  }
  for (let i = 0; i < 100; i++) {
    const displayId = toDisplays[i % 3]!
    const encodingId = ({ 'bt709-2.4': 'gamma-2.4', 'bt709-2.2': 'gamma-2.2', 'p3-d65': 'gamma-2.6' } as const)[
      displayId
    ]
    const grade = setShow(defaultGrade(encodingId, displayId === 'p3-d65' ? 'p3-d65' : 'bt709'), { displayId })
    add(`Look ${i} for ${displayId}`, 'look', null, i === 0 ? grade : withLook(grade, 1000 + i + series * 7919))
  }
  return made
}
