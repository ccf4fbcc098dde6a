<script setup lang="ts">
// The tones of the whole picture: curves over all of them, and zones that push some of them only, over one field with
// the picture's own tones behind.
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { addStep, removeStep, setStep, type zonePresets } from '@core/grade'
import { useGrade } from '../../../stores/grade'
import { usePicking } from '../../../stores/picking'
import ToneChoices from '../curves/ToneChoices.vue'
import type { ToneChannel } from '../curves/tone-channels'
import ToneCurves from '../curves/ToneCurves.vue'
import ZoneControls from '../curves/ZoneControls.vue'
import { useBench } from '../session/bench'
import { useOwnStep } from './useOwnStep'
import { useStepEdits } from './useStepEdits'

const { present } = useBench()
const grade = useGrade()
const picking = usePicking()
const { change } = useStepEdits()
const curve = useOwnStep('tone-curve')
const zones = computed(() =>
  (present.value?.steps ?? []).filter((s) => s.kind === 'zone' && s.regionId === undefined && s.lookId === undefined),
)
const channel = ref<ToneChannel>('points')
const zoneId = ref<string | null>(null)
const zone = computed(() => zones.value.find((z) => z.id === zoneId.value) ?? null)
// A zone that was just added is the one to work on.
watch(
  () => zones.value.length,
  (now, before) => {
    if (now > before) zoneId.value = zones.value.at(-1)?.id ?? null
  },
)
const shownChannel = computed({
  get: () => (zone.value ? null : channel.value),
  set: (value: ToneChannel | null) => {
    if (!value) return
    channel.value = value
    zoneId.value = null
  },
})
const add = ({ name, params }: (typeof zonePresets)[number]): void =>
  grade.edit(`${name} added`, (g) => addStep(g, 'zone', name, params))
function remove(): void {
  const { value: removed } = zone
  if (removed) grade.edit('Zone removed', (g) => removeStep(g, removed.id))
}
function enable(enabled: boolean): void {
  const { value: turned } = zone
  if (turned) grade.edit(enabled ? 'Zone on' : 'Zone off', (g) => setStep(g, turned.id, { enabled }))
}
watch(
  () => (zone.value ?? curve.value)?.side,
  (side) => {
    picking.wanted = side ? { station: 'shape', side } : null
  },
  { immediate: true },
)
onBeforeUnmount(() => {
  picking.wanted = null
})
</script>

<template>
  <ZoneControls
    v-if="zone"
    :zone="zone"
    :zones="zones"
    @change="(key, value) => zone && change(zone, key, value)"
    @choose="zoneId = $event"
    @remove="remove"
    @enabled="enable"
  >
    <template #choices>
      <ToneChoices
        v-model:channel="shownChannel"
        v-model:zone="zoneId"
        :curve="curve"
        :zones="zones"
        @add="add"
      />
    </template>
  </ZoneControls>
  <ToneCurves
    v-else-if="curve"
    :step="curve"
    :channel="channel"
    @change="(key, value) => curve && change(curve, key, value)"
  >
    <template #choices>
      <ToneChoices
        v-model:channel="shownChannel"
        v-model:zone="zoneId"
        :curve="curve"
        :zones="zones"
        @add="add"
      />
    </template>
  </ToneCurves>
</template>
