<script setup lang="ts">
// A view of several parts: the header, the parts by name, what went wrong, and the open part, which fills the rest.
import { useRoute } from 'vue-router'
import type { ShotDetail } from '@contracts/responses'
import AppHeader from './AppHeader.vue'
import Notice from './Notice.vue'

defineProps<{
  /** The route's name. */ view: string
  title: string
  parts: readonly { readonly id: string; readonly name: string; readonly tip: string }[]
  here: string
  shot: ShotDetail | null
  fault: string
}>()
defineEmits<{ close: [] }>()
const route = useRoute()
</script>

<template>
  <div class="page">
    <AppHeader
      :project="shot ? { id: shot.projectId, name: shot.projectName } : undefined"
      :shot="shot"
    />
    <main>
      <h1 class="visually-hidden">{{ title }}</h1>
      <nav
        class="parts"
        :aria-label="title"
      >
        <RouterLink
          v-for="p in parts"
          :key="p.id"
          :data-tip="p.tip"
          class="caps"
          :class="{ here: p.id === here }"
          :aria-current="p.id === here ? 'page' : undefined"
          :to="{ name: view, params: { part: p.id }, query: route.query }"
        >
          {{ p.name }}
        </RouterLink>
      </nav>
      <Notice
        :text="fault"
        @close="$emit('close')"
      />
      <div class="part"><slot /></div>
    </main>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  display: grid;
  grid-template-rows: auto 1fr;
}
main {
  display: grid;
  grid-template-rows: auto auto 1fr;
  padding: 0 var(--gap-wide) var(--gap-wide);
  gap: var(--gap);
  min-height: 0;
  overflow: hidden;
}
.part {
  grid-row: 3;
  min-height: 0;
  display: grid;
  grid-template: minmax(0, 1fr) / minmax(0, 1fr);
}
.parts {
  display: flex;
  gap: var(--gap-broad);
  padding-top: var(--gap-wide);
}
.parts a {
  text-decoration: none;
  color: var(--ink-quiet);
  padding-bottom: var(--gap-small);
  border-bottom: 2px solid transparent;
}
.parts a:hover {
  color: var(--ink);
}
.parts a.here {
  color: var(--ink);
  border-bottom-color: var(--accent);
}
</style>
