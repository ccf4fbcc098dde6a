<script setup lang="ts">
// Handles on a trace: the foot, the body and the head of the waveform, the feet of the parade. Dragged to where they
// should sit, they become aims.
import { ref } from 'vue'
import { levelHigh, levelLow } from '@core/instruments'
import { percent } from '../figures'
import type { LevelHandle } from './handles'

defineProps<{ handles: readonly LevelHandle[] }>()
const emit = defineEmits<{ aim: [id: LevelHandle['id'], value: number] }>()
const box = ref<HTMLElement | null>(null)
/** While a hand holds one it stays under the hand; the picture follows. */
const dragged = ref<{ readonly id: string; readonly value: number } | null>(null)
const at = ({ id, value }: LevelHandle): number => (dragged.value?.id === id ? dragged.value.value : value)
const place = (h: LevelHandle): Record<string, string> => ({
  bottom: `${((at(h) - levelLow) / (levelHigh - levelLow)) * 100}%`,
  left: `${h.across * 100}%`,
})

function move(handle: LevelHandle, value: number): void {
  const within = Math.min(1, Math.max(0, Math.round(value * 1000) / 1000))
  dragged.value = { id: handle.id, value: within }
  emit('aim', handle.id, within)
}
function drag(handle: LevelHandle, event: PointerEvent): void {
  const area = box.value?.getBoundingClientRect()
  if (dragged.value?.id === handle.id && area)
    move(handle, levelLow + (1 - (event.clientY - area.top) / area.height) * (levelHigh - levelLow))
}
function take(handle: LevelHandle, event: PointerEvent): void {
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  dragged.value = { id: handle.id, value: handle.value }
}
function key(handle: LevelHandle, event: KeyboardEvent): void {
  const step = ({ ArrowUp: 1, ArrowDown: -1 } as Record<string, number>)[event.key]
  if (!step) return
  event.preventDefault()
  event.stopPropagation()
  const fine = event.altKey ? 0.001 : 0.005
  move(handle, at(handle) + step * (event.shiftKey ? 0.05 : fine))
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
      :class="{ dragged: dragged?.id === h.id }"
      :style="place(h)"
      :title="h.tip"
      :aria-label="h.name"
      :data-handle="h.id"
      aria-orientation="vertical"
      :aria-valuenow="Number(percent(at(h)).replace('−', '-'))"
      :aria-valuetext="`${percent(at(h))} %`"
      aria-valuemin="0"
      aria-valuemax="100"
      @pointerdown.stop="take(h, $event)"
      @pointermove.stop="drag(h, $event)"
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
  contain: size layout style;
}
.handle {
  position: absolute;
  width: 24px;
  height: 24px;
  margin: 0 0 -12px -14px;
  padding: 0;
  background: none;
  border: 0;
  cursor: ns-resize;
  pointer-events: auto;
  touch-action: none;
  display: grid;
  place-items: center;
}
.handle span {
  width: 14px;
  height: 4px;
  background: var(--accent);
  border-radius: var(--radius);
}
.handle:hover span,
.dragged span {
  height: 6px;
  background: var(--ink);
}
</style>
