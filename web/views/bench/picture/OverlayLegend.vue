<script setup lang="ts">
// What the overlay on the picture means: its name, the stops map's inks, the zebra's band.
import { computed } from 'vue'
import { mapColours, mapStops, overlayById, type OverlaySettings } from '@core/instruments'
import { percent } from '../figures'

const props = defineProps<{ overlay: OverlaySettings }>()
defineEmits<{ zebra: [band: { low: number; high: number }] }>()
const name = computed(() => overlayById(props.overlay.id).name)
const label = (stop: number): string => {
  if (stop > 0) return `+${stop}`
  if (stop < 0) return `−${-stop}`
  return 'grey'
}
const share = (event: Event): number =>
  Math.min(100, Math.max(0, Number((event.target as HTMLInputElement).value))) / 100
</script>

<template>
  <div
    class="legend"
    data-testid="overlay-legend"
  >
    <span>{{ name }}</span>
    <ol v-if="overlay.id === 'stops'">
      <li
        v-for="(stop, i) in mapStops"
        :key="stop"
      >
        <i :style="{ background: mapColours[i] }" />
        <span class="figures">{{ label(stop) }}</span>
      </li>
    </ol>
    <span
      v-else-if="overlay.id === 'zebra'"
      class="band figures"
      @pointerdown.stop
    >
      <input
        type="number"
        min="0"
        max="100"
        aria-label="Zebra from, percent"
        :value="percent(overlay.zebra.low)"
        @change="$emit('zebra', { ...overlay.zebra, low: share($event) })"
      />
      –
      <input
        type="number"
        min="0"
        max="100"
        aria-label="Zebra to, percent"
        :value="percent(overlay.zebra.high)"
        @change="$emit('zebra', { ...overlay.zebra, high: share($event) })"
      />
      %
    </span>
  </div>
</template>

<style scoped>
.legend {
  position: absolute;
  left: var(--gap);
  top: var(--gap);
  display: flex;
  align-items: center;
  gap: var(--gap);
  padding: 1px var(--gap-small);
  background: var(--well);
  font-size: 11px;
  pointer-events: none;
}
ol {
  display: flex;
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  justify-items: center;
  width: 26px;
  font-size: 9px;
}
i {
  width: 26px;
  height: 9px;
}
.band {
  pointer-events: auto;
}
input {
  width: 56px;
  background: var(--panel);
  border: var(--line) solid var(--hairline);
  color: var(--ink);
}
</style>
