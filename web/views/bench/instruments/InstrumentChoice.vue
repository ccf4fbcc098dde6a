<script setup lang="ts">
// The name of an instrument, which chooses another for its place. Apart from the rest, as a list that is drawn again is
// laid out again.
import { instrumentIds, type InstrumentId } from '@core/instruments'
import { text } from '../text'

defineProps<{ id: InstrumentId }>()
const emit = defineEmits<{ choose: [id: InstrumentId] }>()
</script>

<template>
  <select
    class="caps name"
    :value="id"
    :title="text.instrumentTips[id]"
    :aria-label="text.chooseInstrument"
    @change="emit('choose', ($event.target as HTMLSelectElement).value as InstrumentId)"
  >
    <option
      v-for="i in instrumentIds"
      :key="i"
      :value="i"
    >
      {{ text.instruments[i] }}
    </option>
  </select>
</template>

<style scoped>
.name {
  background: none;
  border: 0;
  color: var(--ink-quiet);
  padding: 0;
  min-height: 20px;
  margin-left: -4px;
  max-width: min(128px, 100%);
  text-overflow: ellipsis;
}
.name:hover {
  color: var(--ink);
}
.name option {
  background: var(--panel);
  color: var(--ink);
}
</style>
