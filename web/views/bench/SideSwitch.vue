<script setup lang="ts">
// Which side of Show a station's steps stand on, one action to move them across, and what that does to the loss ledger.
import { computed, ref, shallowRef, watch } from 'vue'
import type { Side, Step } from '@core/grade'
import { totalLoss, type Meridian, type StationLoss } from '@core/instruments'
import { lossChange } from './figures'
import { text } from './text'

const props = defineProps<{ steps: readonly Step[]; meridian: Meridian | null; settled: boolean }>()
const emit = defineEmits<{ move: [side: Side] }>()

const sides = computed(() => new Set(props.steps.map((s) => s.side)))
const here = computed(() => {
  if (sides.value.size > 1) return text.bothSides
  if (sides.value.has('display')) return text.displaySide
  return text.sceneSide
})
const other = computed<Side>(() => (sides.value.has('scene') ? 'display' : 'scene'))
const lost = computed(() => (props.meridian ? totalLoss(props.meridian.stations.map((s) => s.loss)) : null))

/** The ledger before the move, until the controls of another station are shown or something else is edited. */
const before = shallowRef<StationLoss | null>(null)
const waiting = ref(false)
function move(): void {
  before.value = lost.value
  waiting.value = true
  emit('move', other.value)
}
watch(
  () => props.settled,
  (settled) => {
    if (settled) waiting.value = false
  },
)
watch(
  () => props.steps.map((s) => s.id).join(),
  () => {
    before.value = null
  },
)
</script>

<template>
  <span class="side">
    <span class="quiet">{{ here }}</span>
    <button
      :data-tip="text.moveTip"
      type="button"
      :disabled="steps.length === 0"
      @click="move"
    >
      {{ other === 'display' ? text.moveAfter : text.moveBefore }}
    </button>
    <span
      v-if="before && lost"
      class="figures quiet"
      role="status"
      data-testid="ledger-change"
    >
      {{ waiting ? text.ledgerWaiting : lossChange(before, lost) }}
    </span>
  </span>
</template>

<style scoped>
.side {
  display: inline-flex;
  align-items: baseline;
  gap: var(--gap-wide);
  white-space: nowrap;
}
button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 var(--gap);
  font-size: var(--text-small);
  min-height: 20px;
}
button:hover:enabled {
  border-color: var(--accent);
}
button:disabled {
  color: var(--hairline-strong);
}
.figures {
  font-size: var(--text-small);
}
</style>
