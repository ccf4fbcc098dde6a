<!-- Long: one control: dragging, keys and drawing share its scale. -->

<script setup lang="ts">
// A curve through points on a field of two axes. Click adds a point, drag moves it, Delete removes it; arrows move the
// chosen one. What lies behind is the caller's.
import { computed, nextTick, ref } from 'vue'
import { useGesture } from '../../../composables/useGesture'
import { clamp } from '@core/numbers'
import {
  addCurvePoint,
  monotoneCurve,
  moveCurvePoint,
  periodicCurve,
  removeCurvePoint,
  type CurvePoint,
} from '@core/grade'

export interface Tick {
  readonly at: number
  readonly strong?: boolean
}
const props = defineProps<{
  points: readonly CurvePoint[]
  x: readonly [number, number]
  y: readonly [number, number]
  periodic?: boolean
  xTicks: readonly Tick[]
  yTicks: readonly Tick[]
  label: string
  pointLabel: (point: CurvePoint) => string
  testId: string
  /** What one press of an arrow key moves, across and up. */ step: readonly [number, number]
  /** Stretches of x that are marked with a warning. */ marked?: readonly {
    readonly from: number
    readonly to: number
  }[]
}>()
const emit = defineEmits<{ change: [points: readonly CurvePoint[]]; chosen: [index: number] }>()

const svg = ref<SVGSVGElement | null>(null)
const dragged = ref<number | null>(null)
const toX = (v: number): number => ((v - props.x[0]) / (props.x[1] - props.x[0])) * 100
const toY = (v: number): number => 100 - ((v - props.y[0]) / (props.y[1] - props.y[0])) * 100
const curve = computed(() =>
  props.periodic ? periodicCurve(props.points, props.x[1] - props.x[0]) : monotoneCurve(props.points),
)
const path = computed(() =>
  Array.from(
    { length: 181 },
    (_, i) =>
      `${i === 0 ? 'M' : 'L'} ${(i / 1.8).toFixed(2)} ` +
      `${toY(curve.value(props.x[0] + ((props.x[1] - props.x[0]) * i) / 180)).toFixed(2)}`,
  ).join(' '),
)
/** Short of the end of a curve that goes round: its end is its beginning. */
const right = computed(() => (props.periodic ? props.x[1] - (props.x[1] - props.x[0]) * 0.0005 : props.x[1]))

function at(e: PointerEvent): CurvePoint {
  const box = svg.value?.getBoundingClientRect()
  if (!box) return { x: props.x[0], y: props.y[0] }
  return {
    x: Math.min(right.value, props.x[0] + ((e.clientX - box.left) / box.width) * (props.x[1] - props.x[0])),
    y: props.y[0] + (1 - (e.clientY - box.top) / box.height) * (props.y[1] - props.y[0]),
  }
}
/** Points move in a space where the axes are of one length, so that they keep the same distance on every field. */
function moved(index: number, to: CurvePoint): readonly CurvePoint[] {
  const [x0] = props.x
  const span = right.value - x0
  const unit = (p: CurvePoint): CurvePoint => ({ x: (p.x - x0) / span, y: p.y })
  const place = moveCurvePoint(props.points.map(unit), index, unit(to), 0, 1)[index]
  if (!place) return props.points
  const point = { x: x0 + place.x * span, y: clamp(to.y, props.y[0], props.y[1]) }
  return props.points.map((p, i) => (i === index ? point : p))
}
const gesture = useGesture()
function grab(index: number, e: PointerEvent): void {
  if (e.button !== 0) return
  svg.value?.setPointerCapture(e.pointerId)
  dragged.value = index
  emit('chosen', index)
  gesture.begin(e)
}
function add(e: PointerEvent): void {
  if (e.button !== 0) return
  const { x } = at(e)
  const near = (props.x[1] - props.x[0]) * 0.004
  if (props.points.some((p) => Math.abs(p.x - x) < near)) return
  const added = addCurvePoint(props.points, { x, y: Math.min(props.y[1], Math.max(props.y[0], curve.value(x))) })
  emit('change', added)
  grab(
    added.findIndex((p) => p.x === x),
    e,
  )
}
function drag(e: PointerEvent): void {
  if (dragged.value !== null) emit('change', moved(dragged.value, at(e)))
}
function drop(): void {
  if (dragged.value === null) return
  dragged.value = null
  gesture.end()
}
function key(index: number, e: KeyboardEvent): void {
  const by = (e.shiftKey ? 10 : 1) * (e.altKey ? 0.1 : 1)
  const point = props.points[index]
  const [across, up] = props.step
  const moves: Record<string, [number, number]> = {
    ArrowRight: [across, 0],
    ArrowLeft: [-across, 0],
    ArrowUp: [0, up],
    ArrowDown: [0, -up],
  }
  const move = moves[e.key]
  if (!point) return
  if (move) emit('change', moved(index, { x: point.x + move[0] * by, y: point.y + move[1] * by }))
  else if (e.key === 'Delete' || e.key === 'Backspace') emit('change', removeCurvePoint(props.points, index))
  else if (e.key === 'Enter' || e.key === '+') void insertAfter(index)
  else return
  e.preventDefault()
  e.stopPropagation()
}
/** From the keyboard: a new point halfway to the next one, which then has the focus. */
async function insertAfter(index: number): Promise<void> {
  const here = props.points[index]
  const next = props.points[index + 1]
  if (!here || !next) return
  const x = (here.x + next.x) / 2
  emit('change', addCurvePoint(props.points, { x, y: curve.value(x) }))
  await nextTick()
  svg.value?.querySelectorAll<SVGElement>('.point')[index + 1]?.focus()
}
</script>

<template>
  <div class="field">
    <slot />
    <svg
      ref="svg"
      viewBox="0 0 100 100"
      preserveAspectRatio="none"
      role="group"
      :aria-label="label"
      :data-testid="testId"
      @pointerdown="add"
      @pointermove="drag"
      @pointerup="drop"
      @pointercancel="drop"
    >
      <g class="grid">
        <line
          v-for="t in xTicks"
          :key="`x${t.at}`"
          :x1="toX(t.at)"
          :x2="toX(t.at)"
          y1="0"
          y2="100"
          :class="{ strong: t.strong }"
        />
        <line
          v-for="t in yTicks"
          :key="`y${t.at}`"
          x1="0"
          x2="100"
          :y1="toY(t.at)"
          :y2="toY(t.at)"
          :class="{ strong: t.strong }"
        />
      </g>
      <rect
        v-for="m in marked ?? []"
        :key="m.from"
        class="marked"
        :x="toX(m.from)"
        :width="Math.max(0.4, toX(m.to) - toX(m.from))"
        y="96"
        height="4"
      />
      <path :d="path" />
      <ellipse
        v-for="(p, i) in points"
        :key="i"
        class="point"
        :class="{ dragged: i === dragged }"
        :cx="toX(p.x)"
        :cy="toY(p.y)"
        rx="0.9"
        ry="4"
        tabindex="0"
        role="button"
        :aria-label="pointLabel(p)"
        @pointerdown.stop="grab(i, $event)"
        @keydown="key(i, $event)"
        @focus="emit('chosen', i)"
        @dblclick.stop="emit('change', removeCurvePoint(points, i))"
      />
    </svg>
  </div>
</template>

<style scoped>
.field {
  position: relative;
  min-height: 0;
  background: var(--well);
  border: var(--line) solid var(--hairline);
  overflow: hidden;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  touch-action: none;
  cursor: crosshair;
}
.grid line {
  stroke: var(--hairline);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
  opacity: 0.4;
}
.grid .strong {
  stroke: var(--hairline-strong);
  opacity: 0.9;
}
.marked {
  fill: var(--warning);
}
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5px;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.point {
  fill: var(--well);
  stroke: var(--accent);
  stroke-width: 1.5px;
  vector-effect: non-scaling-stroke;
  cursor: grab;
}
.point:hover,
.point.dragged {
  fill: var(--accent);
}
.point:focus-visible {
  outline: none;
  fill: var(--ink);
  stroke: var(--ink);
  stroke-width: 3px;
}
</style>
