// A rectangle dragged on one of two pictures: a patch that is measured in both, or a place of a swatch pair.
import { shallowRef, type Ref, type ShallowRef } from 'vue'
import type { Area } from '@core/readings'
import type { SwatchPairs } from './useSwatchPairs'

interface Place {
  readonly x: number
  readonly y: number
  /** 1 in the right one of two pictures. */
  readonly half: number
}
/** A press that hardly moves draws nothing. */
const least = 0.005

export function usePatchDrag(
  stage: Readonly<Ref<HTMLElement | null>>,
  /** Two pictures stand beside each other. */
  beside: Readonly<Ref<boolean>>,
  patch: ShallowRef<Area | null>,
  pairs: SwatchPairs,
) {
  const from = shallowRef<Place | null>(null)
  const drawnArea = shallowRef<Area | null>(null)
  /** In shares of the picture that is pointed at, or of the one in which a drag began. */
  function place(event: PointerEvent, begun?: number): Place {
    const { left, top, width, height } = (event.currentTarget as HTMLElement).getBoundingClientRect()
    const share = (v: number): number => Math.min(1, Math.max(0, v))
    const across = (event.clientX - left) / width
    const half = begun ?? (beside.value && across > 0.5 ? 1 : 0)
    return { x: share(beside.value ? across * 2 - half : across), y: share((event.clientY - top) / height), half }
  }
  function down(event: PointerEvent): void {
    if (event.button !== 0) return
    stage.value?.setPointerCapture(event.pointerId)
    from.value = place(event)
    drawnArea.value = null
    if (!pairs.pairing.value) patch.value = null
  }
  function move(event: PointerEvent): void {
    if (!from.value) return
    const to = place(event, from.value.half)
    const area: Area = {
      left: Math.min(from.value.x, to.x),
      right: Math.max(from.value.x, to.x),
      top: Math.min(from.value.y, to.y),
      bottom: Math.max(from.value.y, to.y),
    }
    if (area.right - area.left <= least || area.bottom - area.top <= least) return
    drawnArea.value = area
    if (!pairs.pairing.value) patch.value = area
  }
  function up(): void {
    const { value: area } = drawnArea
    if (area && from.value && pairs.pairing.value) pairs.drawn(from.value.half === 1 ? 'shot' : 'reference', area)
    from.value = null
    drawnArea.value = null
  }
  return { from, drawnArea, down, move, up }
}
