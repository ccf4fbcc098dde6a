// Where the skin of each placed subject lies on the vectorscope of the present picture, and the aim that dragging it
// makes.
import { ref, shallowRef, watch, type ShallowRef } from 'vue'
import type { Aim } from '@core/aims'
import { vectorSpan } from '@core/instruments'
import { turn, type Area } from '@core/readings'
import type { BenchRenderer } from '../../../composables/useBenchRenderer'
import { text } from '../text'

export interface SkinHandle {
  readonly id: string
  readonly name: string
  readonly area: Area
  /** Direction from +Cb, anticlockwise, and distance from neutral, 1 being the largest chroma possible. */
  readonly hueDegrees: number
  readonly chroma: number
}

/** `subjects` is empty while nothing can be aimed at. */
export function useSkinHandles(
  renderer: Pick<BenchRenderer, 'ask' | 'result'>,
  subjects: () => readonly (Area & { readonly name: string })[],
): ShallowRef<readonly SkinHandle[]> {
  const handles = shallowRef<readonly SkinHandle[]>([])
  const asked = ref(0)
  watch([subjects, renderer.result] as const, async ([now, result]) => {
    const mine = ++asked.value
    if (!result || now.length === 0) {
      handles.value = []
      return
    }
    const found: SkinHandle[] = []
    for (const { name, ...area } of now) {
      const skin = await renderer.ask('skin', { area, cast: null })
      if (asked.value !== mine) return
      if (skin) found.push({ id: `skin-${name}`, name, area, hueDegrees: skin.hueDegrees, chroma: skin.chroma })
    }
    handles.value = found
  })
  return handles
}

/** A place of the plot, shares from the lower left, as direction and distance; and back. */
export function polarAt(x: number, y: number, zoom: number): { readonly hueDegrees: number; readonly chroma: number } {
  const cb = ((x - 0.5) * 2 * vectorSpan) / zoom
  const cr = ((y - 0.5) * 2 * vectorSpan) / zoom
  return { hueDegrees: ((Math.atan2(cr, cb) * 180) / Math.PI + 360) % 360, chroma: Math.hypot(cb, cr) * 2 }
}
export function placeOf(
  { hueDegrees, chroma }: Pick<SkinHandle, 'hueDegrees' | 'chroma'>,
  zoom: number,
): { readonly x: number; readonly y: number } {
  const angle = (hueDegrees * Math.PI) / 180
  const reach = (chroma / 2 / (2 * vectorSpan)) * zoom
  return { x: 0.5 + reach * Math.cos(angle), y: 0.5 + reach * Math.sin(angle) }
}

/** Nearer than this share of its distance, a drag is meant round the middle only: hue comes first. */
const sameChroma = 0.12

export function aimOfSkin(handle: SkinHandle, to: { readonly hueDegrees: number; readonly chroma: number }): Aim {
  const chroma = Math.abs(to.chroma - handle.chroma) > sameChroma * handle.chroma ? { chroma: to.chroma } : {}
  const hueDegrees = Math.round((handle.hueDegrees + turn(to.hueDegrees - handle.hueDegrees)) * 10) / 10
  return {
    id: handle.id,
    name: text.aims.skinHandle(handle.name),
    rank: 2,
    want: { kind: 'skin', area: handle.area, hueDegrees: ((hueDegrees % 360) + 360) % 360, ...chroma },
  }
}
