<script setup lang="ts">
// One instrument in a window of its own, for a second monitor: it follows the Bench in the other window.
import { useTitle } from '@vueuse/core'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { instrumentIds, type InstrumentId } from '@core/instruments'
import { useDetachedReceiver } from '../../composables/useDetached'
import InstrumentPanel from '../bench/instruments/InstrumentPanel.vue'
import { text } from '../bench/text'

const props = defineProps<{ instrument: string }>()
const id = computed<InstrumentId>(() => instrumentIds.find((i) => i === props.instrument) ?? 'waveform')
const route = useRoute()
const measure = useDetachedReceiver(String(route.query['bench'] ?? ''), 'measure', () => id.value)
// Several such windows are told apart by what they are of.
useTitle(computed(() => [text.instruments[id.value], measure.value?.shot, 'Pale Meridian'].filter(Boolean).join(' · ')))
</script>

<template>
  <main class="alone">
    <InstrumentPanel
      v-if="measure"
      :id="id"
      :figure="measure.figures[id]"
      :trace="measure.traces[id] ?? null"
      :settings="measure.settings"
      :graticules="measure.graticules"
      :display-id="measure.displayId"
      :tap="measure.tap"
      :probe="null"
      :playing="false"
    />
    <p
      v-else
      class="quiet"
    >
      {{ text.detached.waiting }}
    </p>
  </main>
</template>

<style scoped>
.alone {
  height: 100%;
  display: grid;
  padding: var(--gap);
}
p {
  place-self: center;
}
</style>
