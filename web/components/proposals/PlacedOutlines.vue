<script setup lang="ts">
// Regions and subjects of a carried grade as outlines on the picture: those that were found, and those that a person
// has to put where they belong, by dragging, by arrow keys, or by leaving them there.
import { computed, ref } from 'vue'
import type { ProposedPlace } from '@contracts/responses'
import { outlineOf } from '@core/regions'
import { gradeOfChoice, useProposals, type ProposalEntry } from '../../stores/proposals'
import { text as words } from './text'

const props = defineProps<{ entry: ProposalEntry }>()
const store = useProposals()
/** What is being dragged, and how far by now. */
const held = ref<{ readonly id: string; readonly fromX: number; readonly fromY: number; x: number; y: number } | null>(
  null,
)
const aspect = computed(() => props.entry.shot.media.width / props.entry.shot.media.height)
const grade = computed(() => gradeOfChoice(props.entry))

interface Outline {
  readonly place: ProposedPlace
  readonly open: boolean
  /** In the drawing's own units: 100 to the width. */
  readonly points: string
}
/** Points whose unit is the picture's height. */
const printed = (points: readonly (readonly [number, number])[]): string =>
  points.map((point) => point.map((v) => ((v * 100) / aspect.value).toFixed(2)).join()).join(' ')
function pointsOf(place: ProposedPlace): readonly string[] {
  const { area } = place
  if (area) {
    const { x, y } = props.entry.put.get(place.id) ?? { x: 0, y: 0 }
    const [l, r] = [(area.left + x) * aspect.value, (area.right + x) * aspect.value]
    const [t, b] = [area.top + y, area.bottom + y]
    return [
      printed([
        [l, t],
        [r, t],
        [r, b],
        [l, b],
      ]),
    ]
  }
  const region = grade.value?.regions.find((r) => r.id === place.id)
  return (region?.components ?? []).flatMap(({ source }) =>
    source.kind === 'shape' ? [printed(outlineOf(source.shape, aspect.value))] : [],
  )
}
const outlines = computed(() =>
  (props.entry.proposal?.places ?? []).flatMap((place): Outline[] =>
    pointsOf(place).map((points) => ({ place, points, open: !place.sure && !props.entry.put.has(place.id) })),
  ),
)
const shiftOf = (id: string): string =>
  held.value?.id === id ? `translate(${held.value.x * 100} ${(held.value.y * 100) / aspect.value})` : ''

function sharesOf(event: PointerEvent): { x: number; y: number } {
  const box = (event.currentTarget as Element).closest('svg')?.getBoundingClientRect()
  return box ? { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height } : { x: 0, y: 0 }
}
function take(event: PointerEvent, id: string): void {
  const { x, y } = sharesOf(event)
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  held.value = { id, fromX: x, fromY: y, x: 0, y: 0 }
}
function drag(event: PointerEvent): void {
  const { value: now } = held
  if (!now) return
  const { x, y } = sharesOf(event)
  held.value = { ...now, x: x - now.fromX, y: y - now.fromY }
}
function drop(): void {
  const { value: now } = held
  held.value = null
  if (now) store.putPlace(props.entry.shot.id, now.id, now.x, now.y)
}
const steps: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-0.005, 0],
  ArrowRight: [0.005, 0],
  ArrowUp: [0, -0.005],
  ArrowDown: [0, 0.005],
  Enter: [0, 0],
}
function press(event: KeyboardEvent, id: string): void {
  const step = steps[event.key]
  if (!step) return
  event.preventDefault()
  event.stopPropagation()
  const by = event.shiftKey ? 10 : 1
  store.putPlace(props.entry.shot.id, id, step[0] * by, step[1] * by)
}
</script>

<template>
  <svg
    class="outlines"
    :viewBox="`0 0 100 ${100 / aspect}`"
    preserveAspectRatio="none"
  >
    <g
      v-for="{ place, points, open } in outlines"
      :key="place.id + points"
      role="button"
      tabindex="0"
      :class="{ open }"
      :transform="shiftOf(place.id)"
      :aria-label="open ? words.place(place.name) : words.found(place.name)"
      :data-place="place.name"
      :data-open="open"
      @pointerdown.stop.prevent="take($event, place.id)"
      @pointermove="drag"
      @pointerup="drop"
      @pointercancel="held = null"
      @keydown="press($event, place.id)"
    >
      <title>{{ open ? words.place(place.name) : words.found(place.name) }}</title>
      <polygon
        class="edge"
        :points="points"
      />
      <polygon :points="points" />
    </g>
  </svg>
</template>

<style scoped>
.outlines {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  touch-action: none;
}
g {
  cursor: move;
  outline: none;
}
/* A dark line under a light one is seen on any picture. */
polygon {
  fill: transparent;
  stroke: var(--ink);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}
.edge {
  stroke: var(--well);
  stroke-width: 4;
}
.open polygon:last-child {
  stroke: var(--warning);
  stroke-dasharray: 4 3;
}
g:focus-visible polygon:last-child {
  stroke: var(--accent);
  stroke-width: 3;
}
</style>
