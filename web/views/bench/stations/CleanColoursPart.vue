<script setup lang="ts">
// Noise in the shadows loses its colour: what that needs, from the reading.
import CleanColours from '../curves/CleanColours.vue'
import { useBench } from '../session/bench'
import { useOwnStep } from './useOwnStep'
import { useStepEdits } from './useStepEdits'

const { noise } = useBench()
const step = useOwnStep('colour-curves')
const { change } = useStepEdits()
</script>

<template>
  <CleanColours
    v-if="step"
    :step="step"
    :noise="noise"
    @change="(key, value) => step && change(step, key, value)"
  />
</template>
