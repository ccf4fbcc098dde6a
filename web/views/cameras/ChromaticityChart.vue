<script setup lang="ts">
// Gamuts on the CIE 1931 chromaticity chart beside those of displays.
import { computed, onBeforeMount } from 'vue'
import { Scatter } from 'vue-chartjs'
import { gamutById, type Gamut } from '@core/colour'
import { inks, themeCharts } from '../../design/charts'
import { spectralLocus } from './spectral-locus'

const props = defineProps<{ gamuts: readonly Gamut[] }>()
onBeforeMount(themeCharts)

const triangle = ({ red, green, blue }: Gamut): { x: number; y: number }[] =>
  [red, green, blue, red].map(({ x, y }) => ({ x, y }))
const display = (id: string, dash: number[]): object => {
  const g = gamutById(id)
  return {
    label: g.name.split(',')[0],
    data: triangle(g),
    showLine: true,
    borderColor: inks.quiet,
    borderDash: dash,
    borderWidth: 1,
    pointRadius: 0,
  }
}
const data = computed(
  () =>
    ({
      datasets: [
        ...props.gamuts.map((g, i) => ({
          label: g.name.split(',')[0],
          data: triangle(g),
          showLine: true,
          borderColor: i === 0 ? inks.accent : inks.ink,
          borderWidth: 2,
          pointRadius: 0,
        })),
        display('bt709', [1, 2]),
        display('p3-d65', [4, 2]),
        display('bt2020', [8, 3]),
        {
          label: 'all colours',
          data: spectralLocus.map(([x, y]) => ({ x, y })),
          showLine: true,
          borderColor: inks.hairline,
          borderWidth: 1,
          pointRadius: 0,
        },
      ],
    }) as never,
)
const options = computed(
  () =>
    ({
      events: [],
      plugins: {
        tooltip: { enabled: false },
        legend: { position: 'bottom', labels: { boxWidth: 18, boxHeight: 1, padding: 6 } },
      },
      scales: {
        x: { type: 'linear', min: 0, max: 0.8, ticks: { stepSize: 0.2 } },
        y: {
          type: 'linear',
          min: Math.min(-0.12, ...props.gamuts.map((g) => g.blue.y - 0.02)),
          max: Math.max(0.9, ...props.gamuts.map((g) => g.green.y + 0.02)),
          ticks: { stepSize: 0.2, callback: (v: number) => v.toFixed(1).replace('-', '−') },
        },
      },
    }) as never,
)
</script>

<template>
  <div class="chart">
    <Scatter
      :data="data"
      :options="options"
      role="img"
      :aria-label="`Chromaticity of ${gamuts.map((g) => g.name).join(', ')} beside BT.709, P3 and BT.2020`"
    />
  </div>
</template>

<style scoped>
.chart {
  position: relative;
  min-height: 0;
}
</style>
