<script setup lang="ts">
// The tone curve: stops from middle grey across, the same upward. Click adds a point, drag moves it, Delete removes it.
import { computed, nextTick, ref } from 'vue'
import { addCurvePoint, logAtStops, monotoneCurve, moveCurvePoint, removeCurvePoint, stopsAtLog, type CurvePoint } from '@core/index'
import { text } from './text'

const props = defineProps<{ points: readonly CurvePoint[] }>()
const emit = defineEmits<{ change: [points: readonly CurvePoint[]]; hold: []; release: [] }>()

const low = logAtStops(-7.4), high = logAtStops(8.4)
const stops = [-6, -4, -2, 0, 2, 4, 6]
const svg = ref<SVGSVGElement | null>(null)
const dragged = ref<number | null>(null)

const toX = (log: number): number => ((log - low) / (high - low)) * 100
const toY = (log: number): number => 100 - toX(log)
const path = computed(() => {
  const curve = monotoneCurve(props.points)
  return Array.from({ length: 101 }, (_, i) => {
    const log = low + ((high - low) * i) / 100
    return `${i === 0 ? 'M' : 'L'} ${i} ${toY(curve(log)).toFixed(2)}`
  }).join(' ')
})
const label = ({ x, y }: CurvePoint): string => {
  const stop = (v: number): string => `${stopsAtLog(v) >= 0 ? '+' : '−'}${Math.abs(stopsAtLog(v)).toFixed(1)}`
  return `Point at ${stop(x)} stops, put to ${stop(y)} stops`
}

function at(e: PointerEvent): CurvePoint {
  const box = svg.value?.getBoundingClientRect()
  if (!box) return { x: low, y: low }
  const across = (e.clientX - box.left) / box.width, up = 1 - (e.clientY - box.top) / box.height
  return { x: low + across * (high - low), y: low + up * (high - low) }
}

function grab(index: number, e: PointerEvent): void {
  if (e.button !== 0) return
  svg.value?.setPointerCapture(e.pointerId)
  dragged.value = index
  emit('hold')
}
function add(e: PointerEvent): void {
  if (e.button !== 0) return
  const { x } = at(e)
  const added = addCurvePoint(props.points, { x, y: monotoneCurve(props.points)(x) })
  if (added === props.points) return
  emit('change', added)
  grab(added.findIndex((p) => p.x === x), e)
}
function drag(e: PointerEvent): void {
  if (dragged.value !== null) emit('change', moveCurvePoint(props.points, dragged.value, at(e), low, high))
}
function drop(): void {
  if (dragged.value === null) return
  dragged.value = null
  emit('release')
}
function key(index: number, e: KeyboardEvent): void {
  const by = 0.0057 * (e.shiftKey ? 10 : 1) * (e.altKey ? 0.1 : 1), point = props.points[index]
  const moves: Record<string, [number, number]> = { ArrowRight: [by, 0], ArrowLeft: [-by, 0], ArrowUp: [0, by], ArrowDown: [0, -by] }
  const move = moves[e.key]
  if (!point) return
  if (move) emit('change', moveCurvePoint(props.points, index, { x: point.x + move[0], y: point.y + move[1] }, low, high))
  else if (e.key === 'Delete' || e.key === 'Backspace') emit('change', removeCurvePoint(props.points, index))
  else if (e.key === 'Enter' || e.key === '+') void insertAfter(index)
  else return
  e.preventDefault()
  e.stopPropagation()
}
/** From the keyboard: a new point halfway to the next one, which then has the focus. */
async function insertAfter(index: number): Promise<void> {
  const here = props.points[index], next = props.points[index + 1]
  if (!here || !next) return
  const x = (here.x + next.x) / 2
  emit('change', addCurvePoint(props.points, { x, y: monotoneCurve(props.points)(x) }))
  await nextTick()
  svg.value?.querySelectorAll<SVGElement>('.point')[index + 1]?.focus()
}
</script>

<template>
  <figure class="curve">
    <svg ref="svg" viewBox="0 0 100 100" preserveAspectRatio="none" role="group" :aria-label="text.curve.label" data-testid="tone-curve" @pointerdown="add" @pointermove="drag" @pointerup="drop" @pointercancel="drop">
      <g class="grid"><template v-for="s in stops" :key="s"><line :x1="toX(logAtStops(s))" :x2="toX(logAtStops(s))" y1="0" y2="100" :class="{ grey: s === 0 }" /><line x1="0" x2="100" :y1="toY(logAtStops(s))" :y2="toY(logAtStops(s))" :class="{ grey: s === 0 }" /></template></g>
      <line class="straight" x1="0" y1="100" x2="100" y2="0" />
      <path :d="path" />
      <ellipse
        v-for="(p, i) in points" :key="i" class="point" :class="{ dragged: i === dragged }" :cx="toX(p.x)" :cy="toY(p.y)" rx="1.2" ry="2.6" tabindex="0" role="button" :aria-label="label(p)"
        @pointerdown.stop="grab(i, $event)" @keydown="key(i, $event)" @dblclick.stop="emit('change', removeCurvePoint(points, i))"
      />
    </svg>
    <figcaption class="figures quiet"><span>−7.4</span><span>{{ text.curve.help }}</span><span>+8.4 stops</span></figcaption>
  </figure>
</template>

<style scoped>
.curve { margin: 0; display: grid; grid-template-rows: 1fr auto; min-height: 0; height: 100%; }
svg { width: 100%; height: 100%; min-height: 0; background: var(--well); border: var(--line) solid var(--hairline); touch-action: none; cursor: crosshair; }
.grid line { stroke: var(--hairline); stroke-width: 1px; vector-effect: non-scaling-stroke; opacity: 0.4; }
.grid .grey { stroke: var(--hairline-strong); opacity: 0.8; }
.straight { stroke: var(--hairline-strong); stroke-dasharray: 2 4; stroke-width: 1px; vector-effect: non-scaling-stroke; }
path { fill: none; stroke: var(--ink); stroke-width: 1.5px; vector-effect: non-scaling-stroke; pointer-events: none; }
.point { fill: var(--well); stroke: var(--accent); stroke-width: 1.5px; vector-effect: non-scaling-stroke; cursor: grab; }
.point:hover, .point.dragged { fill: var(--accent); }
.point:focus-visible { outline: none; fill: var(--ink); stroke: var(--ink); stroke-width: 3px; }
figcaption { display: flex; justify-content: space-between; font-size: 10px; white-space: nowrap; }
</style>
