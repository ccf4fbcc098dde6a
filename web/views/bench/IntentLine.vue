<script setup lang="ts">
// What the scene should feel like, beside the picture while it is graded: words, and pictures that a click holds next
// to the present one.
import { ref } from 'vue'
import type { ScenePicture } from '@contracts/responses'
import { text } from './text'

defineProps<{ words: string; pictures: readonly ScenePicture[] }>()
const emit = defineEmits<{ freeze: [file: Blob, name: string]; fault: [sentence: string] }>()
const asked = ref('')

async function freeze({ id, name }: ScenePicture): Promise<void> {
  if (asked.value) return
  asked.value = id
  try {
    const response = await fetch(`/api/scene-pictures/${id}`)
    if (!response.ok) throw new Error()
    emit('freeze', await response.blob(), name)
  } catch {
    emit('fault', text.intentLost(name))
  } finally {
    asked.value = ''
  }
}
</script>

<template>
  <div
    class="intent"
    :class="{ pictured: pictures.length > 0 }"
  >
    <button
      v-for="p in pictures"
      :key="p.id"
      type="button"
      :data-tip="text.intentPicture(p.name)"
      :aria-label="text.intentPicture(p.name)"
      :disabled="asked === p.id"
      data-testid="intent-picture"
      @click="freeze(p)"
    >
      <img
        :src="`/api/scene-pictures/${p.id}`"
        alt=""
      />
    </button>
    <p
      v-if="words"
      :data-tip="text.intent"
      tabindex="0"
      data-testid="intent"
    >
      {{ words }}
    </p>
  </div>
</template>

<style scoped>
.intent {
  display: flex;
  align-items: center;
  gap: var(--gap-small);
  margin-bottom: 2px;
  min-width: 0;
}
.pictured {
  height: 40px;
}
button {
  flex: none;
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0;
  height: 40px;
  overflow: hidden;
  cursor: pointer;
}
button:hover {
  border-color: var(--accent);
}
img {
  display: block;
  height: 100%;
  width: auto;
  max-width: 96px;
  object-fit: cover;
  background: var(--well);
}
p {
  margin: 0 0 0 var(--gap-small);
  font-size: 12px;
  color: var(--ink-quiet);
  font-style: italic;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
p:first-child {
  margin-left: 0;
}
</style>
