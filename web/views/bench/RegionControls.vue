<script setup lang="ts">
// The Regions station: choose, add, switch, feather and remove regions, and the steps that each carries.
import { computed } from 'vue'
import { ElButton } from 'element-plus'
import { ElSwitch } from 'element-plus'
import { regionBounds, type GradeDocument, type NumberParameter, type Region, type Step } from '@core/index'
import HelpTip from '../../components/HelpTip.vue'
import PlainSelect from '../../components/PlainSelect.vue'
import ScaleControl from '../../components/ScaleControl.vue'
import StepControls from './StepControls.vue'
import { text } from './text'

const props = defineProps<{ grade: GradeDocument; region: Region | null }>()
const emit = defineEmits<{
  choose: [id: string]; add: []; remove: [id: string]; region: [id: string, change: Partial<Pick<Region, 'enabled' | 'invert' | 'feather'>>]; shape: [change: Partial<Region['shape']>]
  change: [step: Step, key: string, value: number]; hold: []; release: []
}>()
const options = computed(() => props.grade.regions.map(({ id, name }) => ({ id, name })))
const feather: NumberParameter = { type: 'number', label: text.regions.feather, tip: text.regions.featherTip, unit: '%', ...regionBounds.feather, default: 0.4, step: 0.01, decimals: 0, shownFactor: 100 }
const rotation: NumberParameter = { type: 'number', label: text.regions.rotation, tip: text.regions.rotationTip, unit: '°', ...regionBounds.rotationDegrees, scale: [-180, 180], default: 0, step: 1, decimals: 1, signed: true }
</script>

<template>
  <div class="regions">
    <div class="bar">
      <ElButton size="small" @click="emit('add')">{{ text.regions.add }}</ElButton>
      <template v-if="region">
        <PlainSelect :label="text.regions.region" tip="The region whose controls are shown." :options="options" :model-value="region.id" @update:model-value="emit('choose', $event)" />
        <label><ElSwitch :model-value="region.enabled" aria-label="Region on" @update:model-value="emit('region', region.id, { enabled: Boolean($event) })" /> {{ text.regions.enabled }}</label>
        <HelpTip :text="text.regions.invertTip"><label><ElSwitch :model-value="region.invert" aria-label="Act outside the ellipse" @update:model-value="emit('region', region.id, { invert: Boolean($event) })" /> {{ text.regions.invert }}</label></HelpTip>
        <ElButton size="small" @click="emit('remove', region.id)">{{ text.regions.remove }}</ElButton>
      </template>
    </div>
    <p v-if="!region" class="quiet">{{ text.regions.none }}</p>
    <template v-else>
      <StepControls :grade="grade" station="regions" :region-id="region.id" :facts="null" @change="(step, key, value) => emit('change', step, key, value)" @hold="emit('hold')" @release="emit('release')" />
      <div class="edges">
        <ScaleControl :parameter="feather" :model-value="region.feather" data-control="feather" @update:model-value="emit('region', region.id, { feather: $event })" @hold="emit('hold')" @release="emit('release')" />
        <ScaleControl :parameter="rotation" :model-value="region.shape.rotationDegrees" data-control="rotation" @update:model-value="emit('shape', { rotationDegrees: $event })" @hold="emit('hold')" @release="emit('release')" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.edges { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); column-gap: var(--gap-broad); }
.edges :deep(.control) { grid-template-columns: 76px minmax(60px, 1fr) 58px 48px; }
.edges :deep(.effect) { display: none; }
.regions { display: grid; gap: var(--gap-hair); align-content: start; }
.bar { display: flex; gap: var(--gap-broad); align-items: center; }
label, .bar :deep(.choice) { min-width: 0; }
.bar :deep(.choice) { width: 240px; }
label { display: flex; align-items: center; gap: var(--gap-small); }
p { margin: 0; }
</style>
