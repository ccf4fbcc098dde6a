// The picture larger than it fits, and moved about: Ctrl and the wheel, or keys; dragging with the middle button, or
// the wheel alone.
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import { useView, type Zoom } from '../../../stores/view'

/** Screen pixels for one pixel of the picture; 0 fits it into its place. */
export const zoomLevels = [0, 1, 2, 4, 8] as const

export interface PictureZoom {
  /** How much larger than it fits. */
  readonly factor: ComputedRef<number>
  readonly transform: ComputedRef<string>
  readonly wheel: (e: WheelEvent) => void
  readonly grab: (e: PointerEvent) => void
  readonly pan: (e: PointerEvent) => void
  readonly drop: () => void
}

export function useZoom(
  stage: Readonly<Ref<HTMLElement | null>>,
  pixels: () => number,
  aspect: () => number,
): PictureZoom {
  const view = useView()
  const fitted = ref(1)
  const measure = (): void => {
    const box = stage.value?.getBoundingClientRect()
    if (box && box.height > 0) fitted.value = Math.min(box.width, box.height * aspect())
  }
  watch([stage, () => view.zoom.level, aspect], measure, { flush: 'post', immediate: true })
  const factor = computed(() =>
    view.zoom.level === 0
      ? 1
      : Math.max(1, (view.zoom.level * pixels()) / (fitted.value * (window.devicePixelRatio || 1))),
  )
  /** The middle of what is seen, held so that the picture still covers its place. */
  const held = (x: number, y: number, by: number): Pick<Zoom, 'x' | 'y'> => {
    const most = 0.5 / by
    const within = (v: number): number => Math.min(1 - most, Math.max(most, v))
    return { x: within(x), y: within(y) }
  }
  function at(level: number, x = view.zoom.x, y = view.zoom.y): void {
    measure()
    const by = level === 0 ? 1 : Math.max(1, (level * pixels()) / (fitted.value * (window.devicePixelRatio || 1)))
    view.zoom = { level, ...held(x, y, by) }
  }
  let from: { readonly x: number; readonly y: number; readonly zoom: Zoom } | null = null
  const moved = (dx: number, dy: number, was = view.zoom): void => {
    view.zoom = {
      ...was,
      ...held(
        was.x - dx / (fitted.value * factor.value),
        was.y - (dy * aspect()) / (fitted.value * factor.value),
        factor.value,
      ),
    }
  }
  return {
    factor,
    transform: computed(() =>
      factor.value === 1
        ? ''
        : `scale(${factor.value}) translate(${(0.5 - view.zoom.x) * 100}%, ${(0.5 - view.zoom.y) * 100}%)`,
    ),
    wheel: (e) => {
      if (e.ctrlKey) {
        e.preventDefault()
        const order = zoomLevels.indexOf(view.zoom.level as (typeof zoomLevels)[number])
        const next = zoomLevels[Math.min(zoomLevels.length - 1, Math.max(0, order - Math.sign(e.deltaY)))] ?? 0
        if (next === view.zoom.level) return
        const box = stage.value?.getBoundingClientRect()
        // What is under the pointer becomes the middle.
        const px = box ? (e.clientX - box.left - box.width / 2) / (fitted.value * factor.value) : 0
        const py = box ? ((e.clientY - box.top - box.height / 2) * aspect()) / (fitted.value * factor.value) : 0
        at(next, view.zoom.x + px, view.zoom.y + py)
      } else if (factor.value > 1) {
        e.preventDefault()
        moved(-e.deltaX, -e.deltaY)
      }
    },
    grab: (e) => {
      if (e.button !== 1 || factor.value === 1) return
      e.preventDefault()
      ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
      from = { x: e.clientX, y: e.clientY, zoom: view.zoom }
    },
    pan: (e) => {
      if (from) moved(e.clientX - from.x, e.clientY - from.y, from.zoom)
    },
    drop: () => {
      from = null
    },
  }
}

/** The next larger size, and after the largest the one that fits; keys move what is seen by a tenth. */
export const nextZoom = (zoom: Zoom): Zoom => {
  const order = zoomLevels.indexOf(zoom.level as (typeof zoomLevels)[number])
  const level = zoomLevels[(order + 1) % zoomLevels.length] ?? 0
  return level === 0 ? { level, x: 0.5, y: 0.5 } : { ...zoom, level }
}
