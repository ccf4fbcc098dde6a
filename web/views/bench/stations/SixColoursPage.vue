<script setup lang="ts">
// Six colours, each with its own few scales.
import QuickColours from '../curves/QuickColours.vue'
import { useOwnStep } from './useOwnStep'
import { useStepEdits } from './useStepEdits'

const step = useOwnStep('colour-curves')
const { change } = useStepEdits()
</script>

<template>
  <QuickColours
    v-if="step"
    :step="step"
    @change="(key, value) => step && change(step, key, value)"
  />
</template>
