// Pointing: what lies under the pointer, which pixels make a place of an instrument, which pixels a station lost. One
// question at a time, the latest wins.
import { onScopeDispose, ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue'
import type { InstrumentId, Probe, TraceImage } from '@core/instruments'
import type { BenchRenderer } from '../../composables/useBenchRenderer'
import { sharePercent } from './figures'
import { text } from './text'

export interface Probing {
  readonly probe: ShallowRef<Probe | null>
  readonly lit: ShallowRef<TraceImage | null>
  /** What is lit, in words. */
  readonly litNote: Ref<string>
  readonly pointAt: (place: { readonly x: number; readonly y: number } | null) => void
  readonly lightPlace: (place: { readonly id: InstrumentId; readonly x: number; readonly y: number } | null) => void
  /** Lights the pixels that answer a question, once they are known; null lights none. */
  readonly showPixels: (
    answer: Promise<{ readonly lit: TraceImage | null; readonly share: number }> | null,
    words?: (share: string) => string,
  ) => void
}

export function useProbing(renderer: Pick<BenchRenderer, 'ask' | 'shown'>): Probing {
  const probe = shallowRef<Probe | null>(null)
  const lit = shallowRef<TraceImage | null>(null)
  const litNote = ref('')
  const latest = <T>(ask: (wanted: T) => Promise<void>, clear: () => void): ((wanted: T | null) => void) => {
    let wanted: T | null = null
    let busy = false
    const run = async (): Promise<void> => {
      busy = true
      while (wanted) {
        const now = wanted
        await ask(now)
        if (wanted === now) break
      }
      busy = false
      if (!wanted) clear()
    }
    return (next) => {
      wanted = next
      if (!next) clear()
      else if (!busy) void run()
    }
  }
  let place: { readonly x: number; readonly y: number } | null = null
  const askProbe = latest<{ readonly x: number; readonly y: number }>(
    async (at) => {
      probe.value = await renderer.ask('probe', at)
    },
    () => {
      probe.value = null
    },
  )
  function pointAt(at: typeof place): void {
    place = at
    askProbe(at)
  }
  // The picture changed under a resting pointer.
  watch(renderer.shown, () => {
    if (place) askProbe({ ...place })
  })

  let generation = 0
  function unlit(): void {
    generation++
    lit.value = null
    litNote.value = ''
  }
  const lightPlace = latest<{ readonly id: InstrumentId; readonly x: number; readonly y: number }>(
    async ({ id, x, y }) => {
      const mine = ++generation
      const answer = await renderer.ask('light', { instrument: id, x, y })
      if (generation !== mine) return
      lit.value = answer.share > 0 ? answer.lit : null
      litNote.value = answer.lit ? text.litPlace(sharePercent(answer.share)) : ''
    },
    unlit,
  )
  const showPixels: Probing['showPixels'] = (answer, words = text.litPlace) => {
    unlit()
    if (!answer) return
    const mine = ++generation
    litNote.value = text.findingPixels
    void answer.then((found) => {
      if (generation !== mine) return
      lit.value = found.lit
      litNote.value = found.lit ? words(sharePercent(found.share)) : ''
    })
  }
  onScopeDispose(() => {
    generation++
  })
  return { probe, lit, litNote, pointAt, lightPlace, showPixels }
}
