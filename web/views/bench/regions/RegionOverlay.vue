<script setup lang="ts">
// The open region's outlines on the picture, and handles on one shape: move, size, turn, soften, and every point of it.
// Each takes arrow keys as well.
import { computed, ref } from 'vue'
import { useGesture } from '../../../composables/useGesture'
import { arrowStep } from '../../../composables/arrowStep'
import {
  addOutlinePoint,
  changedShape,
  inverseMotion,
  isTurned,
  moved,
  moveOutlinePoint,
  outlineOf,
  removeOutlinePoint,
  shapeBounds,
  type Piece,
  type Region,
  type Shape,
  type ShownShape,
  type TurnedShape,
} from '@core/regions'
import { text } from '../text'

const props = defineProps<{
  region: Region
  handled: (Piece & { readonly source: ShownShape }) | null
  aspect: number
  /** Screen pixels for one pixel of the fitted picture: handles stay as large as they are. */ zoom: number
}>()
const emit = defineEmits<{
  shape: [shape: Shape]
  softness: [change: { inner?: number; outer?: number }]
}>()

type Grip =
  | 'move'
  | 'right'
  | 'left'
  | 'bottom'
  | 'top'
  | 'turn'
  | 'size'
  | 'inner'
  | 'outer'
  | 'from'
  | 'to'
  | { readonly point: number; readonly part: 'at' | 'in' | 'out' }
interface Spot {
  readonly grip: Grip
  readonly x: number
  readonly y: number
  readonly name: string
  readonly value: number
  readonly round?: boolean
  readonly small?: boolean
}
const svg = ref<SVGSVGElement | null>(null)
const open = ref<number | null>(null)
const { overlay: words } = text.regions

// The drawing's unit is the frame's height: the frame is `aspect` wide and 1 high. Shapes lie in the plane where they
// were drawn.
const shape = computed(() => props.handled?.source.shape ?? null)
const out = (u: number, v: number): readonly [number, number] => {
  const m = props.handled?.source.placed
  return m ? moved(m, u, v) : [u, v]
}
const pathOf = (places: readonly (readonly [number, number])[], closed = true): string =>
  places.map(([x, y], i) => `${i === 0 ? 'M' : 'L'} ${x.toFixed(4)} ${y.toFixed(4)}`).join(' ') +
  (closed && places.length > 1 ? ' Z' : '')
const outlinePath = (of: Shape, through: (u: number, v: number) => readonly [number, number]): string => {
  if (of.kind !== 'linear') return pathOf(outlineOf(of, props.aspect).map(([u, v]) => through(u, v)))
  return pathOf([through(of.fromX * props.aspect, of.fromY), through(of.toX * props.aspect, of.toY)], false)
}
/** Every shape of the region, as it lies in the picture. */
const outlines = computed(() =>
  props.region.pieces.flatMap(({ id, source }) => {
    if (source.kind !== 'shape') return []
    const { shape: of, placed } = source as ShownShape
    return [
      { id, d: outlinePath(of, (u, v) => (placed ? moved(placed, u, v) : [u, v])), chosen: id === props.handled?.id },
    ]
  }),
)
/** The ends of a turned shape's soft edge, as shapes of their own. */
const softened = (of: TurnedShape, by: number): TurnedShape => {
  if (of.kind !== 'rectangle') {
    const share = 1 + by / Math.min(of.radiusX, of.radiusY)
    return { ...of, radiusX: of.radiusX * Math.max(0.02, share), radiusY: of.radiusY * Math.max(0.02, share) }
  }
  return { ...of, radiusX: Math.max(0.004, of.radiusX + by), radiusY: Math.max(0.004, of.radiusY + by) }
}
const soft = computed(() => {
  const of = shape.value
  const source = props.handled?.source
  if (!of || !source || !isTurned(of)) return null
  if (of.kind === 'radial')
    return {
      inner: outlinePath(
        {
          ...of,
          kind: 'ellipse',
          radiusX: of.radiusX * Math.max(0.02, of.core),
          radiusY: of.radiusY * Math.max(0.02, of.core),
        },
        out,
      ),
      outer: null,
    }
  return { inner: outlinePath(softened(of, -source.inner), out), outer: outlinePath(softened(of, source.outer), out) }
})

const unit = computed(() => 1 / props.zoom)
function spot(grip: Grip, u: number, v: number, name: string, value: number, more: Partial<Spot> = {}): Spot {
  const [x, y] = out(u, v)
  return { grip, x, y, name, value, ...more }
}
const spots = computed((): readonly Spot[] => {
  const of = shape.value
  if (!of) return []
  if (of.kind === 'linear')
    return [
      spot('from', of.fromX * props.aspect, of.fromY, words.whole, of.fromY * 100),
      spot('to', of.toX * props.aspect, of.toY, words.nothing, of.toY * 100),
    ]
  if (isTurned(of)) {
    const a = (of.rotationDegrees * Math.PI) / 180
    const at = (x: number, y: number): readonly [number, number] => [
      of.centreX * props.aspect + x * Math.cos(a) - y * Math.sin(a),
      of.centreY + x * Math.sin(a) + y * Math.cos(a),
    ]
    return [
      spot('right', ...at(of.radiusX, 0), words.right, of.radiusX * 100),
      spot('left', ...at(-of.radiusX, 0), words.left, of.radiusX * 100),
      spot('bottom', ...at(0, of.radiusY), words.bottom, of.radiusY * 100),
      spot('top', ...at(0, -of.radiusY), words.top, of.radiusY * 100),
      spot('turn', ...at(0, -of.radiusY - 0.06 * unit.value), words.turn, of.rotationDegrees, { round: true }),
    ]
  }
  const { left, top, right, bottom } = boxOf(of)
  return [
    ...of.points.map((p, i) => spot({ point: i, part: 'at' }, p.x * props.aspect, p.y, words.point(i + 1), p.x * 100)),
    ...(of.kind === 'path' && open.value !== null ? handlesOf(of, open.value) : []),
    spot('turn', (left + right) / 2, top - 0.06 * unit.value, words.turn, 0, { round: true }),
    spot('size', right + 0.03 * unit.value, bottom + 0.03 * unit.value, words.size, 100),
  ]
})
/** From an opened point to its two handles. */
const arms = computed(() => {
  const of = shape.value
  const p = of?.kind === 'path' && open.value !== null ? of.points[open.value] : undefined
  return p
    ? [
        pathOf(
          [out(p.inX * props.aspect, p.inY), out(p.x * props.aspect, p.y), out(p.outX * props.aspect, p.outY)],
          false,
        ),
      ]
    : []
})
function boxOf(of: Shape): { left: number; top: number; right: number; bottom: number } {
  const places = outlineOf(of, props.aspect)
  const us = places.map(([u]) => u)
  const vs = places.map(([, v]) => v)
  return { left: Math.min(...us), top: Math.min(...vs), right: Math.max(...us), bottom: Math.max(...vs) }
}

const gesture = useGesture()
let active: { readonly grip: Grip; readonly from: readonly [number, number]; readonly shape: Shape } | null = null
/** A place under the pointer in the shape's own plane, in height units. */
function toPlane(e: PointerEvent | MouseEvent): readonly [number, number] {
  const matrix = svg.value?.getScreenCTM()
  const at = matrix ? new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse()) : new DOMPoint()
  const m = props.handled?.source.placed
  return m ? moved(inverseMotion(m), at.x, at.y) : [at.x, at.y]
}
function start(grip: Grip, e: PointerEvent): void {
  if (e.button !== 0 || !shape.value) return
  svg.value?.setPointerCapture(e.pointerId)
  active = { grip, from: toPlane(e), shape: shape.value }
  if (typeof grip === 'object' && grip.part === 'at') open.value = grip.point
  gesture.begin(e)
}
function drag(e: PointerEvent): void {
  if (active) apply(active.grip, active.shape, active.from, toPlane(e))
}
function end(): void {
  if (!active) return
  active = null
  gesture.end()
}

const within = (value: number, { min, max }: { readonly min: number; readonly max: number }): number =>
  Math.min(max, Math.max(min, value))
const fine = (v: number): number => Math.round(v * 1e5) / 1e5
/** What a grip does when it goes from one place to another; both in the shape's plane. */
function apply(grip: Grip, was: Shape, from: readonly [number, number], to: readonly [number, number]): void {
  const dx = (to[0] - from[0]) / props.aspect
  const dy = to[1] - from[1]
  if (grip === 'move') return changed(changedShape(was, props.aspect, { x: dx, y: dy }))
  if (typeof grip === 'object') return changed(moveOutlinePoint(was, grip.point, grip.part, dx, dy))
  if (was.kind === 'linear')
    return changed(
      grip === 'from'
        ? { ...was, fromX: was.fromX + dx, fromY: was.fromY + dy }
        : { ...was, toX: was.toX + dx, toY: was.toY + dy },
    )
  const box = boxOf(was)
  const cu = isTurned(was) ? was.centreX * props.aspect : (box.left + box.right) / 2
  const cv = isTurned(was) ? was.centreY : (box.top + box.bottom) / 2
  const angle = (p: readonly [number, number]): number => (Math.atan2(p[1] - cv, p[0] - cu) * 180) / Math.PI
  if (grip === 'turn')
    return changed(changedShape(was, props.aspect, { degrees: ((angle(to) - angle(from) + 540) % 360) - 180 }))
  if (grip === 'size')
    return changed(
      changedShape(was, props.aspect, {
        size: Math.max(
          0.05,
          Math.hypot(to[0] - cu, to[1] - cv) / Math.max(1e-6, Math.hypot(from[0] - cu, from[1] - cv)),
        ),
      }),
    )
  if (!isTurned(was)) return
  const a = (was.rotationDegrees * Math.PI) / 180
  const x = (to[0] - cu) * Math.cos(a) + (to[1] - cv) * Math.sin(a)
  const y = (to[1] - cv) * Math.cos(a) - (to[0] - cu) * Math.sin(a)
  if (grip === 'outer' || grip === 'inner') return soften(was, grip, x, y)
  if (grip === 'left' || grip === 'right') changed({ ...was, radiusX: Math.abs(x) })
  else changed({ ...was, radiusY: Math.abs(y) })
}
function soften(was: TurnedShape, grip: 'inner' | 'outer', x: number, y: number): void {
  const share = Math.hypot(x / was.radiusX, y / was.radiusY)
  if (was.kind === 'radial') return changed({ ...was, core: within(fine(share), { min: 0, max: 0.99 }) })
  const away =
    was.kind === 'rectangle'
      ? Math.max(Math.abs(x) - was.radiusX, Math.abs(y) - was.radiusY)
      : (share - 1) * Math.min(was.radiusX, was.radiusY)
  emit('softness', { [grip]: within(fine(grip === 'outer' ? away : -away), shapeBounds.softness) })
}
/** Holds all numbers to their bounds before they are kept. */
function changed(next: Shape): void {
  const { place, radius } = shapeBounds
  const p = (v: number): number => within(fine(v), place)
  if (isTurned(next)) {
    const degrees = next.rotationDegrees
    emit('shape', {
      ...next,
      centreX: p(next.centreX),
      centreY: p(next.centreY),
      radiusX: within(fine(next.radiusX), radius),
      radiusY: within(fine(next.radiusY), radius),
      rotationDegrees: fine(within(degrees, shapeBounds.rotationDegrees)),
    })
  } else if (next.kind === 'linear')
    emit('shape', { ...next, fromX: p(next.fromX), fromY: p(next.fromY), toX: p(next.toX), toY: p(next.toY) })
  else if (next.kind === 'polygon')
    emit('shape', { ...next, points: next.points.map(({ x, y }) => ({ x: p(x), y: p(y) })) })
  else
    emit('shape', {
      ...next,
      points: next.points.map((q) => ({
        x: p(q.x),
        y: p(q.y),
        inX: p(q.inX),
        inY: p(q.inY),
        outX: p(q.outX),
        outY: p(q.outY),
      })),
    })
}

function key(grip: Grip, e: KeyboardEvent): void {
  const of = shape.value
  if (!of) return
  if (typeof grip === 'object' && grip.part === 'at' && (e.key === 'Delete' || e.key === 'Backspace')) {
    changed(removeOutlinePoint(of, grip.point))
    e.preventDefault()
    return
  }
  if (typeof grip === 'object' && grip.part === 'at' && (e.key === '+' || e.key === 'Enter')) {
    changed(addOutlinePoint(of, grip.point))
    e.preventDefault()
    e.stopPropagation()
    return
  }
  const { dx, dy } = arrowStep(e)
  if (dx === 0 && dy === 0) return
  e.preventDefault()
  e.stopPropagation()
  const by = (e.shiftKey ? 10 : 1) * (e.altKey ? 0.1 : 1)
  const step = 0.005 * by
  const outward = dx - dy
  if (grip === 'turn') return changed(changedShape(of, props.aspect, { degrees: (dx + dy) * by }))
  if (grip === 'size') return changed(changedShape(of, props.aspect, { size: 1 + outward * 0.01 * by }))
  if (grip === 'inner' || grip === 'outer') {
    if (of.kind === 'radial')
      return changed({ ...of, core: within(of.core + outward * 0.01 * by, { min: 0, max: 0.99 }) })
    return emit('softness', {
      [grip]: within(
        fine((props.handled?.source[grip] ?? 0) + (grip === 'outer' ? outward : -outward) * step),
        shapeBounds.softness,
      ),
    })
  }
  if (isTurned(of) && (grip === 'left' || grip === 'right'))
    return changed({ ...of, radiusX: of.radiusX + outward * step })
  if (isTurned(of) && (grip === 'top' || grip === 'bottom'))
    return changed({ ...of, radiusY: of.radiusY + outward * step })
  apply(grip, of, [0, 0], [dx * step, dy * step])
}
/** The two handles of an outline's point, which bend the line on both sides of it. */
function handlesOf({ points }: Extract<Shape, { kind: 'path' }>, index: number): readonly Spot[] {
  const p = points[index]
  if (!p) return []
  const look = { round: true, small: true }
  return [
    spot({ point: index, part: 'in' }, p.inX * props.aspect, p.inY, words.handle(index + 1, 'in'), 0, look),
    spot({ point: index, part: 'out' }, p.outX * props.aspect, p.outY, words.handle(index + 1, 'out'), 0, look),
  ]
}
/** A double click on the line adds a point there. */
function addAt(e: MouseEvent): void {
  const of = shape.value
  if (!of || !('points' in of)) return
  const [u, v] = toPlane(e)
  changed(addOutlinePoint(of, nearestSide(of.points, u / props.aspect, v), { x: u / props.aspect, y: v }))
}
function nearestSide(points: readonly { readonly x: number; readonly y: number }[], x: number, y: number): number {
  const away = points.map((p, i) => {
    const q = points[(i + 1) % points.length] ?? p
    const dx = q.x - p.x
    const dy = q.y - p.y
    const t = within(((x - p.x) * dx + (y - p.y) * dy) / Math.max(1e-9, dx * dx + dy * dy), { min: 0, max: 1 })
    return Math.hypot(x - p.x - t * dx, y - p.y - t * dy)
  })
  return away.indexOf(Math.min(...away))
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
        v-for="d in arms"
        :key="d"
        class="edge soft"
        :d="d"
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
        v-for="s in spots"
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
          @focus="typeof s.grip === 'object' && s.grip.part === 'at' ? (open = s.grip.point) : undefined"
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
