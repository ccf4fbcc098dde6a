<script setup lang="ts">
// All keys, inline over the lower part of the Bench.
import { onMounted, ref } from 'vue'
import { keySheet } from './keys'

defineEmits<{ close: [] }>()
const close = ref<HTMLButtonElement | null>(null)
onMounted(() => close.value?.focus())
</script>

<template>
  <section
    class="sheet"
    aria-label="Keys"
  >
    <button
      ref="close"
      type="button"
      class="close"
      @click="$emit('close')"
      @keydown.escape.stop="$emit('close')"
    >
      Close
    </button>
    <div
      v-for="{ group, actions } in keySheet"
      :key="group"
    >
      <h2 class="caps">{{ group }}</h2>
      <dl>
        <template
          v-for="{ keys, what } in actions"
          :key="keys"
        >
          <dt class="figures">{{ keys }}</dt>
          <dd>{{ what }}</dd>
        </template>
      </dl>
    </div>
  </section>
</template>

<style scoped>
.sheet {
  position: absolute;
  inset: auto 0 0 0;
  z-index: 5;
  background: var(--panel);
  border-top: var(--line) solid var(--accent);
  padding: var(--gap-wide) var(--gap-broad) var(--gap-broad);
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: var(--gap-broad);
}
.close {
  position: absolute;
  top: var(--gap);
  right: var(--gap-wide);
  background: none;
  border: var(--line) solid var(--hairline-strong);
  border-radius: var(--radius);
}
h2 {
  color: var(--ink-quiet);
  margin-bottom: var(--gap);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: var(--gap-small) var(--gap-wide);
  margin: 0;
}
dd {
  margin: 0;
}
dt {
  color: var(--accent);
}
</style>
