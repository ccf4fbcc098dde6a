<script setup lang="ts">
// The chosen region's ellipse on the picture: drag inside to move, on the squares to resize, on the round handle to turn,
// on the dashed line to feather. Each handle takes arrow keys as well.
import { computed, ref } from 'vue'
import { regionBounds, type Region } from '@core/index'

const props = defineProps<{ region: Region; aspect: number }>()
const emit = defineEmits<{ shape: [change: Partial<Region['shape']>]; feather: [value: number]; hold: []; release: [] }>()

type Handle = 'move' | 'right' | 'left' | 'bottom' | 'top' | 'turn' | 'feather'
const svg = ref<SVGSVGElement | null>(null)

// The drawing's unit is the frame's height: the frame is `aspect` wide and 1 high.
const shape = computed(() => props.region.shape)
const centre = computed(() => ({ x: shape.value.centreX * props.aspect, y: shape.value.centreY }))
const turnReach = 0.06
const handles = computed((): { id: Handle; x: number; y: number; name: string }[] => [
  { id: 'right', x: shape.value.radiusX, y: 0, name: 'right edge' },
  { id: 'left', x: -shape.value.radiusX, y: 0, name: 'left edge' },
  { id: 'bottom', x: 0, y: shape.value.radiusY, name: 'lower edge' },
  { id: 'top', x: 0, y: -shape.value.radiusY, name: 'upper edge' },
])
const innerScale = computed(() => Math.max(0.02, 1 - props.region.feather / 2))
const outerScale = computed(() => 1 + props.region.feather / 2)

let active: { handle: Handle; start: DOMPoint; shape: Region['shape']; feather: number } | null = null

function toFrame(e: PointerEvent): DOMPoint {
  const matrix = svg.value?.getScreenCTM()
  return matrix ? new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse()) : new DOMPoint()
}
function start(handle: Handle, e: PointerEvent): void {
  if (e.button !== 0) return
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  active = { handle, start: toFrame(e), shape: props.region.shape, feather: props.region.feather }
  emit('hold')
}
function drag(e: PointerEvent): void {
  if (!active) return
  const at = toFrame(e)
  const { handle, start: from, shape: was } = active
  const cx = was.centreX * props.aspect, cy = was.centreY
  const local = inShape(at.x - cx, at.y - cy, was.rotationDegrees)
  if (handle === 'move') moveTo(was.centreX + (at.x - from.x) / props.aspect, was.centreY + at.y - from.y)
  else if (handle === 'turn') turnTo((Math.atan2(at.y - cy, at.x - cx) * 180) / Math.PI + 90)
  else if (handle === 'feather') featherTo(2 * (Math.hypot(local.x / was.radiusX, local.y / was.radiusY) - 1))
  else if (handle === 'left' || handle === 'right') resize(Math.abs(local.x), was.radiusY)
  else resize(was.radiusX, Math.abs(local.y))
}
function end(): void {
  if (!active) return
  active = null
  emit('release')
}

function inShape(x: number, y: number, degrees: number): { x: number; y: number } {
  const a = (degrees * Math.PI) / 180
  return { x: x * Math.cos(a) + y * Math.sin(a), y: y * Math.cos(a) - x * Math.sin(a) }
}
const within = (value: number, { min, max }: { min: number; max: number }): number => Math.min(max, Math.max(min, value))
const moveTo = (x: number, y: number): void => emit('shape', { centreX: within(x, regionBounds.centre), centreY: within(y, regionBounds.centre) })
const resize = (x: number, y: number): void => emit('shape', { radiusX: within(x, regionBounds.radius), radiusY: within(y, regionBounds.radius) })
const turnTo = (degrees: number): void => emit('shape', { rotationDegrees: ((degrees + 540) % 360) - 180 })
const featherTo = (value: number): void => emit('feather', within(value, regionBounds.feather))

function key(handle: Handle, e: KeyboardEvent): void {
  const dx = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0, dy = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0
  if (dx === 0 && dy === 0) return
  e.preventDefault()
  e.stopPropagation()
  const by = (e.shiftKey ? 10 : 1) * (e.altKey ? 0.1 : 1), s = shape.value
  if (handle === 'move') moveTo(s.centreX + (dx * by * 0.005) / props.aspect, s.centreY + dy * by * 0.005)
  else if (handle === 'turn') turnTo(s.rotationDegrees + (dx + dy) * by)
  else if (handle === 'feather') featherTo(props.region.feather + (dx - dy) * by * 0.01)
  else if (handle === 'left' || handle === 'right') resize(s.radiusX + (dx - dy) * by * 0.005, s.radiusY)
  else resize(s.radiusX, s.radiusY + (dx - dy) * by * 0.005)
}
</script>

<template>
  <svg ref="svg" class="overlay" :viewBox="`0 0 ${aspect} 1`" @pointermove="drag" @pointerup="end" @pointercancel="end">
    <g :transform="`translate(${centre.x} ${centre.y}) rotate(${shape.rotationDegrees})`">
      <ellipse class="edge soft" :rx="shape.radiusX * innerScale" :ry="shape.radiusY * innerScale" />
      <ellipse class="body" :rx="shape.radiusX" :ry="shape.radiusY" tabindex="0" role="application" :aria-label="`${region.name}: move with the arrow keys`" @pointerdown="start('move', $event)" @keydown="key('move', $event)" />
      <ellipse class="edge soft grip" :rx="shape.radiusX * outerScale" :ry="shape.radiusY * outerScale" tabindex="0" role="slider" aria-label="Feather" aria-valuemin="0" aria-valuemax="100" :aria-valuenow="Math.round(region.feather * 100)" @pointerdown.stop="start('feather', $event)" @keydown="key('feather', $event)" />
      <line class="edge" x1="0" x2="0" :y1="-shape.radiusY" :y2="-shape.radiusY - turnReach" />
      <rect v-for="h in handles" :key="h.id" class="handle" :x="h.x - 0.011" :y="h.y - 0.011" width="0.022" height="0.022" tabindex="0" role="slider" :aria-label="h.name" :aria-valuenow="Math.round((h.x === 0 ? shape.radiusY : shape.radiusX) * 100)" aria-valuemin="1" aria-valuemax="300" @pointerdown.stop="start(h.id, $event)" @keydown="key(h.id, $event)" />
      <circle class="handle" cx="0" :cy="-shape.radiusY - turnReach" r="0.013" tabindex="0" role="slider" aria-label="Turn" :aria-valuenow="Math.round(shape.rotationDegrees)" aria-valuemin="-180" aria-valuemax="180" @pointerdown.stop="start('turn', $event)" @keydown="key('turn', $event)" />
    </g>
  </svg>
</template>

<style scoped>
.overlay { position: absolute; inset: 0; width: 100%; height: 100%; overflow: hidden; touch-action: none; pointer-events: none; }
.overlay ellipse, .overlay rect, .overlay circle { pointer-events: auto; }
.overlay .soft { pointer-events: none; }
.edge, .body { fill: none; stroke: var(--accent); stroke-width: 1.5px; vector-effect: non-scaling-stroke; }
.body { fill: transparent; cursor: move; }
.soft { stroke-dasharray: 3 4; stroke-width: 1px; }
.overlay .grip { pointer-events: stroke; cursor: nwse-resize; stroke-width: 1px; }
.handle { fill: var(--well); stroke: var(--accent); stroke-width: 1.5px; vector-effect: non-scaling-stroke; cursor: nwse-resize; }
:focus-visible { outline: none; stroke: var(--ink); stroke-width: 3px; }
</style>
