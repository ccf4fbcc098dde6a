<script setup lang="ts">
// The LUTs of the look, one open at a time.
import { computed, onScopeDispose, ref, watch } from 'vue'
import { addStep, ownLook, removeStep, setParameter, setStep, type Side } from '@core/grade'
import { useGrade } from '../../../stores/grade'
import { useLuts } from '../../../stores/luts'
import LookPictures, { type LookEntry } from '../look/LookPictures.vue'
import LutControls from '../look/LutControls.vue'
import { useSheetPicture } from '../look/useSheetPicture'
import { useBench } from '../session/bench'
import { text } from '../text'
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
const setOnStep = (key: string, value: string | null): void => {
  if (step.value) change(step.value, key, value)
}
/** The picture without the open LUT, and the same through each that could stand in its place. */
const picture = useSheetPicture((g) => (step.value ? setParameter(g, step.value.id, 'lutHash', null) : g))
const luts = useLuts()
const none = 'none'
const entries = computed((): readonly LookEntry[] => {
  const { value: open } = step
  if (!open) return []
  const { kind, name, strength, side, params } = open
  return [
    { id: none, name: text.look.none, tip: text.look.lutTip, item: { kind: 'plain' } },
    ...luts.all.map(({ hash, name: called, title }): LookEntry => ({
      id: hash,
      name: called,
      tip: title || called,
      item: {
        kind: 'recipe',
        content: { steps: [{ kind, name, strength, side, params: { ...params, lutHash: hash } }], regions: [] },
      },
    })),
  ]
})
const chosen = computed(() => String(step.value?.params['lutHash'] ?? none))
</script>

<template>
  <div
    v-if="step"
    class="page"
  >
    <LookPictures
      :label="text.look.pictures"
      :entries="entries"
      :picture="picture"
      :chosen="chosen"
      @choose="setOnStep('lutHash', $event === none ? null : $event)"
    />
    <LutControls
      :step="step"
      :steps="steps"
      :between="questions.between.value"
      @choose="openId = $event"
      @add="add"
      @remove="remove"
      @takes="setOnStep('takes', $event)"
      @lut="setOnStep('lutHash', $event)"
      @interpolation="setOnStep('interpolation', $event)"
      @strength="set('LUT strength', { strength: $event })"
      @side="set('LUT place', { side: $event })"
    />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 350px;
  gap: var(--gap-wide);
  min-height: 0;
}
</style>
