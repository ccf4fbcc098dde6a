<script setup lang="ts">
// A link that gives a file, looking like the buttons beside it.
import { Download } from '@lucide/vue'

defineProps<{ href: string; /** As low as the buttons of a table. */ small?: boolean }>()
</script>

<template>
  <a
    class="download"
    :class="{ small }"
    :href="href"
    download
  >
    <Download
      class="icon"
      aria-hidden="true"
    />
    <slot />
  </a>
</template>

<style scoped>
.download {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  border: var(--line) solid var(--hairline-strong);
  border-radius: var(--radius);
  padding: 4px var(--gap-wide);
  text-decoration: none;
}
.download:hover {
  border-color: var(--accent);
  background: var(--pressed);
}
.small {
  padding: 2px var(--gap-wide);
  font-size: 12px;
}
</style>
