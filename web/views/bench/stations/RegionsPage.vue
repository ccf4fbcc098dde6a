<script setup lang="ts">
// The same tools on a part of the picture.
import RegionControls from '../regions/RegionControls.vue'
import { useBench } from '../session/bench'
import { useStepEdits } from './useStepEdits'

const { present, whole, first, go, regionQuestions } = useBench()
const { change } = useStepEdits()
</script>

<template>
  <RegionControls
    v-if="present && whole"
    :grade="present"
    :whole="whole"
    :first-frame="first"
    @change="change"
    @go="go"
    @start="regionQuestions.start"
    @bring="regionQuestions.bring"
  />
</template>
