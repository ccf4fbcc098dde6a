<script setup lang="ts">
// Lines at 0, 25, 50, 75 and 100 % of the signal behind waveform and parade, and dividers between channels.
import { levelHigh, levelLow } from '@core/index'

defineProps<{ parts?: number }>()
const lines = [0, 25, 50, 75, 100]
const fromTop = (percent: number): number => ((levelHigh - percent / 100) / (levelHigh - levelLow)) * 100
</script>

<template>
  <div class="graticule" aria-hidden="true">
    <template v-for="percent in lines" :key="percent">
      <span class="line" :style="{ top: `${fromTop(percent)}%` }" />
      <span class="label figures" :style="{ top: `${fromTop(percent)}%` }">{{ percent }}</span>
    </template>
    <span v-for="n in (parts ?? 1) - 1" :key="n" class="divider" :style="{ left: `${(n / (parts ?? 1)) * 100}%` }" />
  </div>
</template>

<style scoped>
.graticule { position: absolute; inset: 0; pointer-events: none; }
.line { position: absolute; left: 0; right: 0; height: 1px; background: var(--hairline); opacity: 0.55; }
.label { position: absolute; left: -28px; width: 24px; text-align: right; transform: translateY(-50%); font-size: 10px; color: var(--ink-quiet); }
.divider { position: absolute; top: 0; bottom: 0; width: 1px; background: var(--hairline); }
</style>
