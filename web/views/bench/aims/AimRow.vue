<script setup lang="ts">
// One aim: taken or not, what is wanted, what it comes to. Only a level, a light or a chroma is a number to type.
import { ref } from 'vue'
import { goalsOf, printQuantity, type Aim, type AimResult } from '@core/aims'
import { useAims } from '../../../stores/aims'
import { text } from '../text'
import type { AimRowFacts } from './aim-row'

defineProps<{ row: AimRowFacts }>()
const store = useAims()

/** Of several numbers only what they come to: there is little room. */
const before = (r: AimResult): string => (r.goals.length > 1 ? '' : `${beforeOf(r)} →`)
const beforeOf = (r: AimResult): string =>
  r.goals.map((g) => (g.before === null ? '–' : printQuantity(g.quantity, g.before))).join(' · ')
const after = (r: AimResult): string =>
  r.goals.map((g) => (g.after === null ? '–' : printQuantity(g.quantity, g.after))).join(' · ')
/** Only a level, a light or a chroma is one number that can be typed. */
const typed = (aim: Aim | null): number | null => {
  if (!aim || !['level', 'luma', 'light', 'chroma'].includes(aim.want.kind)) return null
  const [goal] = goalsOf(aim.want)
  if (!goal) return null
  return Number((goal.quantity === 'stops' ? goal.value : goal.value * 100).toFixed(goal.quantity === 'stops' ? 2 : 1))
}
/** What is being typed stays, though results come in meanwhile. */
const draft = ref<string | null>(null)
function type(aim: Aim, event: Event): void {
  draft.value = null
  const input = event.target as HTMLInputElement
  const value = Number(input.value.replace(',', '.').replace('−', '-'))
  const { want } = aim
  if (!Number.isFinite(value) || input.value.trim() === '') {
    input.value = String(typed(aim))
    return
  }
  if (want.kind === 'light') store.set({ ...aim, want: { ...want, stops: Math.min(8, Math.max(-8, value)) } })
  else if (want.kind === 'level' || want.kind === 'luma' || want.kind === 'chroma')
    store.set({ ...aim, want: { ...want, value: Math.min(1, Math.max(0, value / 100)) } })
}
const unitOf = (aim: Aim): string => (aim.want.kind === 'light' ? 'stops' : '%')
</script>

<template>
  <li
    :class="{ refused: store.refused.has(row.id), unmet: row.result && !row.result.met }"
    :data-aim="row.id"
  >
    <input
      v-if="row.aim"
      type="checkbox"
      :checked="!store.refused.has(row.id)"
      :aria-label="text.aims.take(row.name)"
      @change="store.refuse(row.id, !($event.target as HTMLInputElement).checked)"
    />
    <span
      v-else
      aria-hidden="true"
      class="quiet"
    >
      –
    </span>
    <span
      :data-tip="row.result?.why || row.evidence || text.aims.tip"
      class="name"
      tabindex="0"
    >
      <span
        v-if="row.result && !row.result.met"
        aria-hidden="true"
      >
        ▲
      </span>
      {{ row.name }}
      <span
        v-if="row.unsure && row.aim"
        class="quiet unsure"
      >
        {{ text.aims.unsure }}
      </span>
    </span>
    <span
      v-if="typed(row.aim) !== null && row.aim"
      class="want"
    >
      <input
        type="text"
        inputmode="decimal"
        class="figures"
        :title="row.aim.want.kind === 'level' && row.aim.want.bound ? text.aims[row.aim.want.bound] : undefined"
        :value="draft ?? typed(row.aim)"
        :aria-label="text.aims.wanted(row.name)"
        @input="draft = ($event.target as HTMLInputElement).value"
        @change="type(row.aim, $event)"
        @keydown.enter.stop="($event.target as HTMLInputElement).blur()"
      />
      {{ unitOf(row.aim)
      }}{{ row.aim.want.kind === 'level' && row.aim.want.bound ? ` ${text.aims[row.aim.want.bound]}` : '' }}
    </span>
    <span
      v-else-if="row.aim"
      class="want quiet"
    >
      {{
        row.aim.want.kind === 'neutral'
          ? text.aims.neutral
          : goalsOf(row.aim.want)
              .map((g) => printQuantity(g.quantity, g.value))
              .join(' · ')
      }}
    </span>
    <span
      v-else
      class="evidence quiet"
    >
      {{ row.evidence }}
    </span>
    <span
      v-if="row.result"
      class="figures result"
    >
      <span class="quiet">{{ before(row.result) }}</span>
      {{ after(row.result) }}
    </span>
    <button
      v-if="row.aim"
      type="button"
      class="drop"
      :aria-label="text.aims.drop(row.name)"
      @click="store.drop(row.id)"
    >
      ×
    </button>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 24px minmax(70px, auto) auto minmax(0, 1fr) 24px;
  gap: var(--gap-small);
  align-items: center;
  min-height: 24px;
  border-bottom: var(--line) solid var(--raised);
}
.refused {
  opacity: 0.6;
}
.name {
  white-space: nowrap;
}
.unsure {
  margin-left: var(--gap-small);
  font-size: 11px;
}
.evidence {
  grid-column: 3 / -1;
  font-size: 11px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.result {
  grid-column: 4;
  text-align: right;
  font-size: 11px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.want {
  grid-column: 3;
  white-space: nowrap;
  font-size: 11px;
}
.want input {
  width: 52px;
  background: var(--well);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  text-align: right;
  padding: 0 4px;
}
.drop {
  grid-column: 5;
  background: none;
  border: 0;
  border-radius: var(--radius);
  font-size: 11px;
  padding: 0;
  min-width: 24px;
  min-height: 24px;
}
input[type='checkbox'] {
  accent-color: var(--accent);
  margin: 0 auto;
  width: 14px;
  height: 14px;
}
.unmet .name {
  color: var(--warning);
}
</style>
