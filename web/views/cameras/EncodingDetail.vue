<script setup lang="ts">
// One encoding: its curve, its gamuts on a chromaticity chart, its levels, and what 8 or 10 bits leave per stop.
import { computed } from 'vue'
import { encodingFacts, gamutById, type Encoding } from '@core/colour'
import ChromaticityChart from './ChromaticityChart.vue'
import CodesPerStopChart from './CodesPerStopChart.vue'
import CurveChart from './CurveChart.vue'
import { text } from './text'

const props = defineProps<{ encoding: Encoding }>()
const facts = computed(() => encodingFacts(props.encoding))
const gamuts = computed(() => props.encoding.gamutIds.map(gamutById))
const figures = computed(() => {
  const f = facts.value
  return [
    { name: text.detail.above, tip: text.list.reachTip, value: f.stopsAboveGrey.toFixed(2) },
    { name: text.detail.below, tip: text.detail.belowTip, value: f.stopsBelowGrey.toFixed(2) },
    { name: text.detail.zebraGrey, tip: text.detail.zebraTip, value: `${f.zebraGreyPercent.toFixed(1)} %` },
    { name: text.detail.zebraWhite, tip: text.detail.zebraTip, value: `${f.zebraWhitePercent.toFixed(1)} %` },
    { name: text.detail.clip, tip: text.detail.clipTip, value: f.clipLinear.toPrecision(4) },
  ]
})
</script>

<template>
  <section
    class="detail"
    :aria-label="encoding.name"
  >
    <header>
      <h2>{{ encoding.name }}</h2>
      <span class="quiet">{{ encoding.tip }}</span>
    </header>
    <figure class="curve">
      <figcaption
        :data-tip="text.detail.curveTip"
        class="caps"
      >
        {{ text.detail.curve }}
      </figcaption>
      <CurveChart
        :encoding="encoding"
        :facts="facts"
      />
    </figure>
    <figure class="gamut">
      <figcaption
        :data-tip="text.detail.gamutTip"
        class="caps"
      >
        {{ text.detail.gamut }}
        <span class="quiet plain">{{ gamuts.map((g) => g.name).join(', ') }}</span>
      </figcaption>
      <ChromaticityChart :gamuts="gamuts" />
    </figure>
    <dl>
      <template
        v-for="f in figures"
        :key="f.name"
      >
        <dt
          :data-tip="f.tip"
          tabindex="0"
        >
          {{ f.name }}
        </dt>
        <dd class="figures">{{ f.value }}</dd>
      </template>
      <dt>{{ text.detail.source }}</dt>
      <dd class="source quiet">{{ encoding.source }}</dd>
    </dl>
    <figure class="codes">
      <figcaption
        :data-tip="text.detail.perStopTip"
        class="caps"
      >
        {{ text.detail.perStop }}
      </figcaption>
      <CodesPerStopChart :stops="facts.stops" />
    </figure>
  </section>
</template>

<style scoped>
.detail {
  display: grid;
  grid-template: auto minmax(0, 1.15fr) minmax(0, 1fr) / minmax(0, 1.15fr) minmax(0, 1fr);
  gap: var(--gap) var(--gap-wide);
  min-height: 0;
}
header {
  grid-column: 1 / -1;
  display: flex;
  gap: var(--gap-wide);
  align-items: baseline;
}
h2 {
  font-size: var(--text-large);
}
figure {
  margin: 0;
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  background: var(--well);
  border: var(--line) solid var(--hairline);
  padding: var(--gap-small) var(--gap);
  min-height: 0;
  min-width: 0;
}
figcaption {
  justify-self: start;
}
.plain {
  text-transform: none;
  letter-spacing: 0;
}
.curve {
  grid-row: 2 / 3;
}
.gamut {
  grid-row: 2 / 3;
  grid-column: 2;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  margin: 0;
  align-content: start;
  grid-row: 3;
  grid-column: 2;
}
dt,
dd {
  margin: 0;
  padding: 3px 0;
  border-bottom: var(--line) solid var(--raised);
}
dd {
  text-align: right;
}
.source {
  font-size: var(--text-small);
}
</style>
