<script setup lang="ts">
// The tone curves of the whole picture.
import ToneCurves from '../curves/ToneCurves.vue'
import { useOwnStep } from './useOwnStep'
import { useStepEdits } from './useStepEdits'

const step = useOwnStep('tone-curve')
const { change } = useStepEdits()
</script>

<template>
  <ToneCurves
    v-if="step"
    :step="step"
    @change="(key, value) => step && change(step, key, value)"
  />
</template>
