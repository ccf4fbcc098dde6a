<script setup lang="ts">
// The LUTs of the look, one open at a time.
import { computed, onScopeDispose, ref, watch } from 'vue'
import { addStep, ownLook, removeStep, setStep, type Side } from '@core/grade'
import { useGrade } from '../../../stores/grade'
import LookControls from '../LookControls.vue'
import { useBench } from '../session/bench'
import { useStepEdits } from './useStepEdits'

const { present, questions } = useBench()
const grade = useGrade()
const { change } = useStepEdits()
const steps = computed(() =>
  (present.value?.steps ?? []).filter((s) => s.kind === 'lut' && (s.lookId === undefined || s.lookId === ownLook)),
)
const openId = ref<string | null>(null)
const step = computed(() => steps.value.find((s) => s.id === openId.value) ?? steps.value[0])
watch(
  step,
  (now) => {
    questions.openLutStep.value = now?.id ?? ''
  },
  { immediate: true },
)
onScopeDispose(() => {
  questions.openLutStep.value = ''
})
function add(): void {
  grade.edit('LUT added', (g) => {
    const added = addStep(g, 'lut', 'LUT', {})
    openId.value = added.steps.at(-1)?.id ?? null
    return added
  })
}
const set = (words: string, to: { readonly strength?: number; readonly side?: Side }): void => {
  const id = step.value?.id
  if (id !== undefined) grade.edit(words, (g) => setStep(g, id, to))
}
function remove(): void {
  const id = step.value?.id
  if (id !== undefined) grade.edit('LUT removed', (g) => removeStep(g, id))
}
const setParameter = (key: string, value: string | null): void => {
  if (step.value) change(step.value, key, value)
}
</script>

<template>
  <LookControls
    v-if="step"
    :step="step"
    :steps="steps"
    :between="questions.between.value"
    @choose="openId = $event"
    @add="add"
    @remove="remove"
    @takes="setParameter('takes', $event)"
    @lut="setParameter('lutHash', $event)"
    @interpolation="setParameter('interpolation', $event)"
    @strength="set('LUT strength', { strength: $event })"
    @side="set('LUT place', { side: $event })"
  />
</template>
