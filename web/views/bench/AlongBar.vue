<script setup lang="ts">
// A control that changes along the clip: its marks, each with its value, and the way between them. Marked, it is set at
// this frame alone.
import { computed } from 'vue'
import {
  addMark,
  marksOf,
  printParameter,
  removeMark,
  setPath,
  type GradeDocument,
  type NumberParameter,
  type Step,
} from '@core/grade'
import { useGrade } from '../../stores/grade'
import { useView } from '../../stores/view'
import { text } from './text'

const props = defineProps<{
  grade: GradeDocument
  step: Step
  parameterKey: string
  parameter: NumberParameter
  firstFrame: number
}>()
const emit = defineEmits<{ go: [frame: number] }>()
const store = useGrade()
const view = useView()
const frame = computed(() => view.frame)
const along = computed(() => marksOf(props.grade, props.step.id, props.parameterKey))
const isMarked = computed(() => along.value?.marks.some((m) => m.frame === frame.value) ?? false)
const shown = (at: number): number => at - props.firstFrame
const mark = (): void =>
  store.edit(text.along.marked(props.parameter.label, shown(frame.value)), (g) =>
    addMark(g, props.step.id, props.parameterKey, frame.value),
  )
const unmark = (at: number): void =>
  store.edit(text.along.unmarked(props.parameter.label, shown(at)), (g) =>
    removeMark(g, props.step.id, props.parameterKey, at),
  )
const goAlong = (path: 'linear' | 'smooth'): void =>
  store.edit(text.along.way(props.parameter.label), (g) => setPath(g, props.step.id, props.parameterKey, path))
</script>

<template>
  <div
    class="along"
    role="group"
    :aria-label="text.along.title(parameter.label)"
    data-testid="along"
  >
    <button
      :data-tip="text.along.markTip"
      type="button"
      class="set"
      :disabled="isMarked"
      @click="mark"
    >
      <span>{{ text.along.mark(shown(frame)) }}</span>
    </button>
    <template v-if="along">
      <span
        v-for="m in along.marks"
        :key="m.frame"
        class="mark"
        :class="{ here: m.frame === frame }"
        :data-mark="shown(m.frame)"
      >
        <button
          type="button"
          class="figures"
          :title="text.along.go"
          @click="emit('go', m.frame)"
        >
          {{ shown(m.frame) }}: {{ printParameter(parameter, m.value) }}
        </button>
        <button
          type="button"
          :aria-label="text.along.remove(shown(m.frame))"
          @click="unmark(m.frame)"
        >
          ×
        </button>
      </span>
      <button
        v-if="along.marks.length > 1"
        :data-tip="text.along.pathTip"
        type="button"
        @click="goAlong(along.path === 'smooth' ? 'linear' : 'smooth')"
      >
        {{ text.along.path[along.path] }}
      </button>
    </template>
    <span
      v-else
      class="quiet"
    >
      {{ text.along.none(parameter.label) }}
    </span>
  </div>
</template>

<style scoped>
.along {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  min-height: var(--control);
  font-size: 12px;
  overflow: hidden;
  white-space: nowrap;
}
button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 6px;
  min-height: var(--control);
  min-width: 24px;
  font-size: 12px;
}
button:hover:enabled {
  border-color: var(--accent);
}
button:disabled {
  color: var(--ink-quiet);
}
/* Its number changes while the clip plays: it is laid out by itself. */
.set {
  position: relative;
  flex: none;
  width: 108px;
}
.set span {
  position: absolute;
  inset: 0;
  contain: strict;
  line-height: calc(var(--control) - 2px);
}
.mark {
  display: flex;
}
.mark button:first-child {
  border-right: 0;
  border-radius: var(--radius) 0 0 var(--radius);
}
.mark button:last-child {
  border-radius: 0 var(--radius) var(--radius) 0;
}
.here button {
  border-color: var(--accent);
}
</style>
