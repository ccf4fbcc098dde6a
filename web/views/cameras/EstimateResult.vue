<script setup lang="ts">
// The estimated curve within its band, what it says at a few tones, and keeping it.
import { computed, onBeforeMount } from 'vue'
import { Line } from 'vue-chartjs'
import { middleGrey, type EncodingDefinition } from '@core/colour'
import type { CurveEstimate } from '@core/measure'
import { clamp, printNumber } from '@core/numbers'
import { inks, themeCharts } from '../../design/charts'
import KeepEncoding from './KeepEncoding.vue'
import { text } from './text'

const props = defineProps<{ estimate: CurveEstimate | null; kept: string }>()
defineEmits<{ keep: [definition: Omit<EncodingDefinition, 'curve' | 'source'>] }>()
onBeforeMount(themeCharts)

const low = -7
const high = 7
interface Tone {
  readonly code: number
  readonly stops: number
  readonly band: number
}
const tones = computed<readonly Tone[]>(() =>
  (props.estimate?.entries ?? []).flatMap(({ code, linear }, i) =>
    linear > 0
      ? [{ code: code * 1023, stops: Math.log2(linear / middleGrey), band: props.estimate?.bandStops[i] ?? 0 }]
      : [],
  ),
)
/** Code and band at so many stops from grey; null where the curve does not reach. */
function toneAt(stops: number): Tone | null {
  const i = tones.value.findIndex((t) => t.stops >= stops)
  const [before, after] = [tones.value[i - 1], tones.value[i]]
  if (!before || !after) return null
  const share = (stops - before.stops) / (after.stops - before.stops)
  return {
    stops,
    code: before.code + share * (after.code - before.code),
    band: before.band + share * (after.band - before.band),
  }
}
const rows = computed(() => [-4, -2, 0, 1, 2, 3, 4].flatMap((stops) => toneAt(stops) ?? []))
const atGrey = computed(() => toneAt(0)?.band ?? null)

const line = (side: -1 | 0 | 1, more: object): object => ({
  data: tones.value
    .filter((t) => side !== 0 || (t.stops >= low && t.stops <= high))
    .map((t) => ({ x: clamp(t.stops + side * t.band, low, high), y: t.code })),
  borderWidth: 1,
  pointRadius: 0,
  parsing: false,
  ...more,
})
const data = computed(
  () =>
    ({
      datasets: [
        // What comes first is drawn last.
        line(0, { borderColor: inks.accent, borderWidth: 2 }),
        line(-1, { borderColor: inks.quiet }),
        line(1, { borderColor: inks.quiet, fill: '-1', backgroundColor: inks.hairline }),
      ],
    }) as never,
)
const options = {
  events: [],
  animation: false,
  plugins: { legend: { display: false }, tooltip: { enabled: false } },
  scales: {
    x: {
      type: 'linear',
      min: low,
      max: high,
      title: { display: true, text: text.detail.stops },
      ticks: { stepSize: 1, callback: (v: number) => (v === 0 ? 'grey' : printNumber(v, 0, true)) },
    },
    y: {
      type: 'linear',
      min: 0,
      max: 1023,
      title: { display: true, text: text.detail.code },
      ticks: { stepSize: 1023 / 4, callback: (v: number) => String(Math.round(v)) },
    },
  },
} as never
</script>

<template>
  <section
    class="result"
    :aria-label="text.estimate.result"
  >
    <h2
      class="caps"
      :data-tip="text.estimate.chartTip"
    >
      {{ text.estimate.result }}
    </h2>
    <template v-if="estimate">
      <p
        v-if="atGrey !== null"
        class="figures"
        data-testid="band-at-grey"
      >
        {{ text.estimate.summary(atGrey.toFixed(1)) }}
      </p>
      <div class="chart">
        <Line
          :data="data"
          :options="options"
          role="img"
          :aria-label="text.estimate.chartTip"
        />
      </div>
      <table>
        <thead>
          <tr class="caps">
            <th>{{ text.estimate.stopsFromGrey }}</th>
            <th>{{ text.estimate.code }}</th>
            <th :data-tip="text.estimate.bandTip">{{ text.estimate.band }}</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="r in rows"
            :key="r.stops"
            class="figures"
          >
            <td>{{ printNumber(r.stops, 0, true) }}</td>
            <td>{{ r.code.toFixed(0) }}</td>
            <td>±{{ r.band.toFixed(1) }}</td>
          </tr>
        </tbody>
      </table>
      <KeepEncoding @keep="$emit('keep', $event)" />
      <p
        v-if="kept"
        role="status"
      >
        {{ text.estimate.kept(kept) }}
      </p>
    </template>
  </section>
</template>

<style scoped>
.result {
  display: grid;
  gap: var(--gap);
  align-content: start;
  min-height: 0;
  overflow-y: auto;
  background: var(--panel);
  border: var(--line) solid var(--hairline);
  padding: var(--gap-wide);
}
h2 {
  font-weight: 400;
}
.chart {
  position: relative;
  height: 280px;
}
table {
  border-collapse: collapse;
  max-width: 320px;
}
th,
td {
  text-align: right;
  padding: 1px var(--gap);
  font-weight: 400;
  border-bottom: var(--line) solid var(--raised);
}
th {
  color: var(--ink-quiet);
}
p {
  margin: 0;
}
</style>
