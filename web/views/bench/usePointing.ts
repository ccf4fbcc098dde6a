// What is pointed out in the shot: the grey card, subjects and their cards, waived readings.
import { computed, ref, type ComputedRef, type Ref } from 'vue'
import type { DrawnPart } from '@core/instruments'
import { nothingPointed, pointedAt, type Area, type Pointed, type Reading, type SubjectCard } from '@core/readings'
import { sentenceOf } from '../../api/client'
import { useOpenShot } from '../../stores/open-shot'
import { useView } from '../../stores/view'
import { text } from './text'

export interface Pointing {
  readonly pointed: ComputedRef<Pointed>
  readonly card: ComputedRef<DrawnPart | null>
  readonly subjects: ComputedRef<readonly (Area & { readonly name: string })[]>
  readonly fault: Ref<string>
  readonly pickCard: () => void
  readonly dropCard: () => void
  /** `fresh`: a new subject, or a new card for one. Otherwise only its place in this shot. */
  readonly pickSubject: (name: string, fresh: boolean) => void
  readonly waive: (reading: Reading, reason: string | null) => void
}

/** `sample` measures an area as skin, under neutral light as far as the light is known. */
export function usePointing(frame: () => number, sample: (area: Area) => Promise<SubjectCard | null>): Pointing {
  const openShot = useOpenShot()
  const view = useView()
  const fault = ref('')
  const shot = computed(() => openShot.shot)
  const pointed = computed(() => (shot.value ? pointedAt(frame(), shot.value) : nothingPointed))
  const area = computed<Area | null>(() =>
    view.part && view.part.kind !== 'region'
      ? { left: view.part.left, top: view.part.top, right: view.part.right, bottom: view.part.bottom }
      : null,
  )
  async function attempt(work: () => Promise<void>): Promise<void> {
    fault.value = ''
    try {
      await work()
    } catch (error) {
      fault.value = sentenceOf(error)
    }
  }
  function pickSubject(name: string, fresh: boolean): void {
    const { value: where } = area
    const known = shot.value?.subjects.find((s) => s.name === name)
    if (!where) return
    if (!fresh && known) return void attempt(() => openShot.placeSubject(known.id, { frame: frame(), area: where }))
    void attempt(async () => {
      const card = await sample(where)
      if (card) await openShot.makeSubject({ name, frame: frame(), area: where, card })
      else fault.value = text.noSkin
    })
  }
  return {
    pointed,
    fault,
    card: computed<DrawnPart | null>(() => pointed.value.card && { kind: 'box', ...pointed.value.card }),
    subjects: computed(() => pointed.value.subjects.map((s) => ({ ...s.area, name: s.name }))),
    pickCard: () => {
      const { value: where } = area
      if (where) void attempt(() => openShot.pickCard({ frame: frame(), area: where }))
    },
    dropCard: () => void attempt(() => openShot.pickCard(null)),
    pickSubject,
    waive: (reading, reason) =>
      void attempt(() =>
        openShot.waive({
          reading: reading.id,
          subject: reading.of ?? '',
          waived: reason !== null,
          ...(reason === null ? {} : { reason }),
        }),
      ),
  }
}
