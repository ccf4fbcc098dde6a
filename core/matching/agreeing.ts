// Which surfaces tell of one and the same change of light and camera: what moved, or is another thing, does not.
import type { Light, SharedSurface } from './surfaces'

/** Nearer to each other than this, in stops, two surfaces say nothing of contrast. */
const leastApart = 0.4
/** A surface agrees within this, or within so many times what is usual: stops. */
const tolerance = 0.35
const times = 4

const logOf = (light: Light): readonly number[] => light.map((v) => Math.log2(Math.max(v, 1e-4)))
const grey = ([r, g, b]: readonly number[]): number => (r + g + b) / 3

/** From there to here, in stops: here = slope × there + offset, channel by channel. */
export interface Change {
  readonly slope: number
  readonly offsets: readonly number[]
}

export interface Agreement {
  readonly agree: readonly boolean[]
  /** What those that agree tell; undefined without any surface. */
  readonly change: Change | undefined
}

/**
 * Exposure and balance are three offsets in stops, contrast is a slope. Every two surfaces propose such a change; the
 * one that most of the others follow best is it (least median of squares, Rousseeuw 1984).
 */
export function agreeing(surfaces: readonly SharedSurface[]): Agreement {
  const here = surfaces.map((s) => logOf(s.here))
  const there = surfaces.map((s) => logOf(s.there))
  const distance = (i: number, { slope, offsets }: Change): number =>
    Math.hypot(...offsets.map((o, c) => here[i][c] - o - slope * there[i][c]))
  const usual = (change: Change): number => {
    const sorted = surfaces
      .map(({ places }, i) => ({ far: distance(i, change), weight: Math.sqrt(places) }))
      .sort((a, b) => a.far - b.far)
    const half = sorted.reduce((sum, s) => sum + s.weight, 0) / 2
    let sum = 0
    return sorted.find(({ weight }) => (sum += weight) >= half)?.far ?? Infinity
  }
  const proposed: Change[] = []
  for (let i = 0; i < surfaces.length; i++) {
    proposed.push({ slope: 1, offsets: here[i].map((v, c) => v - there[i][c]) })
    for (let k = 0; k < i; k++) {
      const run = grey(there[i]) - grey(there[k])
      if (Math.abs(run) < leastApart) continue
      const slope = (grey(here[i]) - grey(here[k])) / run
      if (slope < 0.4 || slope > 2.5) continue
      proposed.push({
        slope,
        offsets: here[i].map((v, c) => (v + here[k][c] - slope * (there[i][c] + there[k][c])) / 2),
      })
    }
  }
  const spreads = proposed.map(usual)
  const least = Math.min(...spreads)
  const best = proposed[spreads.indexOf(least)]
  const agree = surfaces.map((_, i) => best !== undefined && distance(i, best) <= Math.max(tolerance, times * least))
  return { agree, change: best }
}
