<script setup lang="ts">
// The Read station: which encoding, gamut and range the camera wrote, or the LUT that converts it.
import { computed, onMounted } from 'vue'
import { encodingFromDefinition, encodings, gamuts } from '@core/colour'
import { encodingOf, type ReadSettings } from '@core/grade'
import type { MediaFacts } from '@contracts/responses'
import LutPicker from '../../components/LutPicker.vue'
import LutStrength from '../../components/LutStrength.vue'
import PlainSelect from '../../components/PlainSelect.vue'
import { useEncodings } from '../../stores/encodings'
import { text } from './text'

const props = defineProps<{ read: ReadSettings; media: MediaFacts; shotId: string; frame: number }>()
const emit = defineEmits<{ change: [change: Partial<ReadSettings>] }>()
const encodingStore = useEncodings()
onMounted(() => void encodingStore.load().catch(() => undefined))

const own = computed(() => {
  const carried = props.read.own
  return carried && !encodingStore.own.some((e) => e.id === carried.id)
    ? [...encodingStore.own, carried]
    : encodingStore.own
})
const encodingOptions = computed(() => [
  ...encodings.map(({ id, name, tip }) => ({ id, name, tip })),
  ...own.value.map((d) => ({ id: d.id, name: d.name, tip: encodingFromDefinition(d).tip })),
])
const gamutOptions = gamuts.map(({ id, name }) => ({ id, name }))
const ranges = [
  { id: 'full', name: 'full range' },
  { id: 'legal', name: 'legal range' },
]
const methods = [
  { id: 'formula', name: text.read.byFormula },
  { id: 'lut', name: text.read.byLut },
]
const tip = computed(() => encodingOf(props.read).tip)
const fileSays = computed(() =>
  props.media.rangeTagged ? text.read.tagged(`${props.media.range} range`) : text.read.untagged,
)

/** Another encoding brings the gamut it is usually used with, unless the present one is used with it, too. */
function setEncoding(encodingId: string): void {
  const definition = own.value.find((d) => d.id === encodingId)
  const { gamutIds } = encodingOf({ encodingId, ...(definition ? { own: definition } : {}) })
  emit('change', {
    encodingId,
    gamutId: gamutIds.includes(props.read.gamutId) ? props.read.gamutId : gamutIds[0],
    ...(definition ? { own: definition } : {}),
  })
}
</script>

<template>
  <div class="read">
    <PlainSelect
      :label="text.read.method"
      :tip="text.read.methodTip"
      :options="methods"
      :model-value="read.method"
      @update:model-value="emit('change', { method: $event === 'lut' ? 'lut' : 'formula' })"
    />
    <LutPicker
      v-if="read.method === 'lut'"
      :hash="read.lutHash"
      :label="text.look.lut"
      :tip="text.read.lutTip"
      :none="text.read.noLut"
      :import-label="text.look.import"
      @choose="emit('change', { lutHash: $event })"
    />
    <RouterLink
      v-else
      class="ask"
      :to="{ name: 'cameras', params: { part: 'compare' }, query: { shot: shotId, frame } }"
    >
      {{ text.read.compare }}
    </RouterLink>
    <PlainSelect
      :label="read.method === 'lut' ? text.read.returns : text.read.encoding"
      :tip="read.method === 'lut' ? text.read.returnsTip : text.read.encodingTip"
      :options="encodingOptions"
      :model-value="read.encodingId"
      @update:model-value="setEncoding"
    />
    <LutStrength
      v-if="read.method === 'lut'"
      :tip="text.read.strengthTip"
      :model-value="read.lutStrength"
      :disabled="read.lutHash === null"
      @update:model-value="emit('change', { lutStrength: $event })"
    />
    <span
      v-else
      class="quiet"
    >
      {{ tip }}
    </span>
    <PlainSelect
      :label="text.read.gamut"
      :tip="text.read.gamutTip"
      :options="gamutOptions"
      :model-value="read.gamutId"
      @update:model-value="emit('change', { gamutId: $event })"
    />
    <span />
    <PlainSelect
      :label="text.read.range"
      :tip="text.read.rangeTip"
      :options="ranges"
      :model-value="read.range"
      @update:model-value="emit('change', { range: $event === 'legal' ? 'legal' : 'full' })"
    />
    <span class="quiet">{{ fileSays }}</span>
  </div>
</template>

<style scoped>
.read {
  display: grid;
  grid-template-columns: 320px minmax(0, 1fr);
  gap: var(--gap-small) var(--gap-broad);
  align-items: center;
}
.ask {
  color: var(--accent);
}
</style>
