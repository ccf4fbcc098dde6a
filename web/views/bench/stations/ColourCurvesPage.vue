<script setup lang="ts">
// The curves over colours of the whole picture.
import ColourCurves from '../curves/ColourCurves.vue'
import { useOwnStep } from './useOwnStep'
import { useStepEdits } from './useStepEdits'

const step = useOwnStep('colour-curves')
const { change } = useStepEdits()
</script>

<template>
  <ColourCurves
    v-if="step"
    :step="step"
    @change="(key, value) => step && change(step, key, value)"
  />
</template>
