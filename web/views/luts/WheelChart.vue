<script setup lang="ts">
// Once round the wheel: how far each hue is turned, and how much stronger or weaker it comes out.
import { computed, onBeforeMount } from 'vue'
import { Line } from 'vue-chartjs'
import type { Inspection } from '@core/lut-bench'
import { inks, themeCharts } from '../../design/charts'
import { hueWheel } from '../../design/hue-wheel'
import { text } from './text'

const props = defineProps<{ inspection: Inspection }>()
onBeforeMount(themeCharts)
const closed = computed(() => {
  const [first] = props.inspection.hues
  return first ? [...props.inspection.hues, { ...first, degrees: 360 }] : []
})
const data = computed(
  () =>
    ({
      datasets: [
        {
          label: text.charts.turn,
          data: closed.value.map((h) => ({ x: h.degrees, y: h.turnDegrees })),
          borderColor: inks.accent,
          borderWidth: 1.5,
          pointRadius: 0,
          parsing: false,
          yAxisID: 'turn',
        },
        {
          label: text.charts.gain,
          data: closed.value.map((h) => ({ x: h.degrees, y: h.chromaGain })),
          borderColor: inks.quiet,
          borderDash: [4, 3],
          borderWidth: 1.5,
          pointRadius: 0,
          parsing: false,
          yAxisID: 'gain',
        },
      ],
    }) as never,
)
const options = {
  events: [],
  plugins: {
    legend: { display: true, position: 'top', align: 'end', labels: { boxWidth: 16, boxHeight: 0, padding: 4 } },
    tooltip: { enabled: false },
  },
  scales: {
    x: { type: 'linear', min: 0, max: 360, ticks: { stepSize: 60, callback: (v: number) => `${v}°` } },
    turn: { type: 'linear', position: 'left', suggestedMin: -15, suggestedMax: 15 },
    gain: { type: 'linear', position: 'right', suggestedMin: 0, suggestedMax: 2, grid: { display: false } },
  },
} as never
const description = computed(() => {
  const most = props.inspection.hues.reduce((a, b) => (Math.abs(b.turnDegrees) > Math.abs(a.turnDegrees) ? b : a), {
    degrees: 0,
    turnDegrees: 0,
    chromaGain: 1,
  })
  return `Hues: the largest turn is ${most.turnDegrees.toFixed(1)} degrees, at ${most.degrees} degrees`
})
</script>

<template>
  <figure>
    <figcaption class="quiet">{{ text.charts.hues }}</figcaption>
    <div class="chart">
      <Line
        :data="data"
        :options="options"
        role="img"
        :aria-label="description"
      />
    </div>
    <span
      class="wheel"
      :style="{ background: hueWheel }"
      aria-hidden="true"
    />
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: grid;
  grid-template: auto minmax(0, 1fr) 5px / minmax(0, 1fr);
  min-height: 0;
  min-width: 0;
}
figcaption {
  font-size: 11px;
}
.chart {
  position: relative;
  min-height: 0;
}
.wheel {
  margin: 0 34px;
}
</style>
