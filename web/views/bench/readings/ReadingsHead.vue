<script setup lang="ts">
// The head of the readings: readings or aims, the standard, how many lie outside, and all of them or the first few.
import type { HouseStandard } from '@core/readings'
import type { OverClip } from '../../../composables/useReadings'
import { text } from '../text'

defineProps<{
  standard: HouseStandard
  clip: OverClip
  /** How many lie outside and are not ignored. */ off: number
  fresh: boolean
  aiming: boolean
  aimCount: number
  all: boolean
}>()
const emit = defineEmits<{ aiming: [on: boolean]; all: [on: boolean] }>()
</script>

<template>
  <h2>
    <span
      class="tabs"
      role="group"
      :aria-label="text.readings"
    >
      <button
        type="button"
        class="caps"
        :aria-pressed="!aiming"
        @click="emit('aiming', false)"
      >
        {{ text.readings }}
      </button>
      <button
        type="button"
        class="caps"
        :aria-pressed="aiming"
        data-testid="aims-tab"
        @click="emit('aiming', true)"
      >
        {{ text.aims.title }}{{ aimCount ? ` ${aimCount}` : '' }}
      </button>
    </span>
    <RouterLink
      class="quiet"
      :to="{ name: 'standards', params: { standardId: standard.id } }"
    >
      {{ standard.name }}
    </RouterLink>
    <span
      v-if="clip.seen > 0 && clip.seen < clip.all"
      :data-tip="text.lookingThrough(clip.seen, clip.all)"
      class="quiet figures seen"
      data-testid="clip-seen"
    >
      {{ clip.seen }}/{{ clip.all }}
    </span>
    <span
      class="count figures"
      :class="{ off: off > 0 }"
      role="status"
      data-testid="outside"
    >
      {{ fresh ? text.outside(off) : text.measuring }}
    </span>
    <button
      type="button"
      :aria-expanded="all"
      @click="emit('all', !all)"
    >
      {{ all ? text.fewer : text.allReadings }}
    </button>
  </h2>
</template>

<style scoped>
h2 {
  font-size: var(--text);
  font-weight: 400;
  display: flex;
  gap: var(--gap);
  align-items: center;
  min-height: 24px;
}
.tabs {
  display: flex;
  gap: 2px;
}
.tabs button {
  border-color: transparent;
  color: var(--ink-quiet);
  padding: 0 4px;
  min-height: 24px;
}
.tabs [aria-pressed='true'] {
  color: var(--ink);
  border-bottom-color: var(--accent);
  border-radius: 0;
}
h2 button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  font-size: 11px;
  padding: 0 6px;
  min-height: 24px;
}
h2 a {
  display: inline-flex;
  align-items: center;
  min-height: 24px;
}
.count {
  flex: 1;
  text-align: right;
  font-size: 11px;
  white-space: nowrap;
  color: var(--ink-quiet);
}
.seen {
  font-size: 11px;
}
.count.off {
  color: var(--warning);
}
</style>
