<script setup lang="ts">
// The Look station: one LUT with its strength and the domain it is given.
import { ref } from 'vue'
import { cdlOf, parseCdl, printCdl, stepKindById, type CdlFileKind, type CdlNumbers, type GradeDocument, type NumberParameter, type RecipeStep, type Side, type Step } from '@core/index'
import HelpTip from '../../components/HelpTip.vue'
import LutPicker from '../../components/LutPicker.vue'
import PlainSelect from '../../components/PlainSelect.vue'
import ScaleControl from '../../components/ScaleControl.vue'
import RecipeBar from './RecipeBar.vue'
import { text } from './text'

const props = defineProps<{ step: Step; cdl: Step | null; shotName: string; grade: GradeDocument }>()
const emit = defineEmits<{ lut: [hash: string | null]; strength: [value: number]; side: [side: Side]; interpolation: [id: string]; cdl: [cdl: CdlNumbers, from: string]; noCdl: []; recipe: [steps: readonly RecipeStep[], name: string]; hold: []; release: [] }>()

const sides = [{ id: 'display', name: text.look.display }, { id: 'scene', name: text.look.scene }]
const interpolation = stepKindById('lut').parameters['interpolation']
const betweens = interpolation?.type === 'choice' ? interpolation.options : []
const strength: NumberParameter = { type: 'number', label: text.look.strength, tip: 'How much of the LUT is mixed in, in the domain it returns.', unit: '%', min: 0, max: 1, default: 1, step: 0.01, decimals: 0, shownFactor: 100 }
const fault = ref(''), picker = ref<HTMLInputElement | null>(null)
async function read(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement, file = input.files?.[0]
  input.value = ''
  if (!file) return
  try {
    if (file.size > 4 * 1024 * 1024) throw new Error('The file is larger than 4 MB: that is no colour decision list.')
    const found = parseCdl(await file.text()), own = found.find((c) => c.id === props.shotName) ?? found[0]!
    fault.value = found.length > 1 ? text.look.cdlMany(found.length, own.id) : ''
    emit('cdl', own.cdl, `${file.name}: ${own.id}`)
  } catch (error) {
    fault.value = `▲ ${file.name}: ${error instanceof Error ? error.message : String(error)}`
  }
}
function write(kind: CdlFileKind): void {
  if (!props.cdl) return
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([printCdl([{ id: props.shotName, cdl: cdlOf(props.cdl.params) }], kind)], { type: 'application/xml' }))
  link.download = `${props.shotName.replace(/[^A-Za-z0-9 ._-]/g, '_')}.${kind}`
  link.click()
  URL.revokeObjectURL(link.href)
}
const cdlWords = (step: Step): string => { const { slope, offset, power, saturation } = cdlOf(step.params), row = (v: readonly number[]): string => v.map((n) => n.toFixed(3)).join(' '); return text.look.cdlNumbers(row(slope), row(offset), row(power), saturation.toFixed(2)) }
const hashOf = (step: Step): string | null => (typeof step.params['lutHash'] === 'string' ? step.params['lutHash'] : null)
</script>

<template>
  <div class="look">
    <LutPicker :hash="hashOf(step)" :label="text.look.lut" :tip="text.look.lutTip" :none="text.look.none" :import-label="text.look.import" @choose="emit('lut', $event)" />
    <ScaleControl :parameter="strength" :model-value="step.strength" :disabled="hashOf(step) === null" data-control="lut-strength" @update:model-value="emit('strength', $event)" @hold="emit('hold')" @release="emit('release')" />
    <RecipeBar :grade="grade" @apply="(steps, name) => emit('recipe', steps, name)" />
    <div class="cdl">
      <input ref="picker" class="visually-hidden" type="file" accept=".cc,.ccc,.cdl,application/xml" tabindex="-1" :aria-label="text.look.cdlFile" @change="read">
      <HelpTip :text="text.look.cdlTip"><button type="button" @click="picker?.click()">{{ text.look.cdlImport }}</button></HelpTip>
      <template v-if="cdl">
        <button v-for="kind in ['cc', 'ccc', 'cdl'] as const" :key="kind" type="button" @click="write(kind)">{{ text.look.cdlExport(kind) }}</button>
        <button type="button" @click="emit('noCdl')">{{ text.look.cdlRemove }}</button>
        <span class="figures quiet" data-testid="cdl">{{ cdlWords(cdl) }}</span>
      </template>
      <span v-if="fault" role="alert" class="fault">{{ fault }}</span>
    </div>
    <div class="row">
      <PlainSelect :label="text.look.side" :tip="text.look.sideTip" :options="sides" :model-value="step.side" @update:model-value="emit('side', $event === 'scene' ? 'scene' : 'display')" />
      <PlainSelect :label="text.look.between" tip="Tetrahedral keeps neutrals neutral; trilinear is what some older hardware does." :options="betweens" :model-value="String(step.params['interpolation'])" @update:model-value="emit('interpolation', $event)" />
    </div>
  </div>
</template>

<style scoped>
.look { display: grid; gap: var(--gap-small); align-content: start; }
.cdl { display: flex; gap: var(--gap-small); align-items: center; flex-wrap: wrap; font-size: 11px; }
.cdl button { background: none; border: var(--line) solid var(--hairline); border-radius: var(--radius); padding: 0 8px; min-height: var(--control); font-size: 12px; }
.cdl button:hover { border-color: var(--accent); }
.fault { color: var(--warning); }
.row { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: var(--gap-broad); align-items: center; }
</style>
