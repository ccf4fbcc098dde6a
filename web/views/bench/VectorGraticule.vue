<script setup lang="ts">
// The vectorscope's reference: circles, the 75 % bars of the display's standard, and the skin line.
import { lumaWeights, vectorSpan } from '@core/index'

const skinDegrees = 123
const w = lumaWeights('bt709')
const bars = [
  { name: 'R', rgb: [1, 0, 0] }, { name: 'Yl', rgb: [1, 1, 0] }, { name: 'G', rgb: [0, 1, 0] },
  { name: 'Cy', rgb: [0, 1, 1] }, { name: 'B', rgb: [0, 0, 1] }, { name: 'Mg', rgb: [1, 0, 1] },
] as const
const unit = 50 / vectorSpan
const targets = bars.map(({ name, rgb: [r, g, b] }) => {
  const luma = w.red * r + w.green * g + w.blue * b
  return { name, x: 50 + ((0.75 * (b - luma)) / w.cbDivisor) * unit, y: 50 - ((0.75 * (r - luma)) / w.crDivisor) * unit }
})
const skin = { x: 50 + 0.5 * unit * Math.cos((skinDegrees * Math.PI) / 180), y: 50 - 0.5 * unit * Math.sin((skinDegrees * Math.PI) / 180) }
</script>

<template>
  <svg class="graticule" viewBox="0 0 100 100" aria-hidden="true">
    <circle cx="50" cy="50" :r="0.5 * unit" />
    <circle cx="50" cy="50" :r="0.25 * unit" />
    <line x1="48" x2="52" y1="50" y2="50" /><line x1="50" x2="50" y1="48" y2="52" />
    <line class="skin" x1="50" y1="50" :x2="skin.x" :y2="skin.y" />
    <g v-for="t in targets" :key="t.name">
      <rect :x="t.x - 2" :y="t.y - 2" width="4" height="4" />
      <text :x="t.x + 3.2" :y="t.y + 1.6">{{ t.name }}</text>
    </g>
  </svg>
</template>

<style scoped>
.graticule { position: absolute; inset: 0; width: 100%; height: 100%; pointer-events: none; }
circle, line, rect { fill: none; stroke: var(--hairline); stroke-width: 1px; vector-effect: non-scaling-stroke; }
.skin { stroke: var(--accent); }
text { font-size: 4.6px; fill: var(--ink-quiet); }
</style>
