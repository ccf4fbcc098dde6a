// What the open station asks of the picture: what stands before its curves, what a place is there, what the other way
// through a LUT would change, and the look of a held picture.
import { ref, shallowRef, watch, type ComputedRef } from 'vue'
import type { DifferenceReport } from '@core/grade'
import type { PlaceColour } from '@core/instruments'
import type { BenchRenderer } from '../../../composables/useBenchRenderer'
import { useGrade } from '../../../stores/grade'
import { usePicking } from '../../../stores/picking'
import { usePlacing } from '../../../stores/placing'
import { useView } from '../../../stores/view'
import { text } from '../text'
import type { Pointing } from '../usePointing'
import type { BenchShot } from './useBenchShot'

export function useStationQuestions(
  renderer: BenchRenderer,
  { shot }: BenchShot,
  pointing: Pointing,
  asShot: ComputedRef<boolean>,
) {
  const grade = useGrade()
  const picking = usePicking()
  const placing = usePlacing()
  const view = useView()

  /** What a place is before the station that picks from the picture. */
  async function colourAt(x: number, y: number): Promise<PlaceColour | null> {
    const { picker } = picking
    return picker && renderer.ask('colour', { station: picker.station, side: picker.side, x, y })
  }
  // What stands before a curve is known once the picture rests.
  watch([() => picking.wanted, renderer.settled, () => view.frame], async ([now, settled]) => {
    if (!now) picking.distribution = null
    else if (settled && !asShot.value)
      picking.distribution = await renderer.ask('distribution', { ...now, bits: shot.value?.media.bitDepth ?? 10 })
  })
  /** The LUT step that is open, by its id; empty where none is. */
  const openLutStep = ref('')
  /** What the other way between its entries would change. */
  const between = shallowRef<DifferenceReport | null>(null)
  watch([openLutStep, renderer.settled], async ([stepId, settled]) => {
    if (stepId === '') between.value = null
    else if (settled && !asShot.value) between.value = await renderer.ask('between', { stepId })
  })
  /** The look of the held picture as steps, shown before they are kept. */
  async function takeLook(): Promise<void> {
    const { still } = view
    const { shotId } = grade
    if (!still || asShot.value) return
    const { width, height, rgba } = still.image
    const skin = pointing.subjects.value[0] ?? null
    const look = await renderer.ask('lookFrom', { reference: { width, height, rgba: rgba.slice() }, skin })
    if (!look || grade.shotId !== shotId) return
    const took = text.recipes.took(look.before.toFixed(1), look.after.toFixed(1))
    placing.show({
      name: text.recipes.take(still.name),
      note: [took, ...look.taken, ...look.left].join(' · '),
      ...look.content,
    })
  }
  return { colourAt, openLutStep, between, takeLook }
}
