<script setup lang="ts">
// How much of a LUT counts, wherever it stands.
import type { NumberParameter } from '@core/grade'
import ScaleControl from './ScaleControl.vue'

const props = defineProps<{ modelValue: number; tip: string; disabled?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [value: number] }>()
const parameter: NumberParameter = {
  type: 'number',
  label: 'Strength',
  tip: props.tip,
  unit: '%',
  min: 0,
  max: 1,
  default: 1,
  step: 0.01,
  decimals: 0,
  shownFactor: 100,
}
</script>

<template>
  <ScaleControl
    :parameter="parameter"
    :model-value="modelValue"
    :disabled="disabled"
    data-control="lut-strength"
    @update:model-value="emit('update:modelValue', $event)"
  />
</template>
