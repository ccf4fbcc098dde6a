<!-- Long: one control: scrubbing, keys, marks and losses share its scale. -->

<script setup lang="ts">
// The time line under the picture: the clip trace, the lead frame, the looped range, the moments worth a look, and
// where we are.
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { FrameTrace, Moment } from '@core/instruments'
import { text } from './text'

const props = defineProps<{
  first: number
  count: number
  frame: number
  leadFrame: number
  inFrame: number
  outFrame: number
  traces: readonly (FrameTrace | undefined)[]
  moments: readonly Moment[]
  share: number
  /** Frames at which a control is marked. */ marks: readonly number[]
  label: string
}>()
const emit = defineEmits<{ go: [frame: number]; grab: []; drop: [] }>()

const box = ref<HTMLElement | null>(null)
const canvas = ref<HTMLCanvasElement | null>(null)
const { width, height } = useElementSize(box)
const last = computed(() => props.first + props.count - 1)
/** Middle of a frame's place as a share of the line. */
const placeOf = (frame: number): number => (frame - props.first + 0.5) / props.count
const percent = (share: number): string => `${Math.min(1, Math.max(0, share)) * 100}%`

watch([() => props.traces, width, height, canvas], draw, { flush: 'post' })

/** The accent of the design and the quiet channel colours, as the canvas needs them. */
const colourOf = (name: string): string => (box.value ? getComputedStyle(box.value).getPropertyValue(name).trim() : '')

function draw(): void {
  const target = canvas.value
  const context = target?.getContext('2d')
  if (!target || !context || width.value === 0) return
  const scale = window.devicePixelRatio
  target.width = Math.round(width.value * scale)
  target.height = Math.round(height.value * scale)
  const w = target.width
  const h = target.height
  const step = w / Math.max(1, props.count)
  const y = (level: number): number => h - 1 - Math.min(1, Math.max(0, level)) * (h - 2)
  const columns = props.traces.flatMap((t, i) => (t ? [{ t, x: i * step }] : []))
  context.fillStyle = colourOf('--veil')
  for (const { t, x } of columns) context.fillRect(x, y(t.high), Math.max(1, step), Math.max(1, y(t.low) - y(t.high)))
  const line = (colour: string, value: (t: FrameTrace) => number, thickness: number): void => {
    context.strokeStyle = colour
    context.lineWidth = thickness * scale
    context.beginPath()
    columns.forEach(({ t, x }, i) =>
      i === 0 ? context.moveTo(x, y(value(t))) : context.lineTo(x + step / 2, y(value(t))),
    )
    context.stroke()
  }
  context.globalAlpha = 0.6
  line(colourOf('--trace-red'), (t) => t.balance[0], 1)
  line(colourOf('--trace-green'), (t) => t.balance[1], 1)
  line(colourOf('--trace-blue'), (t) => t.balance[2], 1)
  context.globalAlpha = 1
  line(colourOf('--accent'), (t) => t.middle, 1.5)
  // Shares that clip hang from the top, shares that are crushed stand on the bottom: a fifth of the height is one
  // percent and more.
  context.fillStyle = colourOf('--ink')
  const bar = (share: number): number =>
    share > 0.0005 ? Math.max(1.5 * scale, Math.min(1, share / 0.01) * h * 0.2) : 0
  for (const { t, x } of columns) {
    context.fillRect(x, 0, Math.max(1, step), bar(t.clipped))
    const crushed = bar(t.crushed)
    context.fillRect(x, h - crushed, Math.max(1, step), crushed)
  }
}

function at(event: PointerEvent): number {
  const rect = (event.currentTarget as HTMLElement).getBoundingClientRect()
  return Math.min(
    last.value,
    Math.max(props.first, props.first + Math.floor(((event.clientX - rect.left) / rect.width) * props.count)),
  )
}
function down(event: PointerEvent): void {
  box.value?.setPointerCapture(event.pointerId)
  emit('grab')
  emit('go', at(event))
}
function move(event: PointerEvent): void {
  if (box.value?.hasPointerCapture(event.pointerId)) emit('go', at(event))
}
function key(event: KeyboardEvent): void {
  const steps: Record<string, number> = {
    ArrowLeft: -1,
    ArrowRight: 1,
    PageUp: 12,
    PageDown: -12,
    Home: -props.count,
    End: props.count,
  }
  const step = steps[event.key]
  if (step === undefined) return
  event.preventDefault()
  emit('go', Math.min(last.value, Math.max(props.first, props.frame + step * (event.shiftKey ? 10 : 1))))
}
</script>

<template>
  <div
    ref="box"
    class="timeline"
    data-tour="time"
    role="slider"
    tabindex="0"
    :aria-label="text.frame"
    :aria-valuemin="0"
    :aria-valuemax="count - 1"
    :aria-valuenow="frame - first"
    :aria-valuetext="label"
    :data-traced="share"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="$emit('drop')"
    @pointercancel="$emit('drop')"
    @keydown="key"
  >
    <canvas
      ref="canvas"
      aria-hidden="true"
    />
    <span
      v-if="inFrame > first"
      class="out"
      :style="{ left: 0, width: percent((inFrame - first) / count) }"
    />
    <span
      v-if="outFrame < last"
      class="out"
      :style="{ right: 0, width: percent((last - outFrame) / count) }"
    />
    <span
      v-for="m in marks"
      :key="`mark ${m}`"
      class="mark"
      :style="{ left: percent(placeOf(m)) }"
      :data-mark="m - first"
    />
    <span
      class="lead"
      :style="{ left: percent(placeOf(leadFrame)) }"
    />
    <span
      v-for="m in moments"
      :key="m.frame"
      class="moment"
      :class="{ loss: m.kinds.some((k) => k === 'clips most' || k === 'crushed most') }"
      :style="{ left: percent(placeOf(m.frame)) }"
      :title="`${m.frame - first}: ${m.kinds.join(', ')}`"
    />
    <span
      class="here"
      :style="{ transform: `translateX(${percent(placeOf(frame))})` }"
    />
    <span
      v-if="share < 1"
      class="progress figures"
    >
      {{ text.tracing(share) }}
    </span>
  </div>
</template>

<style scoped>
.timeline {
  position: relative;
  height: 46px;
  background: var(--well);
  cursor: ew-resize;
  touch-action: none;
  overflow: hidden;
}
.timeline:focus-visible {
  outline-offset: -2px;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
span {
  position: absolute;
  pointer-events: none;
}
.out {
  top: 0;
  bottom: 0;
  background: rgb(0 0 0 / 55%);
}
/* A short bar across the middle: what a hand set. */
.mark {
  top: 50%;
  width: 5px;
  height: 10px;
  margin: -5px 0 0 -2.5px;
  background: var(--accent);
  border: 1px solid var(--well);
}
.lead {
  bottom: 0;
  width: 1px;
  height: 12px;
  background: var(--accent);
}
.lead::after {
  content: '';
  position: absolute;
  left: -3px;
  bottom: 0;
  border: 3.5px solid transparent;
  border-bottom-color: var(--accent);
}
.moment {
  top: 0;
  width: 9px;
  height: 9px;
  margin-left: -4.5px;
  border: var(--line) solid var(--ink);
  border-top: 0;
  transform: rotate(0);
  clip-path: polygon(0 0, 100% 0, 50% 100%);
  background: var(--ink-quiet);
  pointer-events: auto;
}
.moment.loss {
  background: var(--ink);
}
/* As wide as the line, so that it moves by shares of it without being laid out anew. */
.here {
  inset: 0;
}
.here::before {
  content: '';
  position: absolute;
  top: 0;
  bottom: 0;
  left: 0;
  width: 1px;
  background: var(--ink);
  box-shadow: 0 0 0 1px rgb(0 0 0 / 60%);
}
.progress {
  right: 4px;
  bottom: 2px;
  font-size: 10px;
  color: var(--ink-quiet);
  background: var(--well);
  padding: 0 3px;
}
</style>
