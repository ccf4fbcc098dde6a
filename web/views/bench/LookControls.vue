<script setup lang="ts">
// The Look station: one LUT with its strength and the domain it is given.
import { stepKindById, type NumberParameter, type Side, type Step } from '@core/index'
import LutPicker from '../../components/LutPicker.vue'
import PlainSelect from '../../components/PlainSelect.vue'
import ScaleControl from '../../components/ScaleControl.vue'
import { text } from './text'

defineProps<{ step: Step }>()
const emit = defineEmits<{ lut: [hash: string | null]; strength: [value: number]; side: [side: Side]; interpolation: [id: string]; hold: []; release: [] }>()

const sides = [{ id: 'display', name: text.look.display }, { id: 'scene', name: text.look.scene }]
const interpolation = stepKindById('lut').parameters['interpolation']
const betweens = interpolation?.type === 'choice' ? interpolation.options : []
const strength: NumberParameter = { type: 'number', label: text.look.strength, tip: 'How much of the LUT is mixed in, in the domain it returns.', unit: '%', min: 0, max: 1, default: 1, step: 0.01, decimals: 0, shownFactor: 100 }
const hashOf = (step: Step): string | null => (typeof step.params['lutHash'] === 'string' ? step.params['lutHash'] : null)
</script>

<template>
  <div class="look">
    <LutPicker :hash="hashOf(step)" :label="text.look.lut" :tip="text.look.lutTip" :none="text.look.none" :import-label="text.look.import" @choose="emit('lut', $event)" />
    <ScaleControl :parameter="strength" :model-value="step.strength" :disabled="hashOf(step) === null" data-control="lut-strength" @update:model-value="emit('strength', $event)" @hold="emit('hold')" @release="emit('release')" />
    <div class="row">
      <PlainSelect :label="text.look.side" :tip="text.look.sideTip" :options="sides" :model-value="step.side" @update:model-value="emit('side', $event === 'scene' ? 'scene' : 'display')" />
      <PlainSelect :label="text.look.between" tip="Tetrahedral keeps neutrals neutral; trilinear is what some older hardware does." :options="betweens" :model-value="String(step.params['interpolation'])" @update:model-value="emit('interpolation', $event)" />
    </div>
  </div>
</template>

<style scoped>
.look { display: grid; gap: var(--gap-small); align-content: start; }
.row { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: var(--gap-broad); align-items: center; }
</style>
