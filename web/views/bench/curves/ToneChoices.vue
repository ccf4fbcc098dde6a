<script setup lang="ts">
// What of the tones is worked on: the curve of a channel, or a zone; and the way to a new zone.
import { computed } from 'vue'
import { zonePresets, type Step } from '@core/grade'
import SegmentedChoice from '../../../components/SegmentedChoice.vue'
import { text } from '../text'
import { toneChannelChoices, type ToneChannel } from './tone-channels'

const props = defineProps<{ curve: Step | null; zones: readonly Step[] }>()
const emit = defineEmits<{ add: [preset: (typeof zonePresets)[number]] }>()
const channel = defineModel<ToneChannel | null>('channel', { required: true })
const zone = defineModel<string | null>('zone', { required: true })

const channels = computed(() => toneChannelChoices(props.curve))
const named = computed(() =>
  props.zones.map(({ id, name, enabled }) => ({ value: id, name: enabled ? name : text.zones.offName(name) })),
)
function add(event: Event): void {
  const select = event.target as HTMLSelectElement
  const preset = zonePresets.find((p) => p.name === select.value)
  select.value = ''
  if (preset) emit('add', preset)
}
</script>

<template>
  <SegmentedChoice
    v-model="channel"
    :label="text.curve.label"
    :options="channels"
  />
  <SegmentedChoice
    v-if="zones.length"
    v-model="zone"
    :label="text.zones.label"
    :options="named"
  />
  <select
    :data-tip="text.zones.addTip"
    :aria-label="text.zones.add"
    @change="add"
  >
    <option value="">{{ text.zones.add }}</option>
    <option
      v-for="p in zonePresets"
      :key="p.name"
    >
      {{ p.name }}
    </option>
  </select>
</template>

<style scoped>
select {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  min-height: var(--control);
  width: 74px;
  font-size: 12px;
}
option {
  background: var(--panel);
  color: var(--ink);
}
</style>
