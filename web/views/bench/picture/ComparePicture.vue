<script setup lang="ts">
// A held picture over the present one: wiped along a line at any angle, side by side, or blinking.
import { useIntervalFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { TraceImage } from '@core/instruments'
import { putImage } from '../../../composables/putImage'
import type { CompareMode, Wipe } from '../../../stores/view'
import { text } from '../text'
import { wipePolygon } from './wipe'

const props = defineProps<{
  still: { readonly image: TraceImage; readonly name: string }
  mode: CompareMode
  wipe: Wipe
  aspect: number
}>()
const emit = defineEmits<{ wipe: [wipe: Wipe] }>()
const canvas = ref<HTMLCanvasElement | null>(null)
const box = ref<HTMLElement | null>(null)
const shown = ref(true)
watch(
  [() => props.still, canvas],
  ([still, target]) => {
    if (target) putImage(target, still.image)
  },
  { flush: 'post', immediate: true },
)
const blink = useIntervalFn(
  () => {
    shown.value = !shown.value
  },
  700,
  { immediate: false },
)
watch(
  () => props.mode,
  (mode) => {
    shown.value = true
    if (mode === 'blink') blink.resume()
    else blink.pause()
  },
  { immediate: true },
)

const clip = computed(() => (props.mode === 'wipe' ? { clipPath: wipePolygon(props.wipe, props.aspect) } : {}))
/** The line itself, through its middle. */
const line = computed(() => ({
  left: `${props.wipe.position * 100}%`,
  transform: `translate(-50%, -50%) rotate(${props.wipe.degrees}deg)`,
}))
let dragging: 'line' | 'turn' | null = null
function down(what: 'line' | 'turn', event: PointerEvent): void {
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  dragging = what
}
function move(event: PointerEvent): void {
  const area = box.value?.getBoundingClientRect()
  if (!dragging || !area) return
  if (dragging === 'line')
    emit('wipe', { ...props.wipe, position: Math.min(1, Math.max(0, (event.clientX - area.left) / area.width)) })
  else {
    const x = event.clientX - (area.left + props.wipe.position * area.width)
    const y = event.clientY - (area.top + area.height / 2)
    emit('wipe', { ...props.wipe, degrees: Math.round((Math.atan2(x, -y) * 180) / Math.PI) })
  }
}
function key(event: KeyboardEvent): void {
  const by = ({ ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 } as Record<string, number>)[event.key]
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  const turned = event.key === 'ArrowUp' || event.key === 'ArrowDown'
  emit(
    'wipe',
    turned
      ? { ...props.wipe, degrees: props.wipe.degrees + by * (event.shiftKey ? 15 : 1) }
      : { ...props.wipe, position: Math.min(1, Math.max(0, props.wipe.position + by * (event.shiftKey ? 0.1 : 0.01))) },
  )
}
</script>

<template>
  <div
    ref="box"
    class="compare"
    :class="mode"
    data-testid="compare"
    :data-mode="mode"
  >
    <canvas
      v-show="shown"
      ref="canvas"
      role="img"
      :aria-label="text.compare.heldPicture(still.name)"
      :style="clip"
    />
    <span class="name">{{ still.name }}</span>
    <div
      v-if="mode === 'wipe'"
      class="line"
      :style="line"
    >
      <button
        type="button"
        class="grip"
        role="slider"
        :aria-label="text.compare.line"
        :title="text.compare.lineTip"
        aria-valuemin="0"
        aria-valuemax="100"
        :aria-valuenow="Math.round(wipe.position * 100)"
        :aria-valuetext="`${Math.round(wipe.position * 100)} %, ${wipe.degrees}°`"
        @pointerdown.stop="down('line', $event)"
        @pointermove.stop="move"
        @pointerup="dragging = null"
        @pointercancel="dragging = null"
        @keydown="key"
      />
      <button
        type="button"
        class="turn"
        tabindex="-1"
        :aria-label="text.compare.turn"
        @pointerdown.stop="down('turn', $event)"
        @pointermove.stop="move"
        @pointerup="dragging = null"
        @pointercancel="dragging = null"
      />
    </div>
  </div>
</template>

<style scoped>
.compare {
  position: absolute;
  inset: 0;
  overflow: hidden;
  pointer-events: none;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.side canvas {
  inset: 25% 50% auto 0;
  width: 50%;
  height: 50%;
}
.name {
  position: absolute;
  left: var(--gap);
  top: var(--gap);
  padding: 0 var(--gap-small);
  background: var(--well);
  font-size: var(--text-small);
}
.line {
  position: absolute;
  top: 50%;
  width: 1px;
  height: 240%;
  background: var(--ink);
}
button {
  position: absolute;
  left: 50%;
  width: 24px;
  height: 24px;
  margin: -12px;
  padding: 0;
  border: 2px solid var(--ink);
  border-radius: 50%;
  background: var(--well);
  pointer-events: auto;
  touch-action: none;
}
.grip {
  top: 50%;
  cursor: ew-resize;
}
.turn {
  top: 40%;
  cursor: grab;
  border-style: dashed;
  width: 18px;
  height: 18px;
  margin: -9px;
}
</style>
