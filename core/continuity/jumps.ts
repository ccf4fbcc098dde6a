// Where a scene jumps, and which of its shots stands apart from all others.
import { printLine, type SceneLine } from './lines'

export interface Jump {
  readonly line: SceneLine
  /** The shot after the cut. */
  readonly at: number
  readonly from: number
  readonly to: number
  /** Differences that are just seen. */
  readonly steps: number
  readonly words: string
}

/** The jumps at cuts that are seen, largest first. A shot that was not measured hides a cut on both its sides. */
export function jumpsOf(lines: readonly SceneLine[]): readonly Jump[] {
  return lines
    .flatMap((line) =>
      line.values.flatMap((to, at) => {
        const from = line.values[at - 1] ?? null
        if (at === 0 || to === null || from === null) return []
        const steps = differenceOf(line, from, to) / line.step
        if (steps < 1) return []
        const words = `${line.of ? `${line.of}, ` : ''}${line.name} ${printLine(line, from)} → ${printLine(line, to)}`
        return [{ line, at, from, to, steps, words }]
      }),
    )
    .sort((a, b) => b.steps - a.steps)
}

export interface Outlier {
  readonly shot: number
  /** What it differs in from what the others agree on, most first. */
  readonly words: readonly string[]
}

/** Of one shot's differences, this much more than the next shot's: only then it is the odd one out. */
const clearly = 1.6

/**
 * The shot that stands apart from what all others agree on; null below three shots, and where none does or several do.
 * Each measure counts in steps that are seen, or in what the others differ among themselves where that is more: a scene
 * that changes its light all the time has no outlier.
 */
export function outlierOf(lines: readonly SceneLine[]): Outlier | null {
  const count = lines[0]?.values.length ?? 0
  if (count < 3) return null
  const shots = Array.from({ length: count }, (_, shot) => {
    const apart = lines.flatMap((line) => {
      const own = line.values[shot]
      const others = line.values.flatMap((v, i) => (i !== shot && v !== null ? [v] : []))
      if (own === null || own === undefined || others.length < 2) return []
      const middle = line.id === 'skinHue' ? others[0] : 0
      const near = others.map((v) => (line.id === 'skinHue' ? middle + turned(v - middle) : v))
      const agreed = median(near)
      const spread = Math.max(line.step, 2 * median(near.map((v) => Math.abs(v - agreed))))
      return [{ line, own, agreed, times: differenceOf(line, own, agreed) / spread }]
    })
    return {
      shot,
      far: apart.reduce((sum, { times }) => sum + Math.max(0, times - 1), 0),
      apart: apart.filter(({ times }) => times > 1).sort((a, b) => b.times - a.times),
    }
  }).sort((a, b) => b.far - a.far)
  const [first, second] = shots
  if (first.far < 1 || first.far < clearly * second.far) return null
  return {
    shot: first.shot,
    words: first.apart.map(
      ({ line, own, agreed }) =>
        `${line.of ? `${line.of}, ` : ''}${line.name} ${printLine(line, own)}, the others ${printLine(line, agreed)}`,
    ),
  }
}

const turned = (degrees: number): number => ((((degrees + 180) % 360) + 360) % 360) - 180
const differenceOf = (line: SceneLine, a: number, b: number): number =>
  Math.abs(line.id === 'skinHue' ? turned(a - b) : a - b)
function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  const half = sorted.length >> 1
  return sorted.length % 2 === 1 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2
}
