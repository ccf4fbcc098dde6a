<script setup lang="ts">
// The marks of a page's controls along the clip: one control's at a time, those that are marked already told in the
// choice.
import { computed, ref } from 'vue'
import { keyframesOf, stepKindById, type NumberParameter, type Step } from '@core/grade'
import KeyframeBar from '../KeyframeBar.vue'
import { useBench } from '../session/bench'
import { text } from '../text'

const props = defineProps<{ steps: readonly Step[] }>()
const bench = useBench()
const { whole, first } = bench

interface Marked {
  readonly id: string
  readonly step: Step
  readonly key: string
  readonly parameter: NumberParameter
  readonly count: number
}
/** What light and lenses change while a camera runs. */
const along: readonly string[] = ['exposureStops', 'temperatureMired', 'tint', 'contrast', 'saturation']
const controls = computed(() =>
  props.steps
    .filter((step) => step.lookId === undefined)
    .flatMap((step) =>
      Object.entries(stepKindById(step.kind).parameters).flatMap(([key, parameter]): Marked[] =>
        parameter.type === 'number' && along.includes(key)
          ? [
              {
                id: `${step.id} ${key}`,
                step,
                key,
                parameter,
                count: (whole.value && keyframesOf(whole.value, step.id, key)?.keyframes.length) ?? 0,
              },
            ]
          : [],
      ),
    ),
)
const chosen = ref('')
const now = computed(
  () =>
    controls.value.find((c) => c.id === chosen.value) ?? controls.value.find((c) => c.count > 0) ?? controls.value[0],
)
</script>

<template>
  <div
    v-if="now && whole"
    class="along"
  >
    <select
      v-if="controls.length > 1"
      :value="now.id"
      :aria-label="text.keyframes.control"
      :data-tip="text.keyframes.controlTip"
      data-testid="marked-control"
      @change="chosen = ($event.target as HTMLSelectElement).value"
    >
      <option
        v-for="c in controls"
        :key="c.id"
        :value="c.id"
      >
        {{ c.parameter.label }}{{ c.count > 0 ? ` · ${c.count}` : '' }}
      </option>
    </select>
    <KeyframeBar
      :key="now.id"
      :grade="whole"
      :step="now.step"
      :parameter-key="now.key"
      :parameter="now.parameter"
      :first-frame="first"
      @go="bench.go"
    />
  </div>
</template>

<style scoped>
.along {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
}
select {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  min-height: var(--control);
  font-size: 12px;
}
option {
  background: var(--panel);
  color: var(--ink);
}
</style>
