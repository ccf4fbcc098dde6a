<script setup lang="ts">
// Zones: any number of pushes for some tones only; the usual three are offered.
import { computed, ref, watch } from 'vue'
import { zonePresets, type GradeDocument, type Step } from '@core/grade'
import PlainSelect from '../../components/PlainSelect.vue'
import StepControls from './StepControls.vue'
import { text } from './text'

const props = defineProps<{ grade: GradeDocument }>()
const emit = defineEmits<{
  add: [preset: (typeof zonePresets)[number]]
  remove: [id: string]
  change: [step: Step, key: string, value: number | string]
  enabled: [id: string, on: boolean]
}>()
const zones = computed(() =>
  props.grade.steps.filter((s) => s.kind === 'zone' && s.regionId === undefined && s.lookId === undefined),
)
const chosenId = ref<string | null>(null)
const chosen = computed(() => zones.value.find((z) => z.id === chosenId.value) ?? zones.value.at(-1) ?? null)
// A zone that was just added is the one to work on.
watch(
  () => zones.value.length,
  (now, before) => {
    if (now > before) chosenId.value = zones.value.at(-1)?.id ?? null
  },
)
const reaches = [
  { id: 'around', name: text.zones.around },
  { id: 'below', name: text.zones.below },
  { id: 'above', name: text.zones.above },
]
</script>

<template>
  <div class="zones">
    <div class="bar">
      <button
        v-for="z in zones"
        :key="z.id"
        type="button"
        :aria-pressed="z.id === chosen?.id"
        :class="{ off: !z.enabled }"
        :data-zone="z.name"
        @click="chosenId = z.id"
      >
        {{ z.name }}
      </button>
      <button
        v-for="p in zonePresets"
        :key="p.name"
        :data-tip="text.zones.addTip(p.name)"
        type="button"
        class="add"
        @click="emit('add', p)"
      >
        + {{ p.name.toLowerCase() }}
      </button>
      <template v-if="chosen">
        <PlainSelect
          :label="text.zones.reach"
          :tip="text.zones.reachTip"
          :options="reaches"
          :model-value="String(chosen.params['reach'])"
          @update:model-value="emit('change', chosen, 'reach', $event)"
        />
        <button
          type="button"
          :aria-pressed="chosen.enabled"
          @click="emit('enabled', chosen.id, !chosen.enabled)"
        >
          {{ chosen.enabled ? text.zones.on : text.zones.off }}
        </button>
        <button
          type="button"
          @click="emit('remove', chosen.id)"
        >
          {{ text.zones.remove }}
        </button>
      </template>
    </div>
    <p
      v-if="!chosen"
      class="quiet"
    >
      {{ text.zones.none }}
    </p>
    <StepControls
      v-else
      :grade="grade"
      station="shape"
      :only="chosen.id"
      columns
      :facts="null"
      @change="(step, key, value) => emit('change', step, key, value)"
    />
  </div>
</template>

<style scoped>
.zones {
  display: grid;
  gap: var(--gap-small);
  align-content: start;
  min-width: 0;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-small);
  align-items: center;
}
button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: var(--control);
  font-size: 12px;
}
button:hover {
  border-color: var(--accent);
}
[aria-pressed='true'] {
  border-color: var(--accent);
  color: var(--accent);
}
.bar :deep(.el-select) {
  width: 150px;
}
.add {
  color: var(--ink-quiet);
}
.off {
  text-decoration: line-through;
}
p {
  margin: 0;
}
</style>
