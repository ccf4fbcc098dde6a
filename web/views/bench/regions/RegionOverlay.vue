<!-- Long: one drawing: outlines, soft edges and handles share its pointer. -->

<script setup lang="ts">
// The open region's outlines on the picture, and handles on one shape: move, size, turn, soften, and every point of it.
// Each takes arrow keys as well.
import { computed, ref } from 'vue'
import { useGesture } from '../../../composables/useGesture'
import { arrowStep } from '../../../composables/arrowStep'
import {
  addOutlinePoint,
  inverseMotion,
  moved,
  removeOutlinePoint,
  type MatteComponent,
  type Region,
  type Shape,
  type ShownShape,
} from '@core/regions'
import { text } from '../text'
import { boundedShape, dragged, nearestSide, nudged, type Grip, type GripEdit, type Place } from './shape-grips'
import { armPath, handlesOf, outlinePath, softEdgePaths, type Placing } from './shape-handles'

const props = defineProps<{
  region: Region
  handled: (MatteComponent & { readonly source: ShownShape }) | null
  aspect: number
  /** Screen pixels for one pixel of the fitted picture: handles stay as large as they are. */ zoom: number
}>()
const emit = defineEmits<{
  shape: [shape: Shape]
  softness: [change: { inner?: number; outer?: number }]
}>()

const svg = ref<SVGSVGElement | null>(null)
const openPoint = ref<number | null>(null)
const { overlay: words } = text.regions

const shape = computed(() => props.handled?.source.shape ?? null)
const placingOf =
  ({ placed }: ShownShape): Placing =>
  (u, v) =>
    placed ? moved(placed, u, v) : [u, v]
const through: Placing = (u, v) => (props.handled ? placingOf(props.handled.source)(u, v) : [u, v])
/** Every shape of the region, as it lies in the picture. */
const outlines = computed(() =>
  props.region.components.flatMap(({ id, source }) => {
    if (source.kind !== 'shape') return []
    const shown = source as ShownShape
    return [{ id, d: outlinePath(shown.shape, props.aspect, placingOf(shown)), chosen: id === props.handled?.id }]
  }),
)
const soft = computed(() => {
  const { handled, aspect } = props
  return handled && softEdgePaths(handled.source.shape, handled.source, aspect, through)
})
const unit = computed(() => 1 / props.zoom)
const handles = computed(() =>
  shape.value ? handlesOf(shape.value, openPoint.value, props.aspect, unit.value, through) : [],
)
const arm = computed(() => shape.value && armPath(shape.value, openPoint.value, props.aspect, through))

const gesture = useGesture()
let active: { readonly grip: Grip; readonly from: Place; readonly shape: Shape } | null = null
/** A place under the pointer in the shape's own plane, in height units. */
function toPlane(e: PointerEvent | MouseEvent): Place {
  const matrix = svg.value?.getScreenCTM()
  const at = matrix ? new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse()) : new DOMPoint()
  const m = props.handled?.source.placed
  return m ? moved(inverseMotion(m), at.x, at.y) : [at.x, at.y]
}
function start(grip: Grip, e: PointerEvent): void {
  if (e.button !== 0 || !shape.value) return
  svg.value?.setPointerCapture(e.pointerId)
  active = { grip, from: toPlane(e), shape: shape.value }
  if (typeof grip === 'object' && grip.part === 'at') openPoint.value = grip.point
  gesture.begin(e)
}
function drag(e: PointerEvent): void {
  if (active) tell(dragged(active.grip, active.shape, active.from, toPlane(e), props.aspect))
}
function end(): void {
  if (!active) return
  active = null
  gesture.end()
}
function tell(edit: GripEdit | null): void {
  if (!edit) return
  if ('shape' in edit) emit('shape', edit.shape)
  else emit('softness', edit.softness)
}

function key(grip: Grip, e: KeyboardEvent): void {
  const of = shape.value
  if (!of || !props.handled) return
  const edit = pointEdit(grip, of, e.key) ?? arrowEdit(grip, of, e)
  if (!edit) return
  e.preventDefault()
  e.stopPropagation()
  tell(edit)
}
function pointEdit(grip: Grip, of: Shape, pressed: string): GripEdit | null {
  if (typeof grip !== 'object' || grip.part !== 'at') return null
  if (pressed === 'Delete' || pressed === 'Backspace') return { shape: removeOutlinePoint(of, grip.point) }
  if (pressed === '+' || pressed === 'Enter') return { shape: boundedShape(addOutlinePoint(of, grip.point)) }
  return null
}
function arrowEdit(grip: Grip, of: Shape, e: KeyboardEvent): GripEdit | null {
  const step = arrowStep(e)
  const source = props.handled?.source
  if (!source || (step.dx === 0 && step.dy === 0)) return null
  return nudged(grip, of, source, step, (e.shiftKey ? 10 : 1) * (e.altKey ? 0.1 : 1), props.aspect)
}
/** A double click on the line adds a point there. */
function addAt(e: MouseEvent): void {
  const of = shape.value
  if (!of || !('points' in of)) return
  const [u, v] = toPlane(e)
  const place = { x: u / props.aspect, y: v }
  tell({ shape: boundedShape(addOutlinePoint(of, nearestSide(of.points, place.x, place.y), place)) })
}
</script>

<template>
  <svg
    ref="svg"
    class="overlay"
    :viewBox="`0 0 ${aspect} 1`"
    data-testid="region-overlay"
    @pointermove="drag"
    @pointerup="end"
    @pointercancel="end"
  >
    <path
      v-for="o in outlines"
      :key="o.id"
      class="edge"
      :class="{ other: !o.chosen }"
      :d="o.d"
    />
    <template v-if="handled && shape">
      <path
        v-if="arm"
        class="edge soft"
        :d="arm"
      />
      <path
        class="body"
        :class="{ line: shape.kind === 'linear' }"
        :d="outlines.find((o) => o.chosen)?.d ?? ''"
        tabindex="0"
        role="application"
        :aria-label="words.move(region.name)"
        @pointerdown="start('move', $event)"
        @keydown="key('move', $event)"
        @dblclick="addAt"
      />
      <template v-if="soft">
        <path
          class="edge soft grip"
          :d="soft.inner"
          tabindex="0"
          role="slider"
          :aria-label="words.inner"
          aria-valuemin="0"
          aria-valuemax="100"
          :aria-valuenow="Math.round(handled.source.inner * 100)"
          @pointerdown.stop="start('inner', $event)"
          @keydown="key('inner', $event)"
        />
        <path
          v-if="soft.outer"
          class="edge soft grip"
          :d="soft.outer"
          tabindex="0"
          role="slider"
          :aria-label="words.outer"
          aria-valuemin="0"
          aria-valuemax="100"
          :aria-valuenow="Math.round(handled.source.outer * 100)"
          @pointerdown.stop="start('outer', $event)"
          @keydown="key('outer', $event)"
        />
      </template>
      <g
        v-for="s in handles"
        :key="typeof s.grip === 'object' ? `${s.grip.point}${s.grip.part}` : s.grip"
        :transform="`translate(${s.x} ${s.y}) scale(${unit})`"
      >
        <component
          :is="s.round ? 'circle' : 'rect'"
          class="handle"
          v-bind="s.round ? { r: s.small ? 0.009 : 0.013 } : { x: -0.011, y: -0.011, width: 0.022, height: 0.022 }"
          tabindex="0"
          role="slider"
          :aria-label="s.name"
          :aria-valuenow="Math.round(s.value)"
          aria-valuemin="-3600"
          aria-valuemax="3600"
          @pointerdown.stop="start(s.grip, $event)"
          @keydown="key(s.grip, $event)"
          @focus="typeof s.grip === 'object' && s.grip.part === 'at' ? (openPoint = s.grip.point) : undefined"
        />
      </g>
    </template>
  </svg>
</template>

<style scoped>
.overlay {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
  touch-action: none;
  pointer-events: none;
}
.edge,
.body {
  fill: none;
  stroke: var(--accent);
  stroke-width: 1.5px;
  vector-effect: non-scaling-stroke;
}
.edge {
  pointer-events: none;
}
.other {
  stroke: var(--ink-quiet);
  stroke-dasharray: 6 3;
  stroke-width: 1px;
}
.body {
  fill: transparent;
  pointer-events: auto;
  cursor: move;
}
.body.line {
  pointer-events: stroke;
  stroke-width: 2px;
}
.soft {
  stroke-dasharray: 3 4;
  stroke-width: 1px;
}
.grip {
  pointer-events: stroke;
  cursor: nwse-resize;
}
.handle {
  fill: var(--well);
  stroke: var(--accent);
  stroke-width: 1.5px;
  vector-effect: non-scaling-stroke;
  cursor: nwse-resize;
  pointer-events: auto;
}
:focus-visible {
  outline: none;
  stroke: var(--ink);
  stroke-width: 3px;
}
</style>
