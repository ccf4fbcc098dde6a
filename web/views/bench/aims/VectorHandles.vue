<script setup lang="ts">
// The skin of each subject on the vectorscope: dragged to where it should lie, it becomes an aim. Left and right turn
// it, up and down change its chroma.
import { ref, shallowRef } from 'vue'
import type { Aim } from '@core/aims'
import { text } from '../text'
import { aimOfSkin, placeOf, polarAt, type SkinHandle } from './useSkinHandles'

const props = defineProps<{ handles: readonly SkinHandle[]; zoom: number }>()
const emit = defineEmits<{ aim: [aim: Aim] }>()
const box = ref<HTMLElement | null>(null)
/**
 * While a hand holds one it stays under the hand; the picture follows. What it was taken from says whether chroma is
 * meant.
 */
const dragged = shallowRef<{ readonly from: SkinHandle; readonly hueDegrees: number; readonly chroma: number } | null>(
  null,
)
const at = (h: SkinHandle): Pick<SkinHandle, 'hueDegrees' | 'chroma'> =>
  dragged.value?.from.id === h.id ? dragged.value : h
function place(h: SkinHandle): Record<string, string> {
  const { x, y } = placeOf(at(h), props.zoom)
  return { left: `${x * 100}%`, bottom: `${y * 100}%` }
}
function set(to: { readonly hueDegrees: number; readonly chroma: number }, from: SkinHandle): void {
  dragged.value = { from, ...to }
  emit('aim', aimOfSkin(from, to))
}
function drag(event: PointerEvent): void {
  const area = box.value?.getBoundingClientRect()
  if (dragged.value && area)
    set(
      polarAt((event.clientX - area.left) / area.width, 1 - (event.clientY - area.top) / area.height, props.zoom),
      dragged.value.from,
    )
}
function take(h: SkinHandle, event: PointerEvent): void {
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  dragged.value = { from: h, hueDegrees: h.hueDegrees, chroma: h.chroma }
}
function key(h: SkinHandle, event: KeyboardEvent): void {
  const turns = ({ ArrowLeft: 1, ArrowRight: -1 } as Record<string, number>)[event.key] ?? 0
  const outward = ({ ArrowUp: 1, ArrowDown: -1 } as Record<string, number>)[event.key] ?? 0
  if (turns === 0 && outward === 0) return
  event.preventDefault()
  event.stopPropagation()
  const by = event.shiftKey ? 10 : 1
  const { hueDegrees, chroma } = at(h)
  set(
    { hueDegrees: hueDegrees + turns * 0.5 * by, chroma: Math.max(0, chroma + outward * 0.02 * by) },
    dragged.value?.from ?? h,
  )
}
</script>

<template>
  <div
    ref="box"
    class="handles"
  >
    <button
      v-for="h in handles"
      :key="h.id"
      type="button"
      class="handle"
      role="slider"
      :class="{ dragged: dragged?.from.id === h.id }"
      :style="place(h)"
      :title="text.aims.skinHandleTip"
      :aria-label="text.aims.skinHandle(h.name)"
      :data-handle="h.id"
      aria-valuemin="0"
      aria-valuemax="360"
      :aria-valuenow="Number(at(h).hueDegrees.toFixed(1))"
      :aria-valuetext="`${at(h).hueDegrees.toFixed(1)}°, chroma ${(at(h).chroma * 100).toFixed(1)} %`"
      @pointerdown.stop="take(h, $event)"
      @pointermove.stop="drag"
      @pointerup="dragged = null"
      @pointercancel="dragged = null"
      @keydown="key(h, $event)"
      @blur="dragged = null"
    >
      <span aria-hidden="true" />
    </button>
  </div>
</template>

<style scoped>
.handles {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.handle {
  position: absolute;
  width: 24px;
  height: 24px;
  margin: 0 0 -12px -12px;
  padding: 0;
  background: none;
  border: 0;
  cursor: grab;
  pointer-events: auto;
  touch-action: none;
  display: grid;
  place-items: center;
}
.handle span {
  width: 14px;
  height: 14px;
  border: 2px solid var(--accent);
  border-radius: 50%;
  box-shadow:
    0 0 0 2px var(--well),
    inset 0 0 0 2px var(--well);
}
.handle:hover span,
.dragged span {
  border-color: var(--ink);
}
</style>
