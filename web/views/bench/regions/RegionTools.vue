<script setup lang="ts">
// The tools of Level, Shape and Hue on a region, and the marks of the control that was touched last.
import { computed, ref, watch } from 'vue'
import {
  addStep,
  stepKindById,
  stepKinds,
  zonePresets,
  type CurvePoint,
  type GradeDocument,
  type Step,
  type StepKind,
} from '@core/grade'
import { useGrade } from '../../../stores/grade'
import type { RegionPage } from '../../../stores/regions'
import KeyframeBar from '../KeyframeBar.vue'
import ColourCurves from '../curves/ColourCurves.vue'
import ToneCurves from '../curves/ToneCurves.vue'
import { editedKinds } from '../stations/edited-kinds'
import StepControls from '../StepControls.vue'
import { text } from '../text'

const props = defineProps<{
  grade: GradeDocument
  whole: GradeDocument
  regionId: string
  page: RegionPage
  firstFrame: number
}>()
const emit = defineEmits<{
  change: [step: Step, key: string, value: number | string | null | readonly CurvePoint[]]
  go: [frame: number]
}>()
const store = useGrade()
const zoneKind = 'zone'
/** The pages with scales show the kinds of the station of their name, zones among them. */
const isScale = (k: StepKind): boolean => k.inRegions !== 'never' && (k.id === zoneKind || !editedKinds.has(k.id))
const kinds = computed(() => stepKinds.filter((k) => k.station === props.page && isScale(k)).map((k) => k.id))
const own = computed(() => props.grade.steps.filter((s) => s.regionId === props.regionId))
const curve = computed(() => own.value.find((s) => s.kind === 'tone-curve'))
const colours = computed(() => own.value.find((s) => s.kind === 'colour-curves'))
/** The control that keyframes are shown of. */
const touched = ref<{ readonly stepId: string; readonly key: string } | null>(null)
watch(
  () => [props.page, props.regionId],
  () => {
    touched.value = null
  },
)
const animation = computed(() => {
  const step =
    own.value.find((s) => s.id === touched.value?.stepId) ?? own.value.find((s) => kinds.value.includes(s.kind))
  const key = touched.value?.key ?? (step && Object.keys(stepKindById(step.kind).parameters)[0])
  const parameter = step && key !== undefined ? stepKindById(step.kind).parameters[key] : undefined
  return step && key !== undefined && parameter?.type === 'number' ? { step, key, parameter: parameter } : null
})
function change(step: Step, key: string, value: number): void {
  touched.value = { stepId: step.id, key }
  emit('change', step, key, value)
}
function addZone(preset: (typeof zonePresets)[number]): void {
  store.edit(`${preset.name} added`, (g) => {
    const added = addStep(g, zoneKind, preset.name, preset.params)
    const fresh = added.steps.at(-1)
    return fresh
      ? { ...added, steps: added.steps.map((s) => (s === fresh ? { ...s, regionId: props.regionId } : s)) }
      : added
  })
}
const focus = (e: FocusEvent): void => {
  const at = (e.target as HTMLElement).closest<HTMLElement>('[data-step]')
  if (at?.dataset['step'] && at.dataset['control'])
    touched.value = { stepId: at.dataset['step'], key: at.dataset['control'] }
}
</script>

<template>
  <ToneCurves
    v-if="page === 'curve' && curve"
    :step="curve"
    @change="(key, value) => emit('change', curve!, key, value)"
  />
  <ColourCurves
    v-else-if="page === 'colours' && colours"
    :step="colours"
    @change="(key, value) => emit('change', colours!, key, value)"
  />
  <div
    v-else
    class="tools"
    @focusin="focus"
  >
    <div class="scroll">
      <StepControls
        :grade="grade"
        station="regions"
        :region-id="regionId"
        :facts="null"
        :kinds="kinds"
        :columns="2"
        @change="change"
      />
      <p
        v-if="page === 'shape'"
        class="zones"
      >
        <span class="quiet">{{ text.regions.zones }}</span>
        {{ ' ' }}
        <button
          v-for="z in zonePresets"
          :key="z.name"
          type="button"
          @click="addZone(z)"
        >
          {{ z.name }}
        </button>
        <template
          v-for="s in own.filter((o) => o.kind === zoneKind)"
          :key="s.id"
        >
          <button
            type="button"
            :title="text.regions.removeZone"
            @click="store.edit('Zone removed', (g) => ({ ...g, steps: g.steps.filter((o) => o.id !== s.id) }))"
          >
            {{ s.name }} ×
          </button>
        </template>
      </p>
    </div>
    <KeyframeBar
      v-if="animation"
      :grade="whole"
      :step="animation.step"
      :parameter-key="animation.key"
      :parameter="animation.parameter"
      :first-frame="firstFrame"
      @go="emit('go', $event)"
    />
  </div>
</template>

<style scoped>
.tools {
  display: grid;
  grid-template-rows: 1fr auto;
  min-height: 0;
}
.scroll {
  overflow: auto;
  min-height: 0;
}
.scroll :deep(.controls.columns) {
  grid-template-columns: repeat(3, minmax(0, 1fr));
  column-gap: var(--gap);
}
.scroll :deep(.controls.columns .control) {
  grid-template-columns: 96px minmax(30px, 1fr) 50px 52px;
  gap: var(--gap-small);
}
.scroll :deep(.also) {
  display: none;
}
.zones {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  margin: 0;
  font-size: 12px;
}
button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: var(--control);
  font-size: 12px;
}
</style>
