<script setup lang="ts">
// A layer over the picture while a region draws from it or picks from it: drag out a box, click points, or take
// colours.
import { computed, ref, shallowRef } from 'vue'
import type { Area } from '@core/readings'
import { smoothPath, type Place, type Shape } from '@core/regions'
import { useRegions } from '../../../stores/regions'
import { text } from '../text'

const emit = defineEmits<{ sample: [mode: 'add' | 'remove', area: Area] }>()
const regions = useRegions()
const layer = ref<HTMLElement | null>(null)
const from = shallowRef<Place | null>(null)
const to = shallowRef<Place | null>(null)
const points = shallowRef<readonly Place[]>([])
const byPoints = computed(
  () => regions.sampling === null && (regions.drawing === 'polygon' || regions.drawing === 'path'),
)
const { draw: words } = text.regions

function at(e: MouseEvent): Place {
  const box = layer.value?.getBoundingClientRect()
  return box ? { x: (e.clientX - box.left) / box.width, y: (e.clientY - box.top) / box.height } : { x: 0, y: 0 }
}
function down(e: PointerEvent): void {
  if (e.button !== 0) return
  layer.value?.setPointerCapture(e.pointerId)
  if (byPoints.value) {
    points.value = [...points.value, at(e)]
    return
  }
  from.value = to.value = at(e)
}
function move(e: PointerEvent): void {
  if (from.value) to.value = at(e)
}
function up(e: PointerEvent): void {
  const { value: a } = from
  if (!a) return
  const b = at(e)
  const area = {
    left: Math.min(a.x, b.x),
    top: Math.min(a.y, b.y),
    right: Math.max(a.x, b.x),
    bottom: Math.max(a.y, b.y),
  }
  from.value = to.value = null
  if (regions.sampling) return emit('sample', e.altKey ? 'remove' : regions.sampling, area)
  const shape = boxed(a, b, area)
  if (shape) regions.drawn(shape)
}
function boxed(a: Place, b: Place, { left, top, right, bottom }: Area): Shape | null {
  const { drawing: kind, aspect } = regions
  if (kind === 'linear')
    return Math.hypot((a.x - b.x) * aspect, a.y - b.y) > 0.01
      ? { kind, fromX: a.x, fromY: a.y, toX: b.x, toY: b.y }
      : null
  const turned = {
    centreX: (left + right) / 2,
    centreY: (top + bottom) / 2,
    radiusX: ((right - left) / 2) * aspect,
    radiusY: (bottom - top) / 2,
    rotationDegrees: 0,
  }
  if (turned.radiusX < 0.01 || turned.radiusY < 0.01) return null
  switch (kind) {
    case 'ellipse':
      return { kind, ...turned }
    case 'rectangle':
      return { kind, ...turned, corner: 0.2 }
    case 'radial':
      return { kind, ...turned, core: 0.2 }
    default:
      return null
  }
}
/** Closes an outline of clicked points. */
function close(): void {
  // The double click that ends it has clicked its place twice.
  const places = points.value.filter((p, i, all) => {
    const before = all[i - 1]
    return !before || Math.hypot(p.x - before.x, p.y - before.y) > 0.004
  })
  points.value = []
  if (places.length >= 3)
    regions.drawn(regions.drawing === 'path' ? smoothPath(places) : { kind: 'polygon', points: places })
}
function key(e: KeyboardEvent): void {
  if (e.key === 'Enter' && byPoints.value) close()
  else if (e.key === 'Backspace' && byPoints.value) points.value = points.value.slice(0, -1)
  else return
  e.preventDefault()
  e.stopPropagation()
}
const rubber = computed(() =>
  from.value && to.value
    ? {
        left: Math.min(from.value.x, to.value.x),
        top: Math.min(from.value.y, to.value.y),
        width: Math.abs(from.value.x - to.value.x),
        height: Math.abs(from.value.y - to.value.y),
      }
    : null,
)
const help = computed(() => {
  if (regions.sampling) return words.sample
  if (byPoints.value) return words.points
  return words.drag
})
</script>

<template>
  <div
    ref="layer"
    class="layer"
    tabindex="0"
    role="application"
    :aria-label="help"
    data-testid="draw-layer"
    @pointerdown.stop="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="from = to = null"
    @dblclick="byPoints && close()"
    @keydown="key"
  >
    <p class="note">{{ help }}</p>
    <svg
      viewBox="0 0 1 1"
      preserveAspectRatio="none"
    >
      <rect
        v-if="rubber && regions.drawing !== 'linear'"
        :x="rubber.left"
        :y="rubber.top"
        :width="rubber.width"
        :height="rubber.height"
      />
      <line
        v-else-if="from && to"
        :x1="from.x"
        :y1="from.y"
        :x2="to.x"
        :y2="to.y"
      />
      <polyline
        v-if="points.length"
        :points="points.map((p) => `${p.x},${p.y}`).join(' ')"
      />
    </svg>
    <span
      v-for="(p, i) in points"
      :key="i"
      class="place"
      :style="{ left: `${p.x * 100}%`, top: `${p.y * 100}%` }"
    />
  </div>
</template>

<style scoped>
.layer {
  position: absolute;
  inset: 0;
  cursor: crosshair;
  touch-action: none;
}
.note {
  position: absolute;
  right: var(--gap);
  top: var(--gap);
  margin: 0;
  padding: 1px var(--gap);
  background: rgb(0 0 0 / 70%);
  font-size: 11px;
  pointer-events: none;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
rect,
line,
polyline {
  fill: none;
  stroke: var(--accent);
  stroke-width: 1.5px;
  vector-effect: non-scaling-stroke;
}
.place {
  position: absolute;
  width: 9px;
  height: 9px;
  margin: -5px;
  border: 2px solid var(--accent);
  outline: 1px solid #000;
  pointer-events: none;
}
</style>
