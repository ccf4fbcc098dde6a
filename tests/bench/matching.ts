// Matching on made pairs: two cameras, exposures, lights, contrasts and framings of one scene, and scenes that have
// nothing in common.
import { judgeMatching, judgeOtherAngles } from '../matching/judge'
import { smoke } from './effort'
import { median } from './median'

export function measureMatching(): readonly string[] {
  const { pairs, matched, errors, medians, mediansBefore, declined, strangers, taken, msEach } = judgeMatching(
    smoke ? 4 : 60,
    smoke ? 2 : 20,
  )
  const at = (share: number): string => (errors[Math.floor((errors.length - 1) * share)] ?? Number.NaN).toFixed(2)
  return [
    `${pairs} pairs, exposure ±1.5 stops, ±50 mired, tint ±10, contrast 0.7–1.4, eight encodings, other framings:`,
    `  matched: ${matched} of ${pairs}${declined.length > 0 ? `; declined: ${declined.join(', ')}` : ''}`,
    `  ΔE 2000 over shared surfaces: median ${at(0.5)} (bar 1.5), 99th percentile ${at(0.99)}, worst ${at(1)} (bar 4)`,
    `  median of a pair: median ${median(medians).toFixed(2)}, worst ${Math.max(...medians).toFixed(2)}; before ` +
      median(mediansBefore).toFixed(1),
    `nothing in common, and matched: ${taken.length} of ${strangers} (bar 0) ${taken.join('; ')}`,
    `a match, 480×270, one core: ${msEach.toFixed(0)} ms`,
  ]
}

export function measureOtherAngles(): readonly string[] {
  const { pairs, offered, before, after, worse, sure, strangers, taken } = judgeOtherAngles(
    smoke ? 3 : 48,
    smoke ? 3 : 60,
  )
  return [
    `${pairs} pairs of another part of one scene, mirrored, through two cameras, exposures, lights and contrasts:`,
    `  offered by colour alone: ${offered}, as sure: ${sure} (bar 0)`,
    `  ΔE 2000 over the whole picture, median of pairs: ${median(before).toFixed(1)} → ${median(after).toFixed(1)}; ` +
      `worse than before: ${worse.length} ${worse.join('; ')}`,
    `nothing in common, and offered: ${taken.length} of ${strangers} (bar 0) ${taken.join('; ')}`,
  ]
}
