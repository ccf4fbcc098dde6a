// Solves the open aims whenever they, the locks, the grade or the frame change: one question at a time, the latest
// wins.
import { onScopeDispose, watch } from 'vue'
import { useAims } from '../stores/aims'
import type { AimsFunctions, AimsQuestion } from '../workers/aims-worker'
import { connect, Overtaken } from '../workers/calls'

export type AimsSubject = Omit<AimsQuestion, 'aims' | 'locked'>

/** `subject` is null while there is nothing to solve on. */
export function useAimSolver(subject: () => AimsSubject | null): void {
  const store = useAims()
  const calls = connect<AimsFunctions>(
    () => new Worker(new URL('../workers/aims-worker.ts', import.meta.url), { type: 'module' }),
    'The solver',
  )
  let asked = 0
  async function solve(question: AimsQuestion): Promise<void> {
    const mine = ++asked
    const of = store.shotId
    store.solving = true
    try {
      const solution = await calls.latest('solve', question)
      // While dragging, show intermediate solutions; never one of a shot that was left.
      if (store.shotId === of && store.pending && (solution || mine === asked)) store.solution = solution
      if (mine === asked) store.fault = ''
    } catch (error) {
      if (error instanceof Overtaken || mine !== asked) return
      store.fault = error instanceof Error ? error.message : String(error)
      store.solution = null
    }
    if (mine === asked) store.solving = false
  }
  watch(
    [subject, () => store.wanted, () => store.locked, () => store.pending] as const,
    ([now, aims, locked, pending]) => {
      if (now && pending && aims.length > 0) return void solve({ ...now, aims, locked: [...locked] })
      asked++
      store.solving = false
    },
    { immediate: true },
  )
  onScopeDispose(calls.close)
}
