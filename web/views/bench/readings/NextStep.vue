<script setup lang="ts">
// One line: what to do next, and the button that does it.
import { text } from '../text'
import type { NextStep } from './next-step'

defineProps<{ next: NextStep; lastShot: boolean }>()
const emit = defineEmits<{ read: []; open: [key: string]; shot: [] }>()
</script>

<template>
  <p
    class="next"
    data-testid="next-step"
  >
    <span class="quiet">{{ text.next.title }}</span>
    <template v-if="next.kind === 'read'">
      <span class="words">{{ text.next.read }}</span>
      <button
        type="button"
        class="button"
        @click="emit('read')"
      >
        {{ text.next.openRead }}
      </button>
    </template>
    <template v-else-if="next.kind === 'reading'">
      <span class="words">{{ next.words }}</span>
      <button
        type="button"
        class="button"
        @click="emit('open', next.key)"
      >
        {{ text.next.open }}
      </button>
    </template>
    <template v-else>
      <span class="words">{{ text.next.done }}</span>
      <button
        v-if="!lastShot"
        type="button"
        class="button"
        @click="emit('shot')"
      >
        {{ text.next.shot }}
      </button>
    </template>
  </p>
</template>

<style scoped>
.next {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: var(--gap);
  align-items: center;
  margin: 2px 0 0;
  height: 24px;
  font-size: 12px;
}
.words {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
