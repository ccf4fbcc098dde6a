<script setup lang="ts">
// How many codes each stop is given, with 8 and with 10 bits.
import { computed, onBeforeMount } from 'vue'
import { Bar } from 'vue-chartjs'
import type { StopCodes } from '@core/colour'
import { inks, themeCharts } from '../../design/charts'
import { text } from './text'

const props = defineProps<{ stops: readonly StopCodes[] }>()
onBeforeMount(themeCharts)
const data = computed(() => ({
  labels: props.stops.map(({ from }) => {
    if (from > 0) return `+${from}`
    if (from < 0) return `−${-from}`
    return '0'
  }),
  datasets: [
    { label: '10 bits', data: props.stops.map((s) => Number(s.codes10.toFixed(1))), backgroundColor: inks.quiet },
    { label: '8 bits', data: props.stops.map((s) => Number(s.codes8.toFixed(1))), backgroundColor: inks.accent },
  ],
}))
const options = {
  plugins: { legend: { labels: { boxWidth: 10, boxHeight: 10 } } },
  scales: {
    x: { grid: { display: false }, ticks: { maxRotation: 0 }, title: { display: true, text: text.detail.stops } },
    y: { beginAtZero: true },
  },
} as never
</script>

<template>
  <div class="chart">
    <Bar
      :data="data"
      :options="options"
      role="img"
      aria-label="Codes per stop with 8 and 10 bits"
    />
  </div>
</template>

<style scoped>
.chart {
  position: relative;
  min-height: 0;
}
</style>
