<script setup lang="ts">
// Two switches of the colour curves: clean ends, and colour noise quieted as far as it is measured.
import { computed } from 'vue'
import { ElSwitch } from 'element-plus'
import type { Step } from '@core/grade'
import { text } from '../text'

const props = defineProps<{
  step: Step
  /** The noise reading, as a share of the signal; null until it is measured. */ noise: number | null
}>()
const emit = defineEmits<{ change: [key: string, value: number | string] }>()
const { quick } = text
/** Noise that nobody sees, and noise that takes all of the quieting. */
const unseen = 0.003
const loud = 0.015
const wanted = computed(() =>
  props.noise === null
    ? null
    : Math.round(Math.min(1, Math.max(0, (props.noise - unseen) / (loud - unseen))) * 100) / 100,
)
</script>

<template>
  <div class="clean">
    <label :data-tip="quick.cleanTip">
      <ElSwitch
        :model-value="step.params['cleanEnds'] === 'on'"
        :aria-label="quick.clean"
        @update:model-value="emit('change', 'cleanEnds', $event ? 'on' : 'off')"
      />
      {{ quick.clean }}
    </label>
    <button
      :data-tip="quick.byReadingTip"
      type="button"
      class="button"
      :disabled="wanted === null || wanted === step.params['quietNoise']"
      @click="wanted !== null && emit('change', 'quietNoise', wanted)"
    >
      {{ quick.byReading(wanted === null ? null : wanted * 100) }}
    </button>
  </div>
</template>

<style scoped>
.clean {
  display: flex;
  gap: var(--gap-broad);
  align-items: center;
  margin-top: var(--gap);
}
label {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
}
</style>
