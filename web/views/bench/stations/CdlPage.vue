<script setup lang="ts">
// A colour decision list as a step.
import { cutTo } from '@core/names'
import { addStep, cdlParameters, removeStep, type CdlNumbers } from '@core/grade'
import { useGrade } from '../../../stores/grade'
import CdlControls from '../CdlControls.vue'
import { useBench } from '../session/bench'
import { useOwnStep } from './useOwnStep'

const { shot } = useBench()
const grade = useGrade()
const step = useOwnStep('cdl')
function take(cdl: CdlNumbers, from: string): void {
  const before = step.value
  grade.edit(
    cutTo(`Decision list ${from}`, 200),
    (g) => addStep(before ? removeStep(g, before.id) : g, 'cdl', 'Slope, offset, power', { ...cdlParameters(cdl) }),
    { kind: 'cdl' },
  )
}
function remove(): void {
  const { value: now } = step
  if (now) grade.edit('Decision list removed', (g) => removeStep(g, now.id))
}
</script>

<template>
  <CdlControls
    v-if="shot"
    :cdl="step"
    :shot-name="shot.name"
    @cdl="take"
    @no-cdl="remove"
  />
</template>
