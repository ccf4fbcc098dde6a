<script setup lang="ts">
// Two revisions side by side, and what sets them apart in words.
import type { Compared } from './compared'
import { text } from './text'

defineProps<{ compared: Compared; nameOf: (id: string) => string; still: (revisionId: string) => string }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <section
    class="compared"
    data-testid="compared"
  >
    <p>
      <strong>{{ text.between(nameOf(compared.a), nameOf(compared.b)) }}</strong>
      {{ ' ' }}
      <button
        type="button"
        class="button"
        @click="emit('close')"
      >
        {{ text.endCompare }}
      </button>
    </p>
    <div class="pair">
      <img
        :src="still(compared.a)"
        :alt="nameOf(compared.a)"
      />
      <img
        :src="still(compared.b)"
        :alt="nameOf(compared.b)"
      />
      <ul>
        <li
          v-for="w in compared.words"
          :key="w"
          class="figures"
        >
          {{ w }}
        </li>
        <li v-if="compared.words.length === 0">{{ text.same }}</li>
      </ul>
    </div>
  </section>
</template>

<style scoped src="./record.css"></style>
