<script setup lang="ts">
// What was said of moments of the shots here: each leads to its frame.
import { computed } from 'vue'
import type { ShotSummary } from '@contracts/responses'
import EmptyState from '../../components/EmptyState.vue'
import { text } from './text'

const props = defineProps<{ shots: readonly ShotSummary[] }>()
const emit = defineEmits<{ remove: [id: string] }>()
const words = text.notes
const notes = computed(() => props.shots.flatMap((shot) => shot.notes.map((note) => ({ shot, note }))))
</script>

<template>
  <section
    class="notes"
    :aria-label="text.tabs.notes"
  >
    <EmptyState
      v-if="notes.length === 0"
      :hint="words.none"
    />
    <ul>
      <li
        v-for="{ shot, note } in notes"
        :key="note.id"
        data-testid="moment-note"
      >
        <RouterLink :to="{ name: 'bench', params: { shotId: shot.id }, query: { frame: note.frame } }">
          {{ note.words }}
          <span class="quiet figures">{{ words.at(shot.name, note.frame - shot.firstFrame) }}</span>
        </RouterLink>
        <button
          type="button"
          class="button"
          :aria-label="`${words.remove}: ${note.words}`"
          @click="emit('remove', note.id)"
        >
          ×
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.notes {
  min-height: 0;
  overflow: auto;
  font-size: 12px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: var(--gap-small);
  padding: var(--gap-small) 0;
  border-bottom: var(--line) solid var(--hairline);
  align-items: start;
}
a {
  text-decoration: none;
}
a:hover {
  text-decoration: underline;
}
a span {
  display: block;
}
</style>
