<script setup lang="ts">
// The strength of all steps of a station: a bar at its foot to drag, or arrow keys.
import { clamp01 } from '@core/numbers'
import { ref } from 'vue'
import { useGesture } from '../../../composables/useGesture'
import { text } from '../text'

const props = defineProps<{ name: string; modelValue: number }>()
const emit = defineEmits<{ 'update:modelValue': [value: number] }>()
const bar = ref<HTMLElement | null>(null)
const set = (value: number): void => {
  const bounded = clamp01(Math.round(value * 100) / 100)
  if (bounded !== props.modelValue) emit('update:modelValue', bounded)
}

function at(event: PointerEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  set((event.clientX - box.left) / box.width)
}
const gesture = useGesture()
let dragging = false
function down(event: PointerEvent): void {
  if (event.button !== 0) return
  bar.value?.setPointerCapture(event.pointerId)
  dragging = true
  gesture.begin(event)
  at(event)
}
function up(): void {
  if (!dragging) return
  dragging = false
  gesture.end()
}
function key(event: KeyboardEvent): void {
  const step = { ArrowRight: 0.01, ArrowUp: 0.01, ArrowLeft: -0.01, ArrowDown: -0.01 }[event.key]
  if (step) set(props.modelValue + step * (event.shiftKey ? 10 : 1))
  else if (event.key === 'Home') set(0)
  else if (event.key === 'End' || event.key === 'Delete') set(1)
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div
    ref="bar"
    class="strength"
    role="slider"
    tabindex="0"
    :aria-label="text.strengthOf(name)"
    aria-valuemin="0"
    aria-valuemax="100"
    :aria-valuenow="Math.round(modelValue * 100)"
    :aria-valuetext="`${Math.round(modelValue * 100)} %`"
    :title="text.strengthTip"
    @pointerdown.stop="down"
    @pointermove="dragging && at($event)"
    @pointerup="up"
    @pointercancel="up"
    @keydown="key"
  >
    <span
      class="fill"
      :style="{ width: `${modelValue * 100}%` }"
    />
    <span class="figures">{{ Math.round(modelValue * 100) }} %</span>
  </div>
</template>

<style scoped>
.strength {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  height: 24px;
  cursor: ew-resize;
  touch-action: none;
  font-size: 9.5px;
  line-height: 12px;
  padding-top: 10px;
  padding-left: var(--gap);
  color: var(--ink-quiet);
}
.fill {
  position: absolute;
  left: 0;
  bottom: 0;
  height: 3px;
  background: var(--accent);
}
.strength::before {
  content: '';
  position: absolute;
  inset: auto 0 0;
  height: 3px;
  background: var(--hairline);
}
.strength:focus-visible {
  outline-offset: -2px;
}
</style>
