// The picture that looks are shown on, small: the shot's frame as the kept grade has it.
import { computed, type ComputedRef } from 'vue'
import type { GradeDocument } from '@core/grade'
import type { SheetPicture } from '../../../workers/sheet-worker'
import { useBench } from '../session/bench'
import { useView } from '../../../stores/view'

/** `without` takes out of the grade what is to be chosen anew. Null until the shot is open, and while it plays. */
export function useSheetPicture(without: (grade: GradeDocument) => GradeDocument): ComputedRef<SheetPicture | null> {
  const { shot, document, renderer } = useBench()
  const view = useView()
  return computed(() =>
    shot.value && document.value && !renderer.playing.value
      ? {
          mediaHash: shot.value.media.hash,
          frameIndex: view.frame,
          range: document.value.read.range,
          grade: without(document.value),
          skin: null,
        }
      : null,
  )
}
