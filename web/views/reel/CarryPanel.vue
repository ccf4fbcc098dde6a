<script setup lang="ts">
// What of a grade is carried to the chosen shots, and whether it is solved there. What comes of it is proposed, shot by
// shot, before anything is changed.
import { computed, ref } from 'vue'
import { carriedStations, type CarriedStation } from '@core/aims'
import { stations } from '@core/grade'
import type { ShotSummary } from '@contracts/responses'
import { useProposals } from '../../stores/proposals'
import { text } from './text'

const props = defineProps<{ from: ShotSummary; to: readonly ShotSummary[] }>()
const emit = defineEmits<{ close: [] }>()
const proposals = useProposals()
const taken = ref<CarriedStation[]>([...carriedStations])
const solve = ref(true)
const targets = computed(() => props.to.filter((s) => s.id !== props.from.id))
const nameOf = (id: CarriedStation): string => stations.find((s) => s.id === id)?.name ?? id
function toggle(id: CarriedStation): void {
  taken.value = taken.value.includes(id)
    ? taken.value.filter((t) => t !== id)
    : carriedStations.filter((s) => s === id || taken.value.includes(s))
}
function run(): void {
  emit('close')
  void proposals.start(targets.value, {
    kind: 'carry',
    reference: props.from,
    stations: taken.value,
    solve: solve.value,
  })
}
</script>

<template>
  <section
    class="carry"
    data-testid="carry"
    :aria-label="text.carry.title(from.name)"
  >
    <div class="bar">
      <strong>{{ text.carry.title(from.name) }}</strong>
      <span
        v-for="id in carriedStations"
        :key="id"
      >
        <button
          type="button"
          class="button"
          :aria-pressed="taken.includes(id)"
          @click="toggle(id)"
        >
          {{ nameOf(id) }}
        </button>
      </span>
      <label :data-tip="text.carry.solveTip">
        <input
          v-model="solve"
          type="checkbox"
        />
        {{ text.carry.solve }}
      </label>
      <span class="space" />
      <button
        type="button"
        class="button go"
        :disabled="targets.length === 0 || taken.length === 0"
        @click="run"
      >
        {{ text.carry.go(targets.length) }}
      </button>
      <button
        type="button"
        class="button"
        @click="emit('close')"
      >
        {{ text.dismiss }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.carry {
  background: var(--panel);
  border: var(--line) solid var(--hairline-strong);
  padding: var(--gap);
  display: grid;
  gap: var(--gap);
  font-size: 12px;
  flex: none;
}
.bar {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  flex-wrap: wrap;
}
.space {
  flex: 1;
}
strong {
  font-weight: 500;
}
[aria-pressed='true'],
.go {
  border-color: var(--accent);
  color: var(--accent);
}
label {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  padding: 0 var(--gap);
}
input {
  accent-color: var(--accent);
}
</style>
