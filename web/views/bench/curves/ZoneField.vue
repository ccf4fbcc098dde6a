<script setup lang="ts">
// The zones over the tones of the picture: how much each tone belongs to each of them. The chosen one's centre and
// reach are dragged, or moved by arrow keys.
import { computed, ref } from 'vue'
import { mostExposure, zoneShare, type Step, type ZoneReach } from '@core/grade'
import { clamp } from '@core/numbers'
import { useGesture } from '../../../composables/useGesture'
import { text } from '../text'

const props = defineProps<{
  zones: readonly Step[]
  chosen: Step
  /** The tones that are shown, in stops from middle grey. */
  range: readonly [number, number]
}>()
const emit = defineEmits<{ choose: [id: string]; change: [key: 'centreStops' | 'widthStops', stops: number] }>()
const gesture = useGesture()
const { zones: words } = text

const field = ref<SVGSVGElement | null>(null)
const held = ref<'centre' | 'edge' | null>(null)
const toX = (stops: number): number => ((stops - props.range[0]) / (props.range[1] - props.range[0])) * 100
const numbersOf = ({ params }: Step): { centre: number; width: number; reach: ZoneReach } => ({
  centre: Number(params['centreStops']),
  width: Number(params['widthStops']),
  reach: params['reach'] as ZoneReach,
})
const shapeOf = (step: Step): string => {
  const { centre, width, reach } = numbersOf(step)
  const tops = Array.from({ length: 121 }, (_, i) => {
    const stops = props.range[0] + ((props.range[1] - props.range[0]) * i) / 120
    return `${toX(stops).toFixed(2)} ${(100 - 80 * zoneShare(stops, centre, width, reach)).toFixed(2)}`
  })
  return `M 0 100 L ${tops.join(' L ')} L 100 100 Z`
}
const now = computed(() => numbersOf(props.chosen))
/** The edge lies where the push has faded out: below the centre where it reaches above. */
const outward = computed(() => (now.value.reach === 'above' ? -1 : 1))
const edge = computed(() => now.value.centre + outward.value * now.value.width)
const ticks = computed(() => {
  const [from, to] = props.range
  return Array.from({ length: Math.floor(to / 2) - Math.ceil(from / 2) + 1 }, (_, i) => 2 * (Math.ceil(from / 2) + i))
})
const signed = (stops: number): string => `${stops < 0 ? '−' : '+'}${Math.abs(stops).toFixed(1)}`

function put(what: 'centre' | 'edge', stops: number): void {
  const rounded = Math.round(stops * 10) / 10
  if (what === 'centre') emit('change', 'centreStops', clamp(rounded, -8, 8))
  else emit('change', 'widthStops', clamp(outward.value * (rounded - now.value.centre), 0.5, 8))
}
function grab(what: 'centre' | 'edge', event: PointerEvent): void {
  if (event.button !== 0) return
  field.value?.setPointerCapture(event.pointerId)
  held.value = what
  gesture.begin(event)
}
function drag(event: PointerEvent): void {
  const box = field.value?.getBoundingClientRect()
  if (!held.value || !box) return
  put(held.value, props.range[0] + ((event.clientX - box.left) / box.width) * (props.range[1] - props.range[0]))
}
function drop(): void {
  if (!held.value) return
  held.value = null
  gesture.end()
}
function key(what: 'centre' | 'edge', event: KeyboardEvent): void {
  const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key]
  if (!way) return
  event.preventDefault()
  event.stopPropagation()
  put(what, (what === 'centre' ? now.value.centre : edge.value) + way * (event.shiftKey ? 1 : 0.1))
}
const most = computed(() => mostExposure(now.value.width))
</script>

<template>
  <div class="field">
    <slot />
    <svg
      ref="field"
      viewBox="0 0 100 100"
      preserveAspectRatio="none"
      role="group"
      :aria-label="words.field"
      data-testid="zone-field"
      @pointermove="drag"
      @pointerup="drop"
      @pointercancel="drop"
    >
      <line
        v-for="t in ticks"
        :key="t"
        :x1="toX(t)"
        :x2="toX(t)"
        y1="0"
        y2="100"
        :class="{ strong: t === 0 }"
      />
      <path
        v-for="z in zones"
        :key="z.id"
        :d="shapeOf(z)"
        :class="{ chosen: z.id === chosen.id }"
        @pointerdown="emit('choose', z.id)"
      />
      <g
        v-for="[what, at] in [
          ['centre', now.centre],
          ['edge', edge],
        ] as const"
        :key="what"
      >
        <line
          class="handle"
          :class="what"
          :x1="toX(at)"
          :x2="toX(at)"
          :y1="what === 'centre' ? 20 : 60"
          y2="100"
        />
        <rect
          class="grip"
          :x="toX(at) - 1.5"
          y="0"
          width="3"
          height="100"
          tabindex="0"
          role="slider"
          :aria-label="what === 'centre' ? words.centre : words.edge"
          :aria-valuenow="at"
          :aria-valuetext="`${signed(at)} stops`"
          :data-handle="what"
          @pointerdown.stop="grab(what, $event)"
          @keydown="key(what, $event)"
        />
      </g>
    </svg>
    <span class="figures quiet note">{{ words.note(chosen.name, signed(now.centre), most.toFixed(1)) }}</span>
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
}
line {
  stroke: var(--hairline);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
  opacity: 0.4;
}
line.strong {
  stroke: var(--hairline-strong);
  opacity: 0.9;
}
path {
  fill: none;
  stroke: var(--hairline-strong);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
  pointer-events: all;
}
path.chosen {
  fill: var(--veil);
  stroke: var(--ink);
  stroke-width: 1.5px;
}
.handle {
  stroke: var(--accent);
  stroke-width: 2px;
  opacity: 1;
}
.grip {
  fill: transparent;
  cursor: ew-resize;
}
.grip:hover,
.grip:focus-visible {
  outline: none;
  fill: var(--veil);
  stroke: var(--accent);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
}
.note {
  position: absolute;
  right: 6px;
  top: 3px;
  font-size: 11px;
  pointer-events: none;
}
</style>
