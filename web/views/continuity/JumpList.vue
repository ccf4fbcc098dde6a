<script setup lang="ts">
// What jumps at cuts, largest first, and the shot that stands apart from all others.
import type { Jump, Outlier } from '@core/continuity'
import type { ShotSummary } from '@contracts/responses'
import { text } from './text'

defineProps<{
  jumps: readonly Jump[]
  odd: Outlier | null
  shots: readonly ShotSummary[]
  measured: number
}>()
const emit = defineEmits<{ cut: [at: number]; choose: [at: number] }>()
</script>

<template>
  <section
    class="jumps"
    :aria-label="text.jumps"
  >
    <h2
      class="caps"
      :data-tip="text.jumpsTip"
      tabindex="0"
    >
      {{ text.jumps }}
    </h2>
    <p
      v-if="measured < shots.length"
      class="figures quiet"
      role="status"
    >
      {{ text.measuring(measured, shots.length) }}
    </p>
    <p
      v-else-if="jumps.length === 0"
      class="quiet"
    >
      {{ text.noJumps }}
    </p>
    <ol
      tabindex="-1"
      data-testid="jumps"
    >
      <li
        v-for="j in jumps"
        :key="`${j.line.id} ${j.line.of ?? ''} ${j.at}`"
      >
        <button
          type="button"
          @click="emit('cut', j.at)"
        >
          <span
            class="figures times"
            :data-tip="text.timesTip"
          >
            {{ text.times(j.steps) }}
          </span>
          <span>
            {{ j.words }}
            <span class="quiet cut">{{ shots[j.at - 1]?.name }} → {{ shots[j.at]?.name }}</span>
          </span>
        </button>
      </li>
    </ol>
    <h2
      class="caps"
      :data-tip="text.oddTip"
      tabindex="0"
    >
      {{ text.odd }}
    </h2>
    <button
      v-if="odd"
      type="button"
      data-testid="odd"
      @click="emit('choose', odd.shot)"
    >
      <span class="off">▲</span>
      <span>
        <strong>{{ shots[odd.shot]?.name }}</strong>
        <span
          v-for="w in odd.words"
          :key="w"
          class="quiet cut"
        >
          {{ w }}
        </span>
      </span>
    </button>
    <p
      v-else-if="measured === shots.length"
      class="quiet"
    >
      {{ text.noOdd }}
    </p>
  </section>
</template>

<style scoped>
.jumps {
  display: grid;
  gap: var(--gap-small);
  align-content: start;
  min-height: 0;
  overflow: auto;
  font-size: 12px;
}
h2 {
  color: var(--ink-quiet);
  font-weight: 400;
}
ol {
  list-style: none;
  margin: 0 0 var(--gap);
  padding: 0;
}
p {
  margin: 0;
}
button {
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr);
  gap: var(--gap-small);
  width: 100%;
  min-height: var(--control);
  padding: var(--gap-hair) 0;
  background: none;
  border: 0;
  border-bottom: var(--line) solid var(--hairline);
  text-align: left;
}
button:hover {
  background: var(--veil);
}
.times,
.off {
  color: var(--warning);
}
.cut {
  display: block;
}
strong {
  font-weight: 500;
}
</style>
