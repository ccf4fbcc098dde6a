<script setup lang="ts">
// Carrying a grade over to the chosen shots, one after another: what is taken along, how far it is, and what came of
// it.
import { computed, ref, shallowRef } from 'vue'
import { carriedStations, type CarriedStation } from '@core/aims'
import { stations } from '@core/grade'
import { checked } from '@contracts/check'
import { CarryOver } from '@contracts/requests'
import type { Carried, ShotSummary } from '@contracts/responses'
import { post, sentenceOf } from '../../api/client'
import { text } from './text'

const props = defineProps<{ from: ShotSummary; to: readonly ShotSummary[] }>()
const emit = defineEmits<{ close: []; done: [] }>()
const taken = ref<CarriedStation[]>([...carriedStations])
const solve = ref(true)
const results = shallowRef<readonly (Carried | { readonly name: string; readonly fault: string })[]>([])
const running = ref(false)
const stopped = ref(false)
const targets = computed(() => props.to.filter((s) => s.id !== props.from.id))
const nameOf = (id: CarriedStation): string => stations.find((s) => s.id === id)?.name ?? id
function toggle(id: CarriedStation): void {
  taken.value = taken.value.includes(id)
    ? taken.value.filter((t) => t !== id)
    : carriedStations.filter((s) => s === id || taken.value.includes(s))
}
async function run(): Promise<void> {
  running.value = true
  stopped.value = false
  results.value = []
  for (const shot of targets.value) {
    if (stopped.value) break
    try {
      results.value = [
        ...results.value,
        await post<Carried>(
          `/shots/${shot.id}/carry`,
          checked(CarryOver, { fromId: props.from.id, stations: taken.value, solve: solve.value }),
        ),
      ]
    } catch (error) {
      results.value = [...results.value, { name: shot.name, fault: sentenceOf(error) }]
    }
  }
  running.value = false
  emit('done')
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
          :aria-pressed="taken.includes(id)"
          :disabled="running"
          @click="toggle(id)"
        >
          {{ nameOf(id) }}
        </button>
      </span>
      <label :data-tip="text.carry.solveTip">
        <input
          v-model="solve"
          type="checkbox"
          :disabled="running"
        />
        {{ text.carry.solve }}
      </label>
      <span
        class="space figures quiet"
        role="status"
      >
        {{ running || results.length ? text.carry.progress(results.length, targets.length) : '' }}
      </span>
      <button
        v-if="!running"
        type="button"
        class="go"
        :disabled="targets.length === 0 || taken.length === 0"
        @click="run"
      >
        {{ text.carry.go(targets.length) }}
      </button>
      <button
        v-else
        type="button"
        @click="stopped = true"
      >
        {{ text.cancel }}
      </button>
      <button
        type="button"
        :disabled="running"
        @click="emit('close')"
      >
        {{ text.dismiss }}
      </button>
    </div>
    <ul v-if="results.length">
      <li
        v-for="r in results"
        :key="r.name"
        :data-carried="r.name"
      >
        <strong>{{ r.name }}</strong>
        <span
          v-if="'fault' in r"
          class="off"
        >
          ▲ {{ r.fault }}
        </span>
        <template v-else>
          <span class="figures quiet">{{ r.differs.length ? r.differs.join(' · ') : text.carry.same }}</span>
          <span
            v-for="u in r.unmet"
            :key="u"
            class="off"
          >
            ▲ {{ u }}
          </span>
          <span v-if="r.outside.length === 0">{{ text.allWithin }}</span>
          <span
            v-else
            :data-tip="r.outside.join('\n')"
            class="off"
            tabindex="0"
          >
            ▲ {{ text.outside(r.outside.length) }}: {{ r.outside[0] }}
          </span>
        </template>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.carry {
  background: var(--panel);
  border: var(--line) solid var(--hairline-strong);
  padding: var(--gap);
  display: grid;
  gap: var(--gap);
  max-height: 40vh;
  overflow: auto;
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
  text-align: right;
}
strong {
  font-weight: 500;
}
button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: var(--control);
}
button:hover:enabled {
  border-color: var(--accent);
}
button:disabled {
  color: var(--ink-quiet);
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
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 0 var(--gap-wide);
  padding: var(--gap-small) 0;
  border-top: var(--line) solid var(--hairline);
}
li > :not(:first-child) {
  grid-column: 2;
}
.off {
  color: var(--warning);
}
</style>
