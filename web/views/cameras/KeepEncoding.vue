<script setup lang="ts">
// Names an encoding and keeps it: the last line of looking up and of measuring.
import { cutTo } from '@core/names'
import { computed, ref } from 'vue'
import { ElButton, ElInput } from 'element-plus'
import { gamuts, type EncodingDefinition } from '@core/colour'
import PlainSelect from '../../components/PlainSelect.vue'
import { text } from './text'

const emit = defineEmits<{ keep: [definition: Omit<EncodingDefinition, 'curve' | 'source'>] }>()
const name = ref('')
const gamutId = ref('bt709')
const gamutOptions = gamuts.map(({ id, name: label }) => ({ id, name: label }))
const trimmed = computed(() => cutTo(name.value.trim(), 60))

function keep(): void {
  // A word from the name, and enough chance that two names alike do not meet.
  const stem =
    trimmed.value
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|(?<!-)-+$/g, '')
      .slice(0, 24) || 'curve'
  const chance = Array.from(crypto.getRandomValues(new Uint8Array(4)), (b) => b.toString(16).padStart(2, '0')).join('')
  emit('keep', { id: `own-${stem}-${chance}`, name: trimmed.value, gamutId: gamutId.value })
}
</script>

<template>
  <form
    class="keep"
    @submit.prevent="trimmed && keep()"
  >
    <label>
      <span>{{ text.measure.name }}</span>
      <ElInput
        v-model="name"
        size="small"
        maxlength="60"
        :aria-label="text.measure.name"
      />
    </label>
    <PlainSelect
      :label="text.measure.gamut"
      tip="The red, green and blue of the camera; BT.709 when you do not know."
      :options="gamutOptions"
      :model-value="gamutId"
      @update:model-value="gamutId = $event"
    />
    <ElButton
      size="small"
      native-type="submit"
      :disabled="!trimmed"
    >
      {{ text.measure.keep }}
    </ElButton>
  </form>
</template>

<style scoped>
.keep {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-wide);
  align-items: center;
}
label {
  display: flex;
  gap: var(--gap);
  align-items: center;
}
.keep :deep(.choice) {
  width: 260px;
  grid-template-columns: 60px 1fr;
}
</style>
