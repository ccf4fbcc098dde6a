<script setup lang="ts">
// The marks of exposure along the clip.
import { computed } from 'vue'
import { stepKindById, type NumberParameter } from '@core/grade'
import KeyframeBar from '../KeyframeBar.vue'
import { useBench } from '../session/bench'
import { useOwnStep } from './useOwnStep'

const bench = useBench()
const step = useOwnStep('exposure')
const key = 'exposureStops'
const parameter = stepKindById('exposure').parameters[key] as NumberParameter
const whole = computed(() => bench.whole.value)
</script>

<template>
  <KeyframeBar
    v-if="step && whole"
    :grade="whole"
    :step="step"
    :parameter-key="key"
    :parameter="parameter"
    :first-frame="bench.first.value"
    @go="bench.go"
  />
</template>
