<script setup lang="ts">
// Pushes of some tones only, any number of them.
import { addStep, removeStep, setStep } from '@core/grade'
import { useGrade } from '../../../stores/grade'
import { useBench } from '../session/bench'
import ZoneControls from '../ZoneControls.vue'
import { useStepEdits } from './useStepEdits'

const { present } = useBench()
const grade = useGrade()
const { change } = useStepEdits()
</script>

<template>
  <ZoneControls
    v-if="present"
    :grade="present"
    @add="(p) => grade.edit(`${p.name} added`, (g) => addStep(g, 'zone', p.name, p.params))"
    @remove="(id) => grade.edit('Zone removed', (g) => removeStep(g, id))"
    @enabled="(id, enabled) => grade.edit(enabled ? 'Zone on' : 'Zone off', (g) => setStep(g, id, { enabled }))"
    @change="change"
  />
</template>
