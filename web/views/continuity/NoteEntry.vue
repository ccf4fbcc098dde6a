<script setup lang="ts">
// Words for the moment that was on screen when they were begun; the scene plays on meanwhile.
import { onMounted, ref, useTemplateRef } from 'vue'
import { text } from './text'

defineProps<{ of: string }>()
const emit = defineEmits<{ save: [words: string]; close: [] }>()
const words = ref('')
const field = useTemplateRef('field')
onMounted(() => field.value?.focus())
function save(): void {
  const said = words.value.trim()
  if (said !== '') emit('save', said)
  emit('close')
}
</script>

<template>
  <form
    data-testid="note-entry"
    @submit.prevent="save"
    @keydown.esc.stop="emit('close')"
  >
    <label
      class="figures quiet"
      for="moment-words"
    >
      {{ of }}
    </label>
    <input
      id="moment-words"
      ref="field"
      v-model="words"
      maxlength="300"
      :placeholder="text.notes.words"
    />
    <button
      type="submit"
      class="button"
      :disabled="words.trim() === ''"
    >
      {{ text.notes.save }}
    </button>
  </form>
</template>

<style scoped>
form {
  display: flex;
  gap: var(--gap);
  align-items: center;
}
input {
  flex: 1;
  min-height: var(--control);
  padding: 0 var(--gap);
  background: var(--well);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
}
</style>
