<script setup lang="ts">
// The grey scale: what goes in across, what comes out upward, channel by channel.
import { computed, onBeforeMount } from 'vue'
import { Line } from 'vue-chartjs'
import type { Inspection } from '@core/lut-bench'
import { inks, themeCharts } from '../../design/charts'
import { text } from './text'

const props = defineProps<{ inspection: Inspection }>()
onBeforeMount(themeCharts)
const line = (ys: readonly number[], colour: string, width: number, dash: number[] = []): object => ({
  data: props.inspection.greys.inputs.map((x, i) => ({ x: x * 100, y: (ys[i] ?? 0) * 100 })),
  borderColor: colour,
  borderWidth: width,
  borderDash: dash,
  pointRadius: 0,
  parsing: false,
})
const data = computed(() => {
  const { inputs, red, green, blue } = props.inspection.greys
  return {
    datasets: [
      line(inputs, inks.hairline, 1, [3, 3]),
      line(red, inks.red, 1.5),
      line(green, inks.green, 1.5),
      line(blue, inks.blue, 1.5),
    ],
  } as never
})
const options = computed(
  () =>
    ({
      events: [],
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
      scales: {
        x: {
          type: 'linear',
          min: props.inspection.domain.low * 100,
          max: props.inspection.domain.high * 100,
          ticks: { callback: (v: number) => `${v} %` },
        },
        y: { type: 'linear', suggestedMin: 0, suggestedMax: 100, ticks: { callback: (v: number) => `${v} %` } },
      },
    }) as never,
)
const description = computed(
  () =>
    `Greys: ${(props.inspection.middleGrey.in * 100).toFixed(0)} % in gives ` +
    `${(props.inspection.middleGrey.out * 100).toFixed(0)} % out, slope ` +
    `${props.inspection.middleGrey.slope.toFixed(2)}`,
)
</script>

<template>
  <figure>
    <figcaption class="quiet">{{ text.charts.greys }}</figcaption>
    <div class="chart">
      <Line
        :data="data"
        :options="options"
        role="img"
        :aria-label="description"
      />
    </div>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
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
</style>
