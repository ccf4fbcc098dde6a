<script setup lang="ts">
// A sentence about something that went wrong, where it happened, with a way to put it away.
defineProps<{ text: string }>()
defineEmits<{ close: [] }>()
</script>

<template>
  <p
    v-if="text"
    class="notice"
    role="alert"
  >
    <span
      class="sign"
      aria-hidden="true"
    >
      ▲
    </span>
    <span class="words">{{ text }}</span>
    <slot />
    <button
      type="button"
      class="close"
      aria-label="Close this message"
      @click="$emit('close')"
    >
      ×
    </button>
  </p>
</template>

<style scoped>
.notice {
  display: flex;
  align-items: center;
  gap: var(--gap);
  margin: 0;
  padding: var(--gap-small) var(--gap);
  background: var(--raised);
  border: var(--line) solid var(--warning);
}
.sign {
  color: var(--warning);
}
.words {
  flex: 1;
}
.close {
  background: none;
  border: 0;
  font-size: var(--text-large);
  line-height: 1;
  padding: var(--gap-small);
}
</style>
