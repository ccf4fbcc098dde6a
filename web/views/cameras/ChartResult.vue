<script setup lang="ts">
// The patches of a chart beside what they should be, and the numbers that follow.
import { computed } from 'vue'
import { meanOf, type ChartReading, type PatchReading } from '@core/cards'
import { encodingById, gamutById, gamutToGamut, transform, workingGamut, type Vector3 } from '@core/colour'
import { printNumber } from '@core/numbers'
import { text } from './text'

const props = defineProps<{ reading: ChartReading }>()

const toScreen = gamutToGamut(workingGamut, gamutById('bt709'))
const { encode } = encodingById('srgb').curve
/** A light as the screen shows it, a perfect white at its white. */
function colourOf(light: Vector3): string {
  const [r, g, b] = transform(toScreen, light).map((v) => Math.round(255 * Math.min(1, Math.max(0, encode(v)))))
  return `rgb(${r} ${g} ${b})`
}
type Way = 'asRead' | 'balanced' | 'matched'
const worstOf = (way: Way): PatchReading | undefined =>
  props.reading.patches.filter((p) => !p.clipped).reduce((a, b) => (b[way] > a[way] ? b : a))
const ways = computed(() =>
  (['asRead', 'balanced', 'matched'] as const).map((way) => {
    const worst = worstOf(way)
    return {
      way,
      mean: meanOf(props.reading, way).toFixed(2),
      worst: worst ? text.chart.worst(worst[way].toFixed(1), worst.name) : '',
    }
  }),
)
</script>

<template>
  <div class="chart-result">
    <p
      v-if="reading.doubt"
      class="doubt"
      role="alert"
    >
      {{ reading.doubt }}
    </p>
    <h2
      class="caps"
      :data-tip="text.chart.patchesTip"
    >
      {{ text.chart.patches }}
    </h2>
    <ul data-testid="patches">
      <li
        v-for="patch in reading.patches"
        :key="patch.name"
        :title="text.chart.patch(patch.name, patch.matched.toFixed(2))"
      >
        <span
          class="swatch"
          aria-hidden="true"
        >
          <span :style="{ background: colourOf(patch.known) }" />
          <span :style="{ background: colourOf(patch.corrected) }" />
        </span>
        <span class="visually-hidden">{{ patch.name }}</span>
        <span class="figures small">{{ patch.clipped ? text.chart.clipped : patch.matched.toFixed(1) }}</span>
      </li>
    </ul>
    <table>
      <caption class="visually-hidden">{{ text.chart.difference }}</caption>
      <tbody>
        <tr>
          <th scope="row">{{ text.chart.exposure }}</th>
          <td class="figures">{{ printNumber(reading.exposureStops, 2, true) }} stops</td>
          <td />
        </tr>
        <tr>
          <th scope="row">{{ text.chart.temperature }}</th>
          <td class="figures">{{ printNumber(reading.temperatureMired, 0, true) }} mired</td>
          <td />
        </tr>
        <tr>
          <th scope="row">{{ text.chart.tint }}</th>
          <td class="figures">{{ printNumber(reading.tint, 1, true) }} Duv ×10³</td>
          <td />
        </tr>
        <tr
          v-for="{ way, mean, worst } in ways"
          :key="way"
          :data-way="way"
        >
          <th scope="row">{{ text.chart[way] }}</th>
          <td class="figures">{{ mean }}</td>
          <td class="figures quiet small">{{ worst }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.chart-result {
  display: grid;
  gap: var(--gap);
}
h2 {
  font-weight: 400;
}
ul {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: var(--gap-small);
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  justify-items: end;
}
.swatch {
  display: grid;
  grid-template-columns: 1fr 1fr;
  width: 100%;
  height: 34px;
}
table {
  border-collapse: collapse;
}
th {
  font-weight: 400;
  text-align: left;
  color: var(--ink-quiet);
  padding: 0 var(--gap) 2px 0;
}
td {
  text-align: right;
  padding: 0 0 2px var(--gap);
  white-space: nowrap;
}
.doubt {
  margin: 0;
  color: var(--warning);
}
</style>
