// The Meridian's drawing: levels from station to station as paths on a plane of 800 by 100.
import { stations } from '@core/grade'
import type { Meridian } from '@core/instruments'

export const planeWidth = stations.length * 100
export const planeHeight = 100
// From a little under black to one and a bit: working log before Show, display signal from Show on.
const low = -0.03
const high = 1.05
export const yOf = (level: number): number =>
  planeHeight - ((Math.min(high, Math.max(low, level)) - low) / (high - low)) * planeHeight

/** Per line its levels: as shot, then after every station. */
export const linesOf = (m: Meridian): readonly (readonly number[])[] =>
  m.asShot.map((start, line) => [start, ...m.stations.map((s) => s.levels[line] ?? start)])

/** A level eased over the middle of each station, flat at its end. */
export function pathOf(levels: readonly number[]): string {
  let d = `M 0 ${yOf(levels[0] ?? 0)}`
  levels.slice(1).forEach((level, i) => {
    const x = i * 100
    const before = yOf(levels[i] ?? 0)
    const after = yOf(level)
    d += ` L ${x + 8} ${before} C ${x + 34} ${before} ${x + 30} ${after} ${x + 56} ${after} L ${x + 100} ${after}`
  })
  return d
}

/** The area between two lines. */
export function bandOf(lower: readonly number[], upper: readonly number[]): string {
  const close = ` L ${planeWidth} ${planeHeight} L 0 ${planeHeight} Z`
  return `${pathOf(upper)}${close} ${pathOf(lower)}${close}`
}

/** The percentiles of the lines, from the bottom up. */
export const lineNames = ['0.1', '1', '10', '50', '90', '99', '99.9']
