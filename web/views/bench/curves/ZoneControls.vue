<script setup lang="ts">
// One zone: a push of some tones only, over the picture's own tones, with its scales under them.
import type { Step } from '@core/grade'
import { lowestStops } from '@core/instruments'
import PlainSelect from '../../../components/PlainSelect.vue'
import { usePicking } from '../../../stores/picking'
import { useBench } from '../session/bench'
import StepControls from '../StepControls.vue'
import { text } from '../text'
import DistributionBehind from './DistributionBehind.vue'
import ZoneField from './ZoneField.vue'

defineProps<{ zone: Step; zones: readonly Step[] }>()
const emit = defineEmits<{
  change: [key: string, value: number | string]
  choose: [id: string]
  remove: []
  enabled: [on: boolean]
}>()
const { present } = useBench()
const picking = usePicking()
const reaches = [
  { id: 'around', name: text.zones.around },
  { id: 'below', name: text.zones.below },
  { id: 'above', name: text.zones.above },
]
const range = [-7.4, 8.4] as const
</script>

<template>
  <div
    class="curves"
    :data-step="zone.id"
  >
    <div class="bar">
      <slot name="choices" />
      <PlainSelect
        class="reach"
        :label="text.zones.reach"
        :tip="text.zones.reachTip"
        :options="reaches"
        :model-value="String(zone.params['reach'])"
        @update:model-value="emit('change', 'reach', $event)"
      />
      <button
        type="button"
        :aria-pressed="zone.enabled"
        @click="emit('enabled', !zone.enabled)"
      >
        {{ zone.enabled ? text.zones.on : text.zones.off }}
      </button>
      <button
        type="button"
        @click="emit('remove')"
      >
        {{ text.zones.remove }}
      </button>
    </div>
    <ZoneField
      :zones="zones"
      :chosen="zone"
      :range="range"
      @choose="emit('choose', $event)"
      @change="(key, stops) => emit('change', key, stops)"
    >
      <DistributionBehind
        v-if="picking.distribution?.distribution"
        :counts="picking.distribution.distribution.tones"
        :from="lowestStops"
        :to="lowestStops + picking.distribution.distribution.tones.length / 4"
        :x="range"
      />
    </ZoneField>
    <StepControls
      v-if="present"
      :grade="present"
      station="shape"
      :only="zone.id"
      :columns="3"
      :facts="null"
      @change="(_, key, value) => emit('change', key, value)"
    />
  </div>
</template>

<style scoped src="./curves.css" />
<style scoped>
.reach {
  grid-template-columns: auto 132px;
}
</style>
