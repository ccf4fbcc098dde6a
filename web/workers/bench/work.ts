// What the drawing threads are given for a grade: its compiled passes, or the grade itself where those err too much.
import { dragSize, lutsOf, planError, playable, playCache, withinBound } from '@core/grade'
import type { GradeDocument, Passes, Plan, PlanCache } from '@core/grade'
import type { Frame } from '@core/image'
import { lutAtHand } from '../frame-source'
import type { Rendered } from '../messages'
import type { Work } from '../tile'

/** Compiled parts that several pictures share. */
export const built: PlanCache = new Map()
const played = playCache(built)

export function accuracyOf(plan: Plan, frame: Frame): NonNullable<Rendered['accuracy']> {
  const report = planError(plan, frame)
  return { ...report, evaluated: withinBound(report) ? 'compiled' : 'direct' }
}

/** A plan without its chain, whose operations are functions and stay here. */
function sendable({ chain: _, ...passes }: Plan): Passes {
  return passes
}

export function workFor(grade: GradeDocument, plan: Plan | null, accuracy: Rendered['accuracy']): Work {
  if (!plan) return { kind: 'asShot' }
  if (accuracy?.evaluated === 'direct')
    return {
      kind: 'direct',
      grade,
      luts: new Map(
        lutsOf(grade).flatMap((hash) => {
          const lut = lutAtHand(hash)
          return lut ? [[hash, lut] as const] : []
        }),
      ),
    }
  return { kind: 'passes', passes: sendable(plan) }
}

/** The grade as it is played: nearly as exact, and in time. */
export function quickWork(grade: GradeDocument, frame: Frame): Work {
  const key = JSON.stringify([grade, frame.low, frame.high])
  if (quick?.key === key) return quick.work
  quick = { key, work: { kind: 'passes', passes: playable(grade, lutAtHand, frame, dragSize, played) } }
  return quick.work
}
let quick: { readonly key: string; readonly work: Work } | null = null
