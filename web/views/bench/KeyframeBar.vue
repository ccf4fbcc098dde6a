<script setup lang="ts">
// A control that changes along the clip: its keyframes, each with its value, and the path between them. Set on a
// keyframe, it changes at that frame alone.
import { computed } from 'vue'
import {
  addKeyframe,
  keyframesOf,
  printParameter,
  removeKeyframe,
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
const animation = computed(() => keyframesOf(props.grade, props.step.id, props.parameterKey))
const isMarked = computed(() => animation.value?.keyframes.some((m) => m.frame === frame.value) ?? false)
const shown = (at: number): number => at - props.firstFrame
const mark = (): void =>
  store.edit(text.keyframes.marked(props.parameter.label, shown(frame.value)), (g) =>
    addKeyframe(g, props.step.id, props.parameterKey, frame.value),
  )
const unmark = (at: number): void =>
  store.edit(text.keyframes.unmarked(props.parameter.label, shown(at)), (g) =>
    removeKeyframe(g, props.step.id, props.parameterKey, at),
  )
const goBy = (path: 'linear' | 'smooth'): void =>
  store.edit(text.keyframes.way(props.parameter.label), (g) => setPath(g, props.step.id, props.parameterKey, path))
</script>

<template>
  <div
    class="keyframes"
    role="group"
    :aria-label="text.keyframes.title(parameter.label)"
    data-testid="keyframes"
  >
    <button
      :data-tip="text.keyframes.markTip"
      type="button"
      class="set"
      :disabled="isMarked"
      @click="mark"
    >
      <span>{{ text.keyframes.mark(shown(frame)) }}</span>
    </button>
    <template v-if="animation">
      <span
        v-for="m in animation.keyframes"
        :key="m.frame"
        class="mark"
        :class="{ here: m.frame === frame }"
        :data-mark="shown(m.frame)"
      >
        <button
          type="button"
          class="figures"
          :title="text.keyframes.go"
          @click="emit('go', m.frame)"
        >
          {{ shown(m.frame) }}: {{ printParameter(parameter, m.value) }}
        </button>
        <button
          type="button"
          :aria-label="text.keyframes.remove(shown(m.frame))"
          @click="unmark(m.frame)"
        >
          ×
        </button>
      </span>
      <button
        v-if="animation.keyframes.length > 1"
        :data-tip="text.keyframes.pathTip"
        type="button"
        @click="goBy(animation.path === 'smooth' ? 'linear' : 'smooth')"
      >
        {{ text.keyframes.path[animation.path] }}
      </button>
    </template>
    <span
      v-else
      class="quiet"
    >
      {{ text.keyframes.none(parameter.label) }}
    </span>
  </div>
</template>

<style scoped>
.keyframes {
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
