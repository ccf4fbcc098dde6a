<script setup lang="ts">
// The foot, the body and the head of the waveform: dragged to where they should sit, they become aims.
import { ref } from 'vue'
import { levelHigh, levelLow } from '@core/index'
import { percent } from '../figures'
import { text } from '../text'

const props = defineProps<{ levels: { readonly black: number; readonly middle: number; readonly white: number } }>()
const emit = defineEmits<{ aim: [level: { readonly id: 'black' | 'middle' | 'white'; readonly value: number }] }>()
const ids = ['black', 'middle', 'white'] as const
const box = ref<HTMLElement | null>(null)
/** While a hand holds one it stays under the hand; the picture follows. */
const held = ref<{ readonly id: (typeof ids)[number]; readonly value: number } | null>(null)
const at = (id: (typeof ids)[number]): number => (held.value?.id === id ? held.value.value : props.levels[id])
const bottom = (value: number): string => `${((value - levelLow) / (levelHigh - levelLow)) * 100}%`

function move(id: (typeof ids)[number], value: number): void {
  const within = Math.min(1, Math.max(0, Math.round(value * 1000) / 1000))
  held.value = { id, value: within }
  emit('aim', { id, value: within })
}
function drag(id: (typeof ids)[number], event: PointerEvent): void {
  const area = box.value?.getBoundingClientRect()
  if (held.value?.id === id && area) move(id, levelLow + (1 - (event.clientY - area.top) / area.height) * (levelHigh - levelLow))
}
function take(id: (typeof ids)[number], event: PointerEvent): void {
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  held.value = { id, value: props.levels[id] }
}
function key(id: (typeof ids)[number], event: KeyboardEvent): void {
  const step = ({ ArrowUp: 1, ArrowDown: -1 } as Record<string, number>)[event.key]
  if (!step) return
  event.preventDefault()
  event.stopPropagation()
  move(id, at(id) + step * (event.shiftKey ? 0.05 : event.altKey ? 0.001 : 0.005))
}
</script>

<template>
  <div ref="box" class="handles">
    <button
      v-for="id in ids" :key="id" type="button" class="handle" role="slider" :class="{ held: held?.id === id }" :style="{ bottom: bottom(at(id)) }" :title="text.aims.handleTip[id]" :aria-label="text.aims.handle[id]" :data-handle="id"
      aria-orientation="vertical" :aria-valuenow="Number(percent(at(id)).replace('−', '-'))" :aria-valuetext="`${percent(at(id))} %`" aria-valuemin="0" aria-valuemax="100"
      @pointerdown.stop="take(id, $event)" @pointermove.stop="drag(id, $event)" @pointerup="held = null" @pointercancel="held = null" @keydown="key(id, $event)" @blur="held = null"
    ><span aria-hidden="true" /></button>
  </div>
</template>

<style scoped>
.handles { position: absolute; inset: 0; pointer-events: none; }
.handle { position: absolute; right: -10px; width: 24px; height: 24px; margin-bottom: -12px; padding: 0; background: none; border: 0; cursor: ns-resize; pointer-events: auto; touch-action: none; display: grid; place-items: center; }
.handle span { width: 14px; height: 4px; background: var(--accent); border-radius: var(--radius); }
.handle:hover span, .held span { height: 6px; background: var(--ink); }
</style>
