<script setup lang="ts">
// The Look station: one LUT, imported from a .cube, with its strength and the domain it is given.
import { computed, onMounted, ref } from 'vue'
import { ElButton } from 'element-plus'
import { stepKindById, type NumberParameter, type Side, type Step } from '@core/index'
import { sentenceOf } from '../../api/client'
import Notice from '../../components/Notice.vue'
import PlainSelect from '../../components/PlainSelect.vue'
import ScaleControl from '../../components/ScaleControl.vue'
import { useLibrary } from '../../stores/library'
import { text } from './text'

const props = defineProps<{ step: Step }>()
const emit = defineEmits<{ lut: [hash: string | null]; strength: [value: number]; side: [side: Side]; interpolation: [id: string]; hold: []; release: [] }>()
const library = useLibrary()
const fault = ref('')
const picker = ref<HTMLInputElement | null>(null)
onMounted(() => library.loadLuts().catch((error: unknown) => { fault.value = sentenceOf(error) }))

const none = 'none'
const chosen = computed(() => (typeof props.step.params['lutHash'] === 'string' ? props.step.params['lutHash'] : none))
const options = computed(() => [{ id: none, name: text.look.none }, ...library.luts.map((l) => ({ id: l.hash, name: l.name, tip: `${l.title || l.name} · ${l.dimensions}D, ${l.size} per axis` }))])
const sides = [{ id: 'display', name: text.look.display }, { id: 'scene', name: text.look.scene }]
const interpolation = stepKindById('lut').parameters['interpolation']
const betweens = interpolation?.type === 'choice' ? interpolation.options : []
const strength: NumberParameter = { type: 'number', label: text.look.strength, tip: 'How much of the LUT is mixed in, in the domain it returns.', unit: '%', min: 0, max: 1, default: 1, step: 0.01, decimals: 0, shownFactor: 100 }

async function picked(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  fault.value = ''
  try {
    emit('lut', (await library.importLut(file)).hash)
  } catch (error) {
    fault.value = `${file.name}: ${sentenceOf(error)}`
  }
}
</script>

<template>
  <div class="look">
    <div class="row">
      <PlainSelect :label="text.look.lut" :tip="text.look.lutTip" :options="options" :model-value="chosen" @update:model-value="emit('lut', $event === none ? null : $event)" />
      <input ref="picker" class="visually-hidden" type="file" accept=".cube" tabindex="-1" aria-label="LUT file" @change="picked" />
      <ElButton size="small" @click="picker?.click()">{{ text.look.import }}</ElButton>
    </div>
    <ScaleControl :parameter="strength" :model-value="step.strength" :disabled="chosen === none" data-control="lut-strength" @update:model-value="emit('strength', $event)" @hold="emit('hold')" @release="emit('release')" />
    <div class="row">
      <PlainSelect :label="text.look.side" :tip="text.look.sideTip" :options="sides" :model-value="step.side" @update:model-value="emit('side', $event === 'scene' ? 'scene' : 'display')" />
      <PlainSelect :label="text.look.between" tip="Tetrahedral keeps neutrals neutral; trilinear is what some older hardware does." :options="betweens" :model-value="String(step.params['interpolation'])" @update:model-value="emit('interpolation', $event)" />
    </div>
    <Notice :text="fault" @close="fault = ''" />
  </div>
</template>

<style scoped>
.look { display: grid; gap: var(--gap-small); align-content: start; }
.row { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: var(--gap-broad); align-items: center; justify-items: start; }
.row > .choice { width: 100%; }
.row > .el-button { width: auto; }
</style>
