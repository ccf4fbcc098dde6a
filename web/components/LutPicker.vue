<script setup lang="ts">
// Chooses a LUT by name, or brings one in from a file.
import { computed, onMounted, ref } from 'vue'
import { ElButton } from 'element-plus'
import { lutExtensions } from '@core/formats'
import { sentenceOf } from '../api/client'
import { useLuts } from '../stores/luts'
import Notice from './Notice.vue'
import PlainSelect from './PlainSelect.vue'

const accept = lutExtensions.map((e) => `.${e}`).join(',')
const props = defineProps<{ hash: string | null; label: string; tip: string; none: string; importLabel: string }>()
const emit = defineEmits<{ choose: [hash: string | null] }>()
const lutStore = useLuts()
const fault = ref('')
const picker = ref<HTMLInputElement | null>(null)
onMounted(() =>
  lutStore.load().catch((error: unknown) => {
    fault.value = sentenceOf(error)
  }),
)

const noLut = 'none'
/** One that was removed is offered where it is in use. */
const offered = computed(() => {
  const used = lutStore.byHash(props.hash)
  return used?.removed ? [...lutStore.all, used] : lutStore.all
})
const options = computed(() => [
  { id: noLut, name: props.none },
  ...offered.value.map((l) => ({
    id: l.hash,
    name: l.name,
    tip:
      `${l.title || l.name} · ${l.dimensions === 'sequence' ? 'several parts' : `${l.dimensions}D`}, ` +
      `${l.size} per axis`,
  })),
])

async function picked(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  fault.value = ''
  try {
    emit('choose', (await lutStore.importFile(file)).hash)
  } catch (error) {
    fault.value = `${file.name}: ${sentenceOf(error)}`
  }
}
</script>

<template>
  <div class="lut">
    <PlainSelect
      :label="label"
      :tip="tip"
      :options="options"
      :model-value="hash ?? noLut"
      @update:model-value="emit('choose', $event === noLut ? null : $event)"
    />
    <input
      ref="picker"
      class="visually-hidden"
      type="file"
      :accept="accept"
      tabindex="-1"
      aria-label="LUT file"
      @change="picked"
    />
    <ElButton
      size="small"
      @click="picker?.click()"
    >
      {{ importLabel }}
    </ElButton>
    <Notice
      class="fault"
      :text="fault"
      @close="fault = ''"
    />
  </div>
</template>

<style scoped>
.lut {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: var(--gap-small) var(--gap);
  align-items: center;
}
.fault {
  grid-column: 1 / -1;
}
</style>
