// Swatch pairs: a place of the reference and a place of the shot, laid side by side by a person; and what would show
// them alike. The pictures need have nothing in common.
import { computed, ref, shallowRef, watch } from 'vue'
import { displayById } from '@core/colour'
import { needsMapping } from '@core/grade'
import type { TraceImage } from '@core/instruments'
import type { Area } from '@core/readings'
import { mostPairs } from '@contracts/matching'
import type { ShotProposal } from '@contracts/responses'
import { post } from '../../api/client'
import { useGrade } from '../../stores/grade'
import { ownDisplayId } from '../../workers/tile'
import { meanOf, type Mean } from './patch-mean'
import type { Side } from './usePair'

export interface SwatchPair {
  readonly id: number
  readonly seen: Mean
  readonly hereArea: Area
  readonly area: Area
}

export function useSwatchPairs(
  chosen: () => Side | null,
  /** The reference as it is drawn, and what it is called by while it stays the same. */
  held: () => TraceImage | null,
  referenceKey: () => string | null,
  attempt: (work: () => Promise<unknown>) => Promise<void>,
) {
  const grade = useGrade()
  const pairing = ref(false)
  const pairs = shallowRef<readonly SwatchPair[]>([])
  /** The half of a pair that is drawn already. */
  const half = shallowRef<{ readonly of: 'reference' | 'shot'; readonly area: Area } | null>(null)
  const answer = shallowRef<ShotProposal | null>(null)
  const asking = ref(false)
  let next = 0
  let asks = 0

  /** What is drawn of a high-range or wide display is mapped for this one: its colours are not the signal's. */
  const possible = computed(() => {
    const { document } = grade
    return document !== null && !needsMapping(displayById(document.show.displayId), displayById(ownDisplayId))
  })
  const full = computed(() => pairs.value.length >= mostPairs)

  async function ask(): Promise<void> {
    const side = chosen()
    const mine = ++asks
    answer.value = null
    asking.value = side !== null && pairs.value.length > 0
    if (!side || pairs.value.length === 0) return
    await attempt(async () => {
      await grade.commit()
      const found = await post<ShotProposal>(`/shots/${side.shot.id}/swatches`, {
        frame: side.frame,
        pairs: pairs.value.map(({ id, seen, area }) => ({ id, seen, area })),
      })
      if (mine === asks) answer.value = found
    })
    if (mine === asks) asking.value = false
  }
  /** A place was drawn on one of the two pictures: with one of each, they are a pair. */
  function drawn(of: 'reference' | 'shot', area: Area): void {
    const image = held()
    const other = half.value
    if (!image || full.value) return
    if (!other || other.of === of) {
      half.value = { of, area }
      return
    }
    const [hereArea, own] = of === 'reference' ? [area, other.area] : [other.area, area]
    half.value = null
    pairs.value = [...pairs.value, { id: next++, seen: meanOf(image, hereArea), hereArea, area: own }]
    void ask()
  }
  function remove(id: number): void {
    pairs.value = pairs.value.filter((p) => p.id !== id)
    void ask()
  }
  function clear(): void {
    half.value = null
    if (pairs.value.length === 0) return
    pairs.value = []
    void ask()
  }
  watch(
    () => [chosen()?.shot.id, chosen()?.frame, referenceKey()].join(),
    () => {
      clear()
      if (referenceKey() === null) pairing.value = false
    },
  )
  // What was saved is what it was worked out for.
  watch(
    () => chosen()?.shot.headId,
    () => {
      if (pairs.value.length > 0) void ask()
    },
  )
  return { pairing, pairs, half, answer, asking, possible, full, drawn, remove, ask }
}
export type SwatchPairs = ReturnType<typeof useSwatchPairs>
