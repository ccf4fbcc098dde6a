<script setup lang="ts">
// The part of the picture that the instruments are limited to: drag on the picture for a box, with Alt for an ellipse;
// drag it to move, its corner to size.
import { computed, ref } from 'vue'
import { arrowStep } from '../../../composables/arrowStep'
import type { DrawnPart } from '@core/instruments'
import { text } from '../text'

const props = defineProps<{
  part: DrawnPart | null
  card: DrawnPart | null
  subjects: readonly {
    readonly name: string
    readonly left: number
    readonly top: number
    readonly right: number
    readonly bottom: number
  }[]
}>()
const emit = defineEmits<{
  part: [part: DrawnPart | null]
  point: [place: { readonly x: number; readonly y: number } | null]
}>()
const root = ref<HTMLElement | null>(null)

interface Gesture {
  readonly kind: 'draw' | 'move' | 'size'
  readonly x: number
  readonly y: number
  readonly from: DrawnPart | null
  readonly ellipse: boolean
}
let gesture: Gesture | null = null
let moved = false
const hold = (v: number): number => Math.min(1, Math.max(0, v))
/** Smaller than this share of the frame is a click. */
const leastSize = 0.008

function placeOf(event: PointerEvent): { x: number; y: number } {
  const box = root.value?.getBoundingClientRect() ?? new DOMRect(0, 0, 1, 1)
  return { x: hold((event.clientX - box.left) / box.width), y: hold((event.clientY - box.top) / box.height) }
}
function down(kind: Gesture['kind'], event: PointerEvent): void {
  if (event.button !== 0) return
  root.value?.setPointerCapture(event.pointerId)
  gesture = { kind, ...placeOf(event), from: props.part, ellipse: event.altKey }
  moved = false
}
function move(event: PointerEvent): void {
  const at = placeOf(event)
  if (!gesture) return emit('point', at)
  const { kind, x, y, from } = gesture
  if (Math.abs(at.x - x) > leastSize || Math.abs(at.y - y) > leastSize) moved = true
  if (!moved) return
  if (kind === 'draw')
    emit('part', {
      kind: gesture.ellipse ? 'ellipse' : 'box',
      left: Math.min(x, at.x),
      top: Math.min(y, at.y),
      right: Math.max(x, at.x),
      bottom: Math.max(y, at.y),
    })
  else if (from && kind === 'move') emit('part', shifted(from, at.x - x, at.y - y))
  else if (from)
    emit('part', {
      ...from,
      right: Math.max(from.left + leastSize, at.x),
      bottom: Math.max(from.top + leastSize, at.y),
    })
}
function up(): void {
  // A click on the bare picture lets go of the part.
  if (gesture?.kind === 'draw' && !moved) emit('part', null)
  gesture = null
}
function shifted(part: DrawnPart, dx: number, dy: number): DrawnPart {
  const x = Math.min(1 - part.right, Math.max(-part.left, dx))
  const y = Math.min(1 - part.bottom, Math.max(-part.top, dy))
  return { ...part, left: part.left + x, right: part.right + x, top: part.top + y, bottom: part.bottom + y }
}
function key(event: KeyboardEvent): void {
  const { part } = props
  const { dx, dy } = arrowStep(event)
  if (!part || (dx === 0 && dy === 0 && event.key !== 'Delete')) return
  event.preventDefault()
  event.stopPropagation()
  if (event.key === 'Delete') return emit('part', null)
  const by = event.altKey ? 0.001 : 0.01
  if (event.shiftKey)
    emit('part', {
      ...part,
      right: hold(Math.max(part.left + leastSize, part.right + dx * by)),
      bottom: hold(Math.max(part.top + leastSize, part.bottom + dy * by)),
    })
  else emit('part', shifted(part, dx * by, dy * by))
}
const place = (p: { left: number; top: number; right: number; bottom: number }): Record<string, string> => ({
  left: `${p.left * 100}%`,
  top: `${p.top * 100}%`,
  width: `${(p.right - p.left) * 100}%`,
  height: `${(p.bottom - p.top) * 100}%`,
})
const marks = computed(() => [...(props.card ? [{ ...props.card, name: text.cardMark }] : []), ...props.subjects])
</script>

<template>
  <div
    ref="root"
    class="parts"
    data-testid="parts"
    @pointerdown="down('draw', $event)"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
    @pointerleave="emit('point', null)"
  >
    <span
      v-for="m in marks"
      :key="m.name"
      class="placed"
      :style="place(m)"
    >
      <button
        type="button"
        class="label"
        :title="text.measureMark"
        @pointerdown.stop
        @click="emit('part', { kind: 'box', left: m.left, top: m.top, right: m.right, bottom: m.bottom })"
      >
        {{ m.name }}
      </button>
    </span>
    <div
      v-if="part"
      class="part"
      :class="part.kind"
      :style="place(part)"
      tabindex="0"
      role="application"
      :aria-label="text.partHelp"
      data-testid="part"
      @pointerdown.stop="down('move', $event)"
      @keydown="key"
    >
      <span
        class="corner"
        aria-hidden="true"
        @pointerdown.stop="down('size', $event)"
      />
    </div>
  </div>
</template>

<style scoped>
.parts {
  position: absolute;
  inset: 0;
  cursor: crosshair;
  touch-action: none;
  overflow: hidden;
}
.part {
  position: absolute;
  border: 1.5px solid var(--accent);
  outline: 1px solid var(--well);
  cursor: move;
}
.part.ellipse {
  border-radius: 50%;
}
.part:focus-visible {
  outline: 2px solid var(--ink);
}
.corner {
  position: absolute;
  right: -6px;
  bottom: -6px;
  width: 12px;
  height: 12px;
  background: var(--well);
  border: 1.5px solid var(--accent);
  cursor: nwse-resize;
}
.placed {
  position: absolute;
  border: 1px dashed var(--accent);
  pointer-events: none;
}
.label {
  position: absolute;
  left: 0;
  bottom: 100%;
  padding: 0 3px;
  background: var(--well);
  font-size: 10px;
  line-height: 14px;
  white-space: nowrap;
  border: 0;
  color: var(--ink);
  pointer-events: auto;
  cursor: pointer;
  min-width: 24px;
  min-height: 24px;
}
</style>
