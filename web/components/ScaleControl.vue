<!-- Long: one control: pointer, keys, wheel and typing share its value. -->

<script setup lang="ts">
// A number on a scale: drag, wheel, arrow keys (Shift ×10, Alt ×0.1), typing, double-click on the name to reset.
import { computed, ref } from 'vue'
import { useGesture } from '../composables/useGesture'
import { printNumber, clamp } from '@core/numbers'
import type { NumberParameter } from '@core/grade'

const props = defineProps<{
  parameter: NumberParameter
  modelValue: number
  effect?: string | undefined
  /** The same value in another unit. */ also?: string
  disabled?: boolean
}>()
const emit = defineEmits<{
  'update:modelValue': [value: number]
  /** The name is held down: what does it look like without. */ without: [on: boolean]
}>()

const track = ref<HTMLElement | null>(null)
const typed = ref<string | null>(null)
const factor = computed(() => props.parameter.shownFactor ?? 1)
const ends = computed(() => props.parameter.scale ?? ([props.parameter.min, props.parameter.max] as const))
const share = (value: number): number =>
  Math.min(1, Math.max(0, (value - ends.value[0]) / (ends.value[1] - ends.value[0])))
const ticks = [0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 1]

const shown = computed(() => {
  const { decimals, signed } = props.parameter
  return printNumber(props.modelValue * factor.value, decimals, signed)
})

function set(value: number): void {
  const { min, max, decimals } = props.parameter
  const fine = 10 ** (decimals + 2) * factor.value
  const bounded = clamp(Math.round(value * fine) / fine, min, max)
  if (Number.isFinite(bounded) && bounded !== props.modelValue) emit('update:modelValue', bounded)
}

const gesture = useGesture()
let dragFrom: { x: number; value: number } | null = null
function down(e: PointerEvent): void {
  if (props.disabled || e.button !== 0) return
  track.value?.setPointerCapture(e.pointerId)
  dragFrom = { x: e.clientX, value: props.modelValue }
  gesture.begin(e)
}
function move(e: PointerEvent): void {
  if (!dragFrom || !track.value) return
  const perPixel = (ends.value[1] - ends.value[0]) / track.value.clientWidth
  set(dragFrom.value + (e.clientX - dragFrom.x) * perPixel * (e.altKey ? 0.1 : 1))
}
function up(): void {
  if (!dragFrom) return
  dragFrom = null
  gesture.end()
}

const stride = (e: { shiftKey: boolean; altKey: boolean }): number =>
  props.parameter.step * (e.shiftKey ? 10 : 1) * (e.altKey ? 0.1 : 1)
function wheel(e: WheelEvent): void {
  if (!props.disabled) set(props.modelValue - Math.sign(e.deltaY || e.deltaX) * stride(e))
}
function key(e: KeyboardEvent): void {
  if (props.disabled) return
  const moves: Record<string, number> = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }
  const direction = moves[e.key]
  if (direction) set(props.modelValue + direction * stride(e))
  else if (e.key === 'Home') set(ends.value[0])
  else if (e.key === 'End') set(ends.value[1])
  else if (e.key === 'Delete' || e.key === 'Backspace') reset()
  else return
  e.preventDefault()
  e.stopPropagation()
}
function reset(): void {
  set(props.parameter.default)
}

function accept(): void {
  if (typed.value === null) return
  const value = Number(typed.value.trim().replace('−', '-').replace(',', '.'))
  typed.value = null
  if (Number.isFinite(value)) set(value / factor.value)
}
</script>

<template>
  <div
    class="control"
    :class="{ disabled }"
  >
    <button
      :data-tip="parameter.tip"
      type="button"
      class="name"
      :disabled="disabled"
      :title="`Hold to see it without; double-click resets to ${parameter.default * factor}`"
      @dblclick="reset"
      @pointerdown="emit('without', true)"
      @pointerup="emit('without', false)"
      @pointerleave="emit('without', false)"
      @pointercancel="emit('without', false)"
    >
      {{ parameter.label }}
    </button>
    <div
      ref="track"
      class="track"
      role="slider"
      :tabindex="disabled ? -1 : 0"
      :aria-label="parameter.label"
      :aria-valuemin="parameter.min * factor"
      :aria-valuemax="parameter.max * factor"
      :aria-valuenow="modelValue * factor"
      :aria-valuetext="`${shown} ${parameter.unit}`"
      :aria-disabled="disabled"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
      @wheel.prevent="wheel"
      @keydown="key"
    >
      <svg
        class="ticks"
        preserveAspectRatio="none"
        viewBox="0 0 100 10"
        aria-hidden="true"
      >
        <line
          x1="0"
          x2="100"
          y1="5"
          y2="5"
        />
        <line
          v-for="t in ticks"
          :key="t"
          :x1="t * 100"
          :x2="t * 100"
          :y1="t % 0.25 ? 3 : 1"
          :y2="t % 0.25 ? 7 : 9"
        />
      </svg>
      <span
        class="neutral"
        :style="{ left: `${share(parameter.default) * 100}%` }"
      />
      <span
        class="mark"
        :style="{ left: `${share(modelValue) * 100}%` }"
      />
    </div>
    <input
      class="figures value"
      inputmode="decimal"
      :disabled="disabled"
      :aria-label="`${parameter.label}, ${parameter.unit}`"
      :value="typed ?? shown"
      @focus="($event.target as HTMLInputElement).select()"
      @input="typed = ($event.target as HTMLInputElement).value"
      @change="accept"
      @blur="accept"
      @keydown.enter="accept"
      @keydown.escape="typed = null"
      @keydown.stop
    />
    <span class="unit quiet">
      {{ parameter.unit }}
      <span
        v-if="also"
        class="figures also"
      >
        {{ also }}
      </span>
    </span>
    <span class="effect quiet figures">
      <span aria-live="off">{{ effect ?? '' }}</span>
    </span>
  </div>
</template>

<style scoped>
.control {
  display: grid;
  grid-template-columns: 100px minmax(84px, 1fr) 58px var(--unit-width, 62px) 104px;
  align-items: center;
  gap: var(--gap);
  height: var(--control);
}
.control.disabled {
  opacity: 0.55;
}
.name {
  background: none;
  border: 0;
  padding: 0;
  text-align: left;
  cursor: default;
  width: 100%;
  white-space: nowrap;
}
.track {
  position: relative;
  height: 18px;
  cursor: ew-resize;
  touch-action: none;
}
.ticks {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.ticks line {
  stroke: var(--hairline-strong);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
.mark,
.neutral {
  position: absolute;
  top: 0;
  bottom: 0;
  transform: translateX(-50%);
  pointer-events: none;
}
.mark {
  width: 3px;
  background: var(--accent);
}
.neutral {
  width: 1px;
  background: var(--ink-quiet);
}
.track:hover .mark {
  width: 5px;
}
.value {
  width: 100%;
  text-align: right;
  background: none;
  border: var(--line) solid transparent;
  border-radius: var(--radius);
  padding: 0 var(--gap-small);
  height: 20px;
}
.value:hover,
.value:focus {
  background: var(--well);
  border-color: var(--hairline);
}
.also {
  margin-left: var(--gap-small);
}
.unit {
  white-space: nowrap;
  font-size: var(--text-small);
}
/* It changes with every picture: laid out by itself. */
.effect {
  position: relative;
  height: var(--control);
  white-space: nowrap;
  font-size: var(--text-small);
  line-height: var(--control);
}
.effect span {
  position: absolute;
  inset: 0;
  contain: strict;
}
</style>
