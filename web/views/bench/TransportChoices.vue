<script setup lang="ts">
// Marks on the picture, and what it is compared with: apart from the bar, which changes with every frame.
import { overlays, type OverlayId } from '@core/instruments'
import type { CompareMode } from '../../stores/view'
import { text } from './text'
import type { CompareChoice } from './useComparing'

const props = defineProps<{ overlay: OverlayId | ''; compare: CompareMode; held: string }>()
const emit = defineEmits<{ overlay: [id: OverlayId | '']; compare: [choice: CompareChoice] }>()
function choose(event: Event): void {
  const select = event.target as HTMLSelectElement
  const choice = select.value as CompareChoice
  select.value = props.compare
  emit('compare', choice)
}
</script>

<template>
  <select
    :data-tip="text.overlayTip"
    :value="overlay"
    :class="{ on: overlay !== '' }"
    :aria-label="text.overlay"
    @change="emit('overlay', ($event.target as HTMLSelectElement).value as OverlayId | '')"
  >
    <option value="">{{ text.noOverlay }}</option>
    <option
      v-for="o in overlays"
      :key="o.id"
      :value="o.id"
      :title="o.tip"
    >
      {{ o.name }}
    </option>
  </select>
  <select
    :data-tip="text.compare.tip"
    class="compare"
    :value="compare"
    :class="{ on: compare !== 'off' }"
    :aria-label="text.compare.title"
    @change="choose"
  >
    <option value="off">{{ text.compare.title }}</option>
    <option value="freeze">{{ text.compare.freeze }}</option>
    <option value="import">{{ text.compare.import }}</option>
    <template v-if="held">
      <option value="wipe">{{ text.compare.wipe }}</option>
      <option value="side">{{ text.compare.side }}</option>
      <option value="blink">{{ text.compare.blink }}</option>
      <option value="none">{{ text.compare.letGo(held) }}</option>
    </template>
  </select>
</template>

<style scoped>
select {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 1px 4px;
  min-width: 24px;
  flex-shrink: 0;
  min-height: var(--control);
  max-width: 78px;
}
select.compare {
  max-width: 78px;
}
option {
  background: var(--panel);
  color: var(--ink);
}
select.on {
  background: var(--accent);
  color: var(--ink-on-accent);
  border-color: var(--accent);
}
</style>
