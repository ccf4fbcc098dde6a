<!-- Long: one control: four handles on one scale, by pointer and by key. -->

<script setup lang="ts">
// A range with soft ends over the picture's distribution: drag its middle, its ends, or how far they fade; each end
// takes arrow keys and a number.
import { computed, ref } from 'vue'
import { useGesture } from '../../../composables/useGesture'
import { arrowStep } from '../../../composables/arrowStep'
import { ElSwitch } from 'element-plus'
import type { SoftRange } from '@core/regions'
import { text } from '../text'

const props = defineProps<{
  id: string
  label: string
  tip: string
  unit: string
  low: number
  high: number
  /** Its end meets its beginning. */ round?: boolean
  counts: Float32Array | null
  range: SoftRange | null
  step: number
}>()
const emit = defineEmits<{ range: [range: SoftRange]; on: [on: boolean] }>()
const { range: words } = text.regions
type End = 'low' | 'high' | 'softLow' | 'softHigh' | 'all'
const bar = ref<SVGSVGElement | null>(null)
const span = computed(() => props.high - props.low)
const toX = (v: number): number => ((v - props.low) / span.value) * 100
const decimals = computed(() => (props.round ? 0 : 3))
const hues = Array.from({ length: 36 }, (_, i) => `oklch(0.62 0.11 ${i * 10 + 5})`)
const bins = computed(() => {
  const { counts } = props
  return counts
    ? Array.from(counts, (n, i) => ({ x: (i * 100) / counts.length, width: 100 / counts.length, height: 26 * n }))
    : []
})
/** Once more a turn before and after, so that a range across the seam is seen on both sides. */
const shifts = computed(() => (props.round ? [-360, 0, 360] : [0]))
const path = (by: number): string => {
  const r = props.range
  if (!r) return ''
  const at = (v: number): string => toX(v + by).toFixed(2)
  return `M ${at(r.low - r.softLow)} 28 L ${at(r.low)} 2 L ${at(r.high)} 2 L ${at(r.high + r.softHigh)} 28 Z`
}
const ends = computed(() => {
  const r = props.range
  return r
    ? ([
        ['softLow', r.low - r.softLow, words.softLow],
        ['low', r.low, words.low],
        ['high', r.high, words.high],
        ['softHigh', r.high + r.softHigh, words.softHigh],
      ] as const)
    : []
})
const wrapped = (v: number): number => (props.round ? ((((v - props.low) % 360) + 360) % 360) + props.low : v)

const gesture = useGesture()
let active: { readonly end: End; readonly from: number; readonly range: SoftRange } | null = null
const valueAt = (e: PointerEvent): number => {
  const box = bar.value?.getBoundingClientRect()
  return box ? props.low + ((e.clientX - box.left) / box.width) * span.value : props.low
}
function down(end: End, e: PointerEvent): void {
  if (e.button !== 0 || !props.range) return
  bar.value?.setPointerCapture(e.pointerId)
  active = { end, from: valueAt(e), range: props.range }
  gesture.begin(e)
}
function move(e: PointerEvent): void {
  if (active) emit('range', moved(active.range, active.end, valueAt(e) - active.from))
}
function up(): void {
  if (!active) return
  active = null
  gesture.end()
}
const fine = (v: number): number => Math.round(v * 1e4) / 1e4
const most = computed(() => (props.round ? 180 : 1))
function moved(r: SoftRange, end: End, by: number): SoftRange {
  const bounds = (v: number): number => (props.round ? v : Math.min(3, Math.max(props.id === 'chroma' ? 0 : -0.2, v)))
  switch (end) {
    case 'all':
      return { ...r, low: fine(bounds(r.low + by)), high: fine(bounds(r.high + by)) }
    case 'low':
      return { ...r, low: fine(Math.min(r.high, bounds(r.low + by))) }
    case 'high':
      return { ...r, high: fine(Math.max(r.low, bounds(r.high + by))) }
    case 'softLow':
      return { ...r, softLow: fine(Math.min(most.value, Math.max(0, r.softLow - by))) }
    case 'softHigh':
      return { ...r, softHigh: fine(Math.min(most.value, Math.max(0, r.softHigh + by))) }
  }
}
function key(end: End, e: KeyboardEvent): void {
  const { dx, dy } = arrowStep(e)
  const direction = dx - dy
  if (direction === 0 || !props.range) return
  emit('range', moved(props.range, end, direction * props.step * (e.shiftKey ? 10 : 1) * (e.altKey ? 0.1 : 1)))
  e.preventDefault()
  e.stopPropagation()
}
function typed(end: 'low' | 'high', e: Event): void {
  const value = Number((e.target as HTMLInputElement).value.replace('−', '-').replace(',', '.'))
  if (props.range && Number.isFinite(value)) emit('range', moved(props.range, end, value - props.range[end]))
}
</script>

<template>
  <div
    class="range"
    :data-range="id"
  >
    <label>
      <ElSwitch
        :model-value="range !== null"
        :aria-label="words.on(label)"
        @update:model-value="emit('on', Boolean($event))"
      />
      {{ ' ' }}
      <span :data-tip="tip">{{ label }}</span>
    </label>
    <svg
      ref="bar"
      viewBox="0 0 100 30"
      preserveAspectRatio="none"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
    >
      <template v-if="round">
        <rect
          v-for="(c, i) in hues"
          :key="i"
          :x="i * (100 / 36)"
          y="27.5"
          :width="100 / 36 + 0.1"
          height="2.5"
          :fill="c"
        />
      </template>
      <rect
        v-for="(b, i) in bins"
        :key="`b${i}`"
        class="bin"
        :x="b.x"
        :y="28 - b.height"
        :width="b.width"
        :height="b.height"
      />
      <template v-if="range">
        <path
          v-for="s in shifts"
          :key="s"
          class="shape"
          :d="path(s)"
          @pointerdown="down('all', $event)"
        />
        <line
          v-for="[end, value, name] in ends"
          :key="end"
          class="end"
          :class="{ soft: end.startsWith('soft') }"
          :x1="toX(wrapped(value))"
          :x2="toX(wrapped(value))"
          :y1="end.startsWith('soft') ? 16 : 1"
          y2="28"
          tabindex="0"
          role="slider"
          :aria-label="`${label}: ${name}`"
          :aria-valuenow="value"
          :aria-valuemin="low"
          :aria-valuemax="high"
          @pointerdown.stop="down(end, $event)"
          @keydown="key(end, $event)"
        />
      </template>
    </svg>
    <span class="values figures">
      <template v-if="range">
        <input
          :value="range.low.toFixed(decimals)"
          :aria-label="`${label} ${words.low}`"
          @change="typed('low', $event)"
          @keydown.stop
        />
        …
        <input
          :value="range.high.toFixed(decimals)"
          :aria-label="`${label} ${words.high}`"
          @change="typed('high', $event)"
          @keydown.stop
        />
        {{ unit }}
      </template>
      <span
        v-else
        class="quiet"
      >
        {{ words.any }}
      </span>
    </span>
  </div>
</template>

<style scoped>
.range {
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr) 132px;
  gap: var(--gap);
  align-items: center;
}
label {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  font-size: 12px;
}
svg {
  width: 100%;
  height: 30px;
  background: var(--well);
  border: var(--line) solid var(--hairline);
  touch-action: none;
  overflow: hidden;
}
.bin {
  fill: var(--hairline-strong);
}
.shape {
  fill: var(--veil);
  stroke: var(--accent);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
  cursor: grab;
}
.end {
  stroke: var(--accent);
  stroke-width: 5px;
  stroke-opacity: 0.55;
  vector-effect: non-scaling-stroke;
  cursor: ew-resize;
}
.end.soft {
  stroke-width: 4px;
  stroke-opacity: 0.3;
}
.end:hover {
  stroke-opacity: 1;
}
.end:focus-visible {
  outline: none;
  stroke: var(--ink);
  stroke-opacity: 1;
}
.values {
  font-size: 12px;
  white-space: nowrap;
}
.values input {
  width: 50px;
  background: none;
  border: var(--line) solid transparent;
  border-radius: var(--radius);
  text-align: right;
  height: 20px;
  padding: 0 2px;
}
.values input:hover,
.values input:focus {
  background: var(--well);
  border-color: var(--hairline);
}
</style>
