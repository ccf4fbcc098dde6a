<script setup lang="ts">
// The look that the scene or the project shares.
import { useBench } from '../session/bench'
import SharedLook from '../SharedLook.vue'
import { useStepEdits } from './useStepEdits'

const { shot, present } = useBench()
const { change } = useStepEdits()
</script>

<template>
  <SharedLook
    v-if="shot && present"
    :grade="present"
    :shot="shot"
    @change="change"
  />
</template>
