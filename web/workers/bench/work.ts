// What the drawing threads are given for a grade: its compiled passes, or the grade itself where those err too much.
import { LRUCache } from 'lru-cache'
import { dragSize, lutsOf, planError, playable, playCache, withinBound } from '@core/grade'
import type { CodeSpan, GradeDocument, Passes, Plan, PlanCache } from '@core/grade'
import type { Frame } from '@core/image'
import { connect } from '../calls'
import type { CompileFunctions } from '../compile-worker'
import { lutAtHand } from '../frame-source'
import { mostReady, type Rendered } from '../messages'
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

/** Plans of grades that are played. */
const quick = new LRUCache<string, Work>({ max: mostReady + 4 })
const keyOf = (grade: GradeDocument, { low, high }: CodeSpan): string => JSON.stringify([grade, low, high])

/** The grade as it is played: nearly as exact, and in time. */
export function quickWork(grade: GradeDocument, span: CodeSpan): Work {
  // Most often it is the very grade of the picture before.
  if (last?.grade === grade && last.low === span.low && last.high === span.high) return last.work
  const key = keyOf(grade, span)
  const work: Work = quick.get(key) ?? {
    kind: 'passes',
    passes: playable(grade, lutAtHand, span, dragSize, played),
  }
  quick.set(key, work)
  last = { grade, low: span.low, high: span.high, work }
  return work
}
let last: ({ readonly grade: GradeDocument; readonly work: Work } & CodeSpan) | null = null

const compiler = connect<CompileFunctions>(
  () => new Worker(new URL('../compile-worker.ts', import.meta.url), { type: 'module' }),
  'The thread that makes grades ready',
)
/** Makes a grade ready on another thread, so that the picture that plays meanwhile need not wait. */
export async function prepareWork(grade: GradeDocument, { low, high }: CodeSpan): Promise<void> {
  const key = keyOf(grade, { low, high })
  if (quick.has(key)) return
  const passes = await compiler.ask('playable', { grade, low, high })
  if (!quick.has(key)) quick.set(key, { kind: 'passes', passes })
}
