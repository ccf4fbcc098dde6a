<script setup lang="ts">
// The colours of the whole picture: curves over them, and beside these six colours with a few scales, which move the
// same curves. The curve that a scale moves is the one that is shown.
import { ref } from 'vue'
import type { ColourCurveId, CurvePoint } from '@core/grade'
import ColourCurves from '../curves/ColourCurves.vue'
import QuickColours from '../curves/QuickColours.vue'
import { useOwnStep } from './useOwnStep'
import { useStepEdits } from './useStepEdits'

const step = useOwnStep('colour-curves')
const { change } = useStepEdits()
const curveId = ref<ColourCurveId>('hueByHue')
const set = (key: string, points: readonly CurvePoint[]): void => {
  if (step.value) change(step.value, key, points)
}
function setQuick(key: ColourCurveId, points: readonly CurvePoint[]): void {
  curveId.value = key
  set(key, points)
}
</script>

<template>
  <ColourCurves
    v-if="step"
    v-model:curve-id="curveId"
    :step="step"
    @change="set"
  >
    <QuickColours
      :step="step"
      @change="setQuick"
    />
  </ColourCurves>
</template>
