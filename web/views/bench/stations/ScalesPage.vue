<script setup lang="ts">
// The steps of a page as scales, drawn from their declarations; kinds that do not always stand are added and removed.
import { computed } from 'vue'
import { stationOf, type GradeDocument, type StationId, type Step, type StepKind } from '@core/grade'
import type { PictureFacts } from '../../../workers/messages'
import StepControls from '../StepControls.vue'
import { text } from '../text'
import ControlKeyframes from './ControlKeyframes.vue'
import type { StepEdits } from './useStepEdits'

const props = defineProps<{
  grade: GradeDocument
  station: StationId
  kinds: readonly StepKind[]
  facts: PictureFacts | null
  edits: StepEdits
}>()
const here = computed(() =>
  props.grade.steps.filter(
    (s) => stationOf(s) === props.station && s.regionId === undefined && props.kinds.some((k) => k.id === s.kind),
  ),
)
const kindIds = computed(() => props.kinds.map((k) => k.id))
const addable = computed(() =>
  props.kinds.filter((k) => k.many || (k.stands === 'added' && !here.value.some((s) => s.kind === k.id))),
)
const isAdded = (step: Step): boolean => props.kinds.some((k) => k.id === step.kind && k.stands === 'added')
const removable = computed(() => here.value.filter(isAdded))
</script>

<template>
  <div>
    <StepControls
      :grade="grade"
      :station="station"
      :kinds="kindIds"
      :facts="facts"
      @change="edits.change"
    />
    <ControlKeyframes :steps="here" />
    <p
      v-if="addable.length || removable.length"
      class="added"
    >
      <button
        v-for="k in addable"
        :key="k.id"
        :data-tip="k.tip"
        type="button"
        class="button"
        :data-add="k.id"
        @click="edits.add(k.id)"
      >
        {{ text.addStep(k.name) }}
      </button>
      <button
        v-for="s in removable"
        :key="s.id"
        type="button"
        class="button"
        :data-remove="s.id"
        @click="edits.remove(s)"
      >
        {{ text.removeStep(s.name) }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.added {
  display: flex;
  gap: var(--gap);
  margin: var(--gap) 0;
}
</style>
