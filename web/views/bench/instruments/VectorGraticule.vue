<script setup lang="ts">
// The vectorscope's reference: circles, the bars of the display's standard, and the skin line.
import { computed } from 'vue'
import { displayById, lumaWeights } from '@core/colour'
import { vectorSpan } from '@core/instruments'
import type { Graticules } from '../../../stores/kept-settings'

const props = defineProps<{ displayId: string; zoom: number; graticules: Graticules }>()
const bars = [
  { name: 'R', rgb: [1, 0, 0] },
  { name: 'Yl', rgb: [1, 1, 0] },
  { name: 'G', rgb: [0, 1, 0] },
  { name: 'Cy', rgb: [0, 1, 1] },
  { name: 'B', rgb: [0, 0, 1] },
  { name: 'Mg', rgb: [1, 0, 1] },
] as const
const unit = computed(() => (50 / vectorSpan) * props.zoom)
const targets = computed(() => {
  const w = lumaWeights(displayById(props.displayId).lumaMatrix)
  const level = props.graticules.targets / 100
  return bars
    .map(({ name, rgb: [r, g, b] }) => {
      const luma = w.red * r + w.green * g + w.blue * b
      return {
        name,
        x: 50 + ((level * (b - luma)) / w.cbDivisor) * unit.value,
        y: 50 - ((level * (r - luma)) / w.crDivisor) * unit.value,
      }
    })
    .filter(({ x, y }) => Math.max(Math.abs(x - 50), Math.abs(y - 50)) < 49)
})
const skin = computed(() => {
  const angle = (props.graticules.skinDegrees * Math.PI) / 180
  const reach = Math.min(0.5 * unit.value, 49)
  return { x: 50 + reach * Math.cos(angle), y: 50 - reach * Math.sin(angle) }
})
/** Circles at a quarter and a half of the largest chroma, or nearer ones when zoomed. */
const circles = computed(() =>
  [0.5, 0.25, 0.125, 0.0625]
    .map((r) => ({ r: r * unit.value, label: `${r * 200}` }))
    .filter(({ r }) => r < 49 && r > 8),
)
</script>

<template>
  <svg
    class="graticule"
    viewBox="0 0 100 100"
    :style="{ '--lines': graticules.brightness }"
    aria-hidden="true"
  >
    <circle
      v-for="c in circles"
      :key="c.label"
      cx="50"
      cy="50"
      :r="c.r"
    />
    <line
      x1="48"
      x2="52"
      y1="50"
      y2="50"
    />
    <line
      x1="50"
      x2="50"
      y1="48"
      y2="52"
    />
    <line
      class="skin"
      x1="50"
      y1="50"
      :x2="skin.x"
      :y2="skin.y"
    />
    <g
      v-for="t in targets"
      :key="t.name"
      :data-target="t.name"
    >
      <rect
        :x="t.x - 2"
        :y="t.y - 2"
        width="4"
        height="4"
      />
      <text
        :x="t.x + 3.2"
        :y="t.y + 1.6"
      >
        {{ t.name }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.graticule {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
circle,
line,
rect {
  fill: none;
  stroke: var(--hairline-strong);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
  opacity: calc(var(--lines) * 1.2);
}
.skin {
  stroke: var(--accent);
}
text {
  font-size: 4.6px;
  fill: var(--ink-quiet);
}
</style>
