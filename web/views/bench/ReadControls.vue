<script setup lang="ts">
// The Read station: which encoding, gamut and range the camera wrote.
import { computed } from 'vue'
import { encodingById, encodings, gamuts, type ReadSettings } from '@core/index'
import type { MediaFacts } from '@contracts/responses'
import PlainSelect from '../../components/PlainSelect.vue'
import { text } from './text'

const props = defineProps<{ read: ReadSettings; media: MediaFacts }>()
const emit = defineEmits<{ change: [change: Partial<ReadSettings>] }>()
const encodingOptions = encodings.map(({ id, name, tip }) => ({ id, name, tip }))
const gamutOptions = gamuts.map(({ id, name }) => ({ id, name }))
const ranges = [{ id: 'full', name: 'full range' }, { id: 'legal', name: 'legal range' }]
const tip = computed(() => encodingById(props.read.encodingId).tip)
const fileSays = computed(() => (props.media.rangeTagged ? text.read.tagged(`${props.media.range} range`) : text.read.untagged))

/** Another encoding brings the gamut it is usually used with, unless the present one is used with it, too. */
function setEncoding(encodingId: string): void {
  const { gamutIds } = encodingById(encodingId)
  emit('change', { encodingId, gamutId: gamutIds.includes(props.read.gamutId) ? props.read.gamutId : gamutIds[0] })
}
</script>

<template>
  <div class="read">
    <PlainSelect :label="text.read.encoding" :tip="text.read.encodingTip" :options="encodingOptions" :model-value="read.encodingId" @update:model-value="setEncoding" />
    <span class="quiet">{{ tip }}</span>
    <PlainSelect :label="text.read.gamut" :tip="text.read.gamutTip" :options="gamutOptions" :model-value="read.gamutId" @update:model-value="emit('change', { gamutId: $event })" />
    <span />
    <PlainSelect :label="text.read.range" :tip="text.read.rangeTip" :options="ranges" :model-value="read.range" @update:model-value="emit('change', { range: $event === 'legal' ? 'legal' : 'full' })" />
    <span class="quiet">{{ fileSays }}</span>
  </div>
</template>

<style scoped>
.read { display: grid; grid-template-columns: 320px 1fr; gap: var(--gap-small) var(--gap-broad); align-items: center; }
</style>
