<script setup lang="ts">
// Measure: patches of a frame, a pasted table, or a conversion LUT, and the curve that explains them.
import { computed, ref, shallowRef } from 'vue'
import { ElInput } from 'element-plus'
import { displays, encodings, type EncodingDefinition } from '@core/colour'
import { unpackLut } from '@core/luts'
import { fitLinLog, lutAsTable, matchPatches, parseTable, type Patch } from '@core/measure'
import type { ShotDetail } from '@contracts/responses'
import { sentenceOf } from '../../api/client'
import LutPicker from '../../components/LutPicker.vue'
import Notice from '../../components/Notice.vue'
import PlainSelect from '../../components/PlainSelect.vue'
import { useEncodings } from '../../stores/encodings'
import FitResultView from './FitResultView.vue'
import PatchPicker from './PatchPicker.vue'
import ShotChooser from '../../components/ShotChooser.vue'
import { text } from './text'

defineProps<{ shot: ShotDetail | null; frame: number }>()
const emit = defineEmits<{ choose: [shotId: string]; frame: [frame: number] }>()
const encodingStore = useEncodings()
const sources = [
  { id: 'frame', name: text.measure.frame },
  { id: 'table', name: text.measure.table },
  { id: 'lut', name: text.measure.lut },
]
const source = ref<'frame' | 'table' | 'lut'>('frame')
const picked = shallowRef<readonly Patch[]>([])
const pasted = ref('')
const lutHash = ref<string | null>(null)
const lutPatches = shallowRef<readonly Patch[]>([])
const returns = ref('bt709-2.4')
const outputs = [
  ...displays.filter((d) => d.systemGamma === undefined).map(({ id, name }) => ({ id, name })),
  ...encodings.map(({ id, name }) => ({ id, name })),
]
const fault = ref('')
const kept = ref('')

const table = computed(() => {
  if (pasted.value.trim() === '') return { patches: [], fault: '' }
  try {
    return { patches: parseTable(pasted.value), fault: '' }
  } catch (error) {
    return { patches: [], fault: sentenceOf(error) }
  }
})
const patches = computed<readonly Patch[]>(() => {
  if (source.value === 'frame') return picked.value
  if (source.value === 'table') return table.value.patches
  return lutPatches.value
})
const result = computed(() => {
  if (patches.value.length < 4) return { fit: null, nearest: null, fault: '' }
  try {
    return { fit: fitLinLog(patches.value), nearest: matchPatches(patches.value)[0] ?? null, fault: '' }
  } catch (error) {
    return { fit: null, nearest: null, fault: sentenceOf(error) }
  }
})

async function measureLut(hash: string | null): Promise<void> {
  lutHash.value = hash
  lutPatches.value = []
  if (hash === null) return
  try {
    const curve =
      displays.find((d) => d.id === returns.value)?.eotf ?? encodings.find((e) => e.id === returns.value)?.curve
    const response = await fetch(`/api/luts/${hash}/packed`)
    const lut = response.ok ? unpackLut(new Uint8Array(await response.arrayBuffer())) : null
    if (lut && curve) lutPatches.value = lutAsTable(lut, curve)
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}
async function keep(definition: Omit<EncodingDefinition, 'curve' | 'source'>): Promise<void> {
  const { fit } = result.value
  if (!fit) return
  try {
    await encodingStore.keep({
      ...definition,
      source: `measured from ${patches.value.length} patches, ${fit.rmsStops.toFixed(3)} stops left over`,
      curve: { family: 'lin-log', ...fit.curve },
    })
    kept.value = definition.name
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}
function chooseOutput(id: string): void {
  returns.value = id
  void measureLut(lutHash.value)
}
</script>

<template>
  <div class="measure">
    <section class="source">
      <PlainSelect
        :label="text.measure.from"
        tip="What the curve is fitted to."
        :options="sources"
        :model-value="source"
        @update:model-value="source = $event as typeof source"
      />
      <template v-if="source === 'frame'">
        <ShotChooser
          v-if="!shot"
          :hint="text.measure.choose"
          @choose="emit('choose', $event)"
        />
        <PatchPicker
          v-else
          :shot="shot"
          :frame="frame"
          :how="text.measure.how"
          @patches="picked = $event"
          @frame="emit('frame', $event)"
        />
      </template>
      <template v-else-if="source === 'table'">
        <p class="quiet">{{ text.measure.tableHint }}</p>
        <ElInput
          v-model="pasted"
          type="textarea"
          :rows="16"
          :aria-label="text.measure.table"
          spellcheck="false"
        />
        <Notice
          :text="table.fault"
          @close="pasted = ''"
        />
      </template>
      <template v-else>
        <LutPicker
          :hash="lutHash"
          :label="text.measure.lutName"
          :tip="text.measure.lutTip"
          :none="text.measure.noLut"
          :import-label="text.measure.importLut"
          @choose="measureLut"
        />
        <PlainSelect
          :label="text.measure.returns"
          :tip="text.measure.returnsTip"
          :options="outputs"
          :model-value="returns"
          @update:model-value="chooseOutput"
        />
      </template>
      <Notice
        :text="fault || result.fault"
        @close="fault = ''"
      />
    </section>
    <FitResultView
      v-if="shot || source !== 'frame'"
      :patches="patches"
      :fit="result.fit"
      :nearest="result.nearest"
      :kept="kept"
      @keep="keep"
    />
  </div>
</template>

<style scoped>
.measure {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(340px, 1fr);
  gap: var(--gap-broad);
  min-height: 0;
}
.source {
  display: grid;
  gap: var(--gap);
  align-content: start;
  min-height: 0;
  overflow-y: auto;
}
/* Before a shot is chosen its pictures have the room. */
.source:only-child {
  grid-column: 1 / -1;
}
.source > .choice {
  max-width: 380px;
}
p {
  margin: 0;
}
</style>
