<script setup lang="ts" generic="T extends string | number | boolean">
// One of a few, all of them in sight.
import type { Component } from 'vue'

defineProps<{
  /** What is chosen, for assistive technology. */
  label: string
  options: readonly {
    readonly value: T
    readonly name: string
    readonly tip?: string | undefined
    /** It differs from what it does by itself. */
    readonly changed?: boolean
    /** A CSS colour shown before the name. */
    readonly swatch?: string
    readonly icon?: Component
  }[]
  /** They share the room there is. */
  fill?: boolean
}>()
const chosen = defineModel<T | null>({ required: true })
</script>

<template>
  <span
    class="choice"
    :class="{ fill }"
    role="group"
    :aria-label="label"
  >
    <button
      v-for="o in options"
      :key="String(o.value)"
      :data-tip="o.tip"
      type="button"
      :class="{ changed: o.changed }"
      :aria-pressed="chosen === o.value"
      @click="chosen = o.value"
    >
      <component
        :is="o.icon"
        v-if="o.icon"
        class="icon"
        aria-hidden="true"
      />
      <span
        v-if="o.swatch"
        class="swatch"
        :style="{ background: o.swatch }"
        aria-hidden="true"
      />
      {{ o.name }}
    </button>
  </span>
</template>

<style scoped>
.choice {
  display: inline-flex;
  min-width: 0;
}
button {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 5px;
  background: none;
  border: var(--line) solid var(--hairline);
  padding: 0 7px;
  min-height: var(--control);
  min-width: 24px;
  font-size: 12px;
  white-space: nowrap;
}
button + button {
  margin-left: -1px;
}
button:first-child {
  border-radius: var(--radius) 0 0 var(--radius);
}
button:last-child {
  border-radius: 0 var(--radius) var(--radius) 0;
}
button:only-child {
  border-radius: var(--radius);
}
button:hover,
button[aria-pressed='true'] {
  position: relative;
  border-color: var(--accent);
}
button[aria-pressed='true'] {
  color: var(--accent);
}
button.changed::after {
  content: '•' / '';
}
.fill {
  display: flex;
}
.fill button {
  flex: 1;
}
.swatch {
  width: 10px;
  height: 10px;
  border-radius: 50%;
}
</style>
