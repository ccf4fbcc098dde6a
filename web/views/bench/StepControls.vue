<script setup lang="ts">
// The controls of a station's steps, drawn from their declarations.
import { computed } from 'vue'
import {
  stationOf,
  stepKindById,
  type GradeDocument,
  type NumberParameter,
  type StationId,
  type Step,
} from '@core/grade'
import ScaleControl from '../../components/ScaleControl.vue'
import type { PictureFacts } from '../../workers/messages'
import { useView } from '../../stores/view'
import { effectOf, kelvinWords } from './figures'

const props = defineProps<{
  grade: GradeDocument
  station: StationId
  regionId?: string
  facts: PictureFacts | null
  /** Kinds of step that are shown; all without it. */ kinds?: readonly string[]
  /** The one step that is shown. */ only?: string
  /** Parameters that are shown; all without it. */ keys?: readonly string[]
  /** Side by side; one by itself. */ columns?: 2 | 3
}>()
const emit = defineEmits<{ change: [step: Step, key: string, value: number] }>()

const view = useView()
const without = (id: string, on: boolean): void => {
  if (on || view.withoutStep === id) view.withoutStep = on ? id : null
}

interface Control {
  readonly step: Step
  readonly key: string
  readonly parameter: NumberParameter
  readonly value: number
}
const controls = computed(() =>
  props.grade.steps
    .filter(
      (step) =>
        stationOf(step) === props.station &&
        step.regionId === props.regionId &&
        (!props.kinds || props.kinds.includes(step.kind)) &&
        (!props.only || step.id === props.only),
    )
    .flatMap((step) =>
      Object.entries(stepKindById(step.kind).parameters).flatMap(([key, parameter]): Control[] => {
        const value = step.params[key]
        if (props.keys && !props.keys.includes(key)) return []
        return parameter.type === 'number' && typeof value === 'number' ? [{ step, key, parameter, value }] : []
      }),
    ),
)
// A region changes a part; what is measured is the whole frame, so it is not offered as that control's effect.
const effect = (key: string): string | undefined =>
  props.regionId === undefined ? effectOf(key, props.facts) : undefined
const also = (c: Control): string => (c.key === 'temperatureMired' ? kelvinWords(c.value) : '')
</script>

<template>
  <div
    class="controls"
    :class="{ columns }"
    :style="{ '--columns': columns ?? 1, ...(controls.some((c) => also(c) !== '') && { '--unit-width': '92px' }) }"
  >
    <ScaleControl
      v-for="c in controls"
      :key="`${c.step.id}-${c.key}`"
      :parameter="c.parameter"
      :model-value="c.value"
      :effect="effect(c.key)"
      :also="also(c)"
      :data-control="c.key"
      :data-step="c.step.id"
      @update:model-value="emit('change', c.step, c.key, $event)"
      @without="without(c.step.id, $event)"
    />
  </div>
</template>

<style scoped>
.controls {
  display: grid;
  gap: var(--gap-hair);
  align-content: start;
}
.columns {
  grid-template-columns: repeat(var(--columns), minmax(0, 1fr));
  column-gap: var(--gap-broad);
}
.columns :deep(.control) {
  grid-template-columns: 68px minmax(40px, 1fr) 52px 36px;
}
.columns :deep(.effect) {
  display: none;
}
</style>
