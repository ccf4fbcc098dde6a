<script setup lang="ts">
// The whole reel as an edit list, with the colour decisions of its shots.
import { text } from './text'
import DownloadLink from '../../components/DownloadLink.vue'

defineProps<{ projectId: string }>()
</script>

<template>
  <p class="quiet">{{ text.listNote }}</p>
  <p class="lists">
    <DownloadLink
      v-for="kind in ['edl', 'otio'] as const"
      :key="kind"
      :href="`/api/projects/${projectId}/edit-list?kind=${kind}`"
    >
      {{ text.takeList[kind] }}
    </DownloadLink>
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
</style>
