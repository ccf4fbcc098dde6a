// Asks for the choices of Balance for me; the answer of a shot, a frame or a grade that was left is dropped.
import { onScopeDispose, watch } from 'vue'
import { useAims } from '../../stores/aims'
import { useBalance } from '../../stores/balance'
import type { AimsFunctions, BalanceAsked } from '../../workers/aims-worker'
import { connect, Overtaken } from '../../workers/calls'
import { sentenceOf } from '../../api/client'

export interface Balancing {
  readonly ask: () => void
}

/** `subject` is null while there is nothing to balance; what it is made of changes with the shot, frame and grade. */
export function useBalancing(subject: () => BalanceAsked | null): Balancing {
  const store = useBalance()
  const aims = useAims()
  const calls = connect<AimsFunctions>(
    () => new Worker(new URL('../../workers/aims-worker.ts', import.meta.url), { type: 'module' }),
    'Balance',
  )
  // Once the picture is there, so that the first answer does not wait for a thread.
  const preparing = setTimeout(calls.prepare, 4000)
  let asked = 0
  async function ask(): Promise<void> {
    const question = subject()
    if (!question) return
    const mine = ++asked
    aims.takeBack()
    aims.open = true
    store.begin(question.frameIndex)
    try {
      // By the frame in view at once; then again with the clip's other moments, which take longer to fetch.
      for (const moments of question.moments.length > 0 ? [[], question.moments] : [[]]) {
        const answer = await calls.latest('balance', { ...question, moments })
        if (mine !== asked) return
        store.show(answer, moments.length < question.moments.length)
      }
      const card = await calls.latest('card', question)
      if (mine === asked) store.offer(card)
    } catch (error) {
      if (mine === asked && !(error instanceof Overtaken)) store.fail(sentenceOf(error))
    }
  }
  watch(
    () => {
      const now = subject()
      return now && [now.medium.hash, now.frameIndex, now.grade, now.pointed]
    },
    (now, before) => {
      if (JSON.stringify(now?.slice(0, 2)) === JSON.stringify(before?.slice(0, 2)) && now?.[2] === before?.[2]) return
      asked++
      store.close()
    },
  )
  onScopeDispose(() => {
    store.close()
    clearTimeout(preparing)
    calls.close()
  })
  return { ask: () => void ask() }
}
