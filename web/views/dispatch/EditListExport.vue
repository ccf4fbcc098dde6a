<script setup lang="ts">
// The whole reel as an edit list, with the colour decisions of its shots.
import { text } from './text'

defineProps<{ projectId: string }>()
</script>

<template>
  <p class="quiet">{{ text.listNote }}</p>
  <p class="lists">
    <a
      v-for="kind in ['edl', 'otio'] as const"
      :key="kind"
      class="button"
      :href="`/api/projects/${projectId}/edit-list?kind=${kind}`"
      download
    >
      {{ text.takeList[kind] }}
    </a>
  </p>
</template>

<style scoped>
p {
  margin: var(--gap-small) 0 0;
}
.lists {
  display: flex;
  gap: var(--gap);
}
.button {
  border: var(--line) solid var(--hairline-strong);
  border-radius: var(--radius);
  padding: 4px var(--gap-wide);
  text-decoration: none;
}
.button:hover {
  border-color: var(--accent);
  background: var(--pressed);
}
</style>
