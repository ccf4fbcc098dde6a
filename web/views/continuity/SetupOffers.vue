<script setup lang="ts">
// Shots that look like one set-up, to be linked so that they are corrected together.
import type { ShotSummary } from '@contracts/responses'
import { text } from './text'

const props = defineProps<{ groups: readonly (readonly string[])[]; shots: readonly ShotSummary[] }>()
const emit = defineEmits<{ link: [ids: readonly string[]] }>()
const numbers = (ids: readonly string[]): readonly number[] =>
  ids.flatMap((id) => {
    const at = props.shots.findIndex((s) => s.id === id)
    return at < 0 ? [] : [at + 1]
  })
</script>

<template>
  <section
    v-if="groups.length"
    data-testid="setups"
  >
    <h2
      class="caps"
      :data-tip="text.setups.tip"
      tabindex="0"
    >
      {{ text.setups.title }}
    </h2>
    <p
      v-for="ids in groups"
      :key="ids.join()"
    >
      {{ text.setups.looks(numbers(ids)) }}
      <button
        type="button"
        class="button"
        @click="emit('link', ids)"
      >
        {{ text.setups.link }}
      </button>
    </p>
  </section>
</template>

<style scoped>
section {
  font-size: 12px;
}
h2 {
  color: var(--ink-quiet);
  font-weight: 400;
}
p {
  margin: var(--gap-hair) 0;
  display: flex;
  gap: var(--gap);
  align-items: center;
  justify-content: space-between;
}
</style>
