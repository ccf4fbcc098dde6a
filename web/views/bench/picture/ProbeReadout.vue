<script setup lang="ts">
// The numbers of the place under the pointer: signal, luma, colour, and stops of scene light from grey.
import { computed } from 'vue'
import type { Probe } from '@core/instruments'
import { percent } from '../figures'

const props = defineProps<{ probe: Probe }>()
const stops = computed(() =>
  props.probe.stops === null ? '–' : `${props.probe.stops < 0 ? '−' : '+'}${Math.abs(props.probe.stops).toFixed(1)}`,
)
</script>

<template>
  <p
    class="readout figures"
    data-testid="probe"
  >
    <span>R {{ percent(probe.rgb[0]) }}</span>
    <span>G {{ percent(probe.rgb[1]) }}</span>
    <span>B {{ percent(probe.rgb[2]) }}</span>
    <span>luma {{ percent(probe.luma) }} %</span>
    <span>chroma {{ percent(probe.chroma) }} %</span>
    <span>{{ probe.chroma > 0.01 ? `${probe.hueDegrees.toFixed(0)}°` : '–' }}</span>
    <span>{{ stops }} stops</span>
  </p>
</template>

<style scoped>
.readout {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--gap-wide);
  margin: 0;
  padding: 1px var(--gap);
  background: rgb(46 46 46 / 88%);
  font-size: 11px;
  pointer-events: none;
}
.readout span {
  min-width: 4.4em;
  white-space: nowrap;
}
</style>
