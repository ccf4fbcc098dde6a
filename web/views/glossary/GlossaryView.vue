<script setup lang="ts">
// The glossary: every word that may need one, to be found by a part of it.
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import AppHeader from '../../components/AppHeader.vue'
import { glossaryText as text, terms } from './terms'

const route = useRoute()
const typed = ref('')
/** The term that was asked for by a link. */
const asked = computed(() => route.hash.slice(1))
watch(
  asked,
  async (id) => {
    typed.value = ''
    await nextTick()
    const found = id === '' ? null : document.getElementById(id)
    found?.scrollIntoView({ block: 'center' })
    found?.focus()
  },
  { immediate: true },
)
const shown = computed(() => {
  const wanted = typed.value.trim().toLowerCase()
  // Names that fit come before words that only speak of it.
  const named = terms.filter((t) => t.name.toLowerCase().includes(wanted))
  return [...named, ...terms.filter((t) => !named.includes(t) && t.words.toLowerCase().includes(wanted))]
})
</script>

<template>
  <div class="page">
    <AppHeader />
    <main>
      <div class="top">
        <h1>{{ text.title }}</h1>
        <span class="quiet">{{ text.about }}</span>
        <input
          v-model="typed"
          type="search"
          :placeholder="text.find"
          :aria-label="text.find"
        />
      </div>
      <p
        v-if="shown.length === 0"
        role="status"
      >
        {{ text.none }}
      </p>
      <dl>
        <div
          v-for="term in shown"
          :id="term.id"
          :key="term.id"
          :class="{ asked: term.id === asked }"
          tabindex="-1"
        >
          <dt>
            {{ term.name }}
            <span
              v-if="term.ours"
              class="quiet"
            >
              {{ text.ours }}
            </span>
          </dt>
          <dd>{{ term.words }}</dd>
        </div>
      </dl>
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
  overflow-y: auto;
  padding: var(--gap-broad);
}
.top {
  display: flex;
  align-items: baseline;
  gap: var(--gap-broad);
  margin-bottom: var(--gap-broad);
}
h1 {
  font-size: var(--text-title);
}
input {
  margin-left: auto;
  width: 240px;
  min-height: var(--control);
  padding: 0 var(--gap);
  background: var(--well);
  border: var(--line) solid var(--hairline-strong);
  border-radius: var(--radius);
}
dl {
  margin: 0;
  columns: 3 340px;
  column-gap: var(--gap-broad);
}
dl > div {
  break-inside: avoid;
  padding-bottom: var(--gap-wide);
}
dl > .asked dt {
  color: var(--accent);
}
dt {
  font-weight: 500;
}
dt .quiet {
  font-weight: 400;
  font-size: var(--text-small);
}
dd {
  margin: 0;
  line-height: 1.45;
}
</style>
