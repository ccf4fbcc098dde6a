<script setup lang="ts">
// Waveform, parade and vectorscope at the right of the picture; any of them can fill the column.
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'
import type { InstrumentId } from '../../stores/view'
import type { RenderResult } from '../../workers/messages'
import InstrumentPanel from './InstrumentPanel.vue'
import LevelGraticule from './LevelGraticule.vue'
import { figuresOf } from './figures'
import { text } from './text'
import VectorGraticule from './VectorGraticule.vue'

const props = defineProps<{ result: RenderResult | null; filling: InstrumentId | null }>()
const emit = defineEmits<{ fill: [id: InstrumentId | null] }>()
const narrow = useMediaQuery('(max-width: 1100px)')
const ids = ['waveform', 'parade', 'vectorscope'] as const
const alone = computed<InstrumentId | null>(() => props.filling ?? (narrow.value ? 'waveform' : null))
const shown = computed(() => ids.filter((id) => alone.value === null || alone.value === id))
const figures = computed(() => figuresOf(props.result?.facts ?? null))
const trace = computed(() => ({ waveform: props.result?.waveform ?? null, parade: props.result?.parade ?? null, vectorscope: props.result?.vector ?? null }))

function toggle(id: InstrumentId): void {
  emit('fill', props.filling === id ? null : id)
}
</script>

<template>
  <div class="column" :class="{ alone: alone !== null }">
    <div v-if="narrow" class="switch" role="group" aria-label="Instrument">
      <button v-for="id in ids" :key="id" type="button" :aria-pressed="alone === id" @click="emit('fill', id)">{{ text.instruments[id] }}</button>
    </div>
    <InstrumentPanel
      v-for="id in shown" :key="id" :class="id" :name="text.instruments[id]" :tip="text.instrumentTips[id]" :figure="figures[id]" :trace="trace[id]"
      :square="id === 'vectorscope'" :filling="filling === id" :can-fill="!narrow" @fill="toggle(id)"
    >
      <VectorGraticule v-if="id === 'vectorscope'" />
      <LevelGraticule v-else :parts="id === 'parade' ? 3 : 1" />
    </InstrumentPanel>
  </div>
</template>

<style scoped>
.column { display: grid; grid-template: 1fr 1.08fr / 1.25fr 1fr; grid-template-areas: 'waveform waveform' 'parade vectorscope'; gap: var(--gap); min-height: 0; min-width: 0; }
.column.alone { display: flex; flex-direction: column; }
.alone > section { flex: 1; }
.waveform { grid-area: waveform; }
.parade { grid-area: parade; }
.vectorscope { grid-area: vectorscope; }
.switch { display: flex; gap: var(--gap-small); }
.switch button { background: none; border: var(--line) solid var(--hairline); border-radius: var(--radius); min-height: var(--control); }
.switch button[aria-pressed='true'] { border-color: var(--accent); color: var(--accent); }
</style>
