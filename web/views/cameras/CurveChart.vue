<script setup lang="ts">
// An encoding's curve: stops from middle grey across, code upward, with grey, black and clip marked.
import { computed, onBeforeMount } from 'vue'
import { Line } from 'vue-chartjs'
import { middleGrey, type Encoding, type EncodingFacts } from '@core/colour'
import { inks, themeCharts } from '../../design/charts'
import { text } from './text'

const props = defineProps<{ encoding: Encoding; facts: EncodingFacts }>()
onBeforeMount(themeCharts)

const low = -10
const high = computed(() => Math.min(12, Math.ceil(props.facts.stopsAboveGrey)))
const line = (
  points: readonly { x: number; y: number }[],
  colour: string,
  width: number,
  dash: number[] = [],
): object => ({
  data: points,
  borderColor: colour,
  borderWidth: width,
  borderDash: dash,
  pointRadius: 0,
  parsing: false,
})
const data = computed(() => {
  const { encode } = props.encoding.curve
  const { stopsAboveGrey, greyCode, blackCode } = props.facts
  const curve = Array.from({ length: 221 }, (_, i) => low + ((high.value - low) * i) / 220).map((x) => ({
    x,
    y: Math.min(1, encode(middleGrey * 2 ** x)) * 1023,
  }))
  const clip = Math.min(stopsAboveGrey, high.value)
  return {
    datasets: [
      line(
        [
          { x: low, y: greyCode },
          { x: 0, y: greyCode },
          { x: 0, y: 0 },
        ],
        inks.quiet,
        1,
        [4, 3],
      ),
      line(
        [
          { x: low, y: blackCode },
          { x: high.value, y: blackCode },
        ],
        inks.hairline,
        1,
        [2, 3],
      ),
      line(
        [
          { x: clip, y: 0 },
          { x: clip, y: 1023 },
        ],
        inks.quiet,
        1,
        [4, 3],
      ),
      line(curve, inks.accent, 2),
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
          min: low,
          max: high.value,
          title: { display: true, text: text.detail.stops },
          ticks: {
            stepSize: 2,
            callback: (v: number) => {
              if (v > 0) return `+${v}`
              if (v < 0) return `−${-v}`
              return 'grey'
            },
          },
        },
        y: {
          type: 'linear',
          min: 0,
          max: 1023,
          title: { display: true, text: text.detail.code },
          ticks: { stepSize: 1023 / 4, callback: (v: number) => String(Math.round(v)) },
        },
        percent: {
          type: 'linear',
          position: 'right',
          min: 0,
          max: 100,
          grid: { display: false },
          ticks: { stepSize: 25, callback: (v: number) => `${v} %` },
        },
      },
    }) as never,
)
const description = computed(
  () =>
    `${props.encoding.name}: black at code ${props.facts.blackCode.toFixed(0)}, grey at ` +
    `${props.facts.greyCode.toFixed(0)}, clip ${props.facts.stopsAboveGrey.toFixed(1)} stops over ` +
    'grey',
)
</script>

<template>
  <div class="chart">
    <Line
      :data="data"
      :options="options"
      role="img"
      :aria-label="description"
    />
  </div>
</template>

<style scoped>
.chart {
  position: relative;
  min-height: 0;
}
</style>
