// What follows when another arrangement of the Bench is chosen.
import { arrangements, meridianHeights, type BenchLayout } from '../../../stores/kept-settings'

/** The divider goes back to where the arrangement has it; for a large picture the Meridian folds away. */
export function arranged(layout: BenchLayout, arrangement: BenchLayout['arrangement']): BenchLayout {
  const unfolded = layout.meridian === 'folded' ? 'usual' : layout.meridian
  return { arrangement, pictureShare: null, meridian: arrangement === 'picture' ? 'folded' : unfolded }
}

const after = <T>(all: readonly T[], now: T): T => all[(all.indexOf(now) + 1) % all.length] ?? now

export const nextArrangement = (layout: BenchLayout): BenchLayout =>
  arranged(layout, after(arrangements, layout.arrangement))
export const nextMeridian = (layout: BenchLayout): BenchLayout => ({
  ...layout,
  meridian: after(meridianHeights, layout.meridian),
})
