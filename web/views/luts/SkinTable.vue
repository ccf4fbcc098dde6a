<script setup lang="ts">
// Skins from very light to very deep and remembered colours: each without and with the LUT, and by how much.
import type { SeenColour } from '@core/lut-bench'
import { text } from './text'

defineProps<{ colours: readonly SeenColour[] }>()
const css = (c: SeenColour['before']): string => `rgb(${c.map((v) => Math.round(v * 255)).join(' ')})`
const signed = (v: number, digits: number): string => {
  const shown = Math.abs(v).toFixed(digits)
  return Number(shown) === 0 ? shown : `${v > 0 ? '+' : '−'}${shown}`
}
</script>

<template>
  <table :aria-label="text.skins.title">
    <thead>
      <tr class="caps">
        <th scope="col">{{ text.skins.title }}</th>
        <th scope="col">{{ text.skins.before }}</th>
        <th scope="col">{{ text.skins.after }}</th>
        <th scope="col">{{ text.skins.hue }}</th>
        <th scope="col">{{ text.skins.luma }}</th>
        <th scope="col">{{ text.skins.chroma }}</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="c in colours"
        :key="c.id"
        :data-colour="c.id"
      >
        <th scope="row">{{ c.name }}</th>
        <td>
          <span
            class="swatch"
            :style="{ background: css(c.before) }"
          />
        </td>
        <td>
          <span
            class="swatch"
            :style="{ background: css(c.after) }"
          />
        </td>
        <td class="figures">{{ signed(c.hueDegrees, 1) }}°</td>
        <td class="figures">{{ signed(c.lumaPercent, 1) }} %</td>
        <td class="figures">× {{ c.chromaGain.toFixed(2) }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  border-collapse: collapse;
  font-size: 11px;
  align-self: start;
  width: 100%;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--ink-quiet);
}
thead th {
  font-size: 10px;
}
tbody th {
  color: var(--ink);
}
td.figures {
  white-space: nowrap;
}
td,
th {
  padding: 1px var(--gap) 1px 0;
  line-height: 18px;
}
.swatch {
  display: block;
  width: 100%;
  min-width: 32px;
  height: 15px;
}
</style>
