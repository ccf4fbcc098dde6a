<script setup lang="ts">
// The targets of a standard, a row for every reading that can have one: whether it counts, from, to, tolerance.
import {
  printValue,
  readingKinds,
  unitForm,
  type ReadingId,
  type ReadingKind,
  type Target,
  type Targets,
} from '@core/readings'
import { text } from './text'

const props = defineProps<{ targets: Targets; fixed: boolean }>()
const emit = defineEmits<{ change: [targets: Targets] }>()
const kinds = readingKinds.filter((k) => k.targeted)
const columns = ['low', 'high', 'tolerance'] as const
const names = { low: text.from, high: text.to, tolerance: text.tolerance } as const

/** What a reading is given when it begins to count. */
const initial = ({ unit }: ReadingKind): Target => {
  if (unit === 'percent') return { low: 0, high: 1, tolerance: 0.001 }
  if (unit === 'pixels') return { low: 0, high: 0.01, tolerance: 0 }
  return { low: 0, high: 5, tolerance: 0 }
}
function count(kind: ReadingKind, on: boolean): void {
  const { [kind.id]: _, ...rest } = props.targets
  emit('change', on ? { ...rest, [kind.id]: initial(kind) } : rest)
}
function set(kind: ReadingKind, field: keyof Target, event: Event): void {
  const input = event.target as HTMLInputElement
  const target = props.targets[kind.id]
  const value = Number(input.value.trim().replace('−', '-').replace(',', '.'))
  if (!target || input.value.trim() === '' || !Number.isFinite(value))
    input.value = target ? shown(kind.id, target[field]) : ''
  else emit('change', { ...props.targets, [kind.id]: { ...target, [field]: value / unitForm(kind.unit).scale } })
}
const shown = (id: ReadingId, value: number): string => {
  const kind = readingKinds.find((k) => k.id === id)
  return kind ? printValue(value, kind.unit) : ''
}
</script>

<template>
  <table>
    <thead>
      <tr>
        <th class="caps">{{ text.counts }}</th>
        <th class="caps">{{ text.reading }}</th>
        <th
          v-for="c in columns"
          :key="c"
          class="caps number"
        >
          {{ names[c] }}
        </th>
        <th class="caps">{{ text.unit }}</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="k in kinds"
        :key="k.id"
        :class="{ quiet: !targets[k.id] }"
        :data-row="k.id"
      >
        <td>
          <input
            type="checkbox"
            :checked="targets[k.id] !== undefined"
            :disabled="fixed"
            :aria-label="text.countsTip(k.name)"
            @change="count(k, ($event.target as HTMLInputElement).checked)"
          />
        </td>
        <th scope="row">
          <span
            :data-tip="`${k.tip} ${k.why}`"
            tabindex="0"
          >
            {{ k.name }}
          </span>
        </th>
        <td
          v-for="c in columns"
          :key="c"
          class="number"
        >
          <input
            v-if="targets[k.id]"
            type="text"
            inputmode="decimal"
            class="field figures"
            :value="shown(k.id, targets[k.id]![c])"
            :disabled="fixed"
            :aria-label="`${k.name}, ${names[c]}`"
            @change="set(k, c, $event)"
          />
        </td>
        <td class="quiet">{{ unitForm(k.unit).after }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: 1px var(--gap);
  border-bottom: var(--line) solid var(--raised);
  height: 27px;
}
thead th {
  color: var(--ink-quiet);
}
tbody th,
td {
  white-space: nowrap;
}
.number {
  text-align: right;
}
input[type='text'] {
  width: 84px;
  text-align: right;
}
input[type='text']:disabled {
  background: none;
  border-color: transparent;
}
input[type='checkbox'] {
  width: 16px;
  height: 16px;
  accent-color: var(--accent);
}
@media (max-width: 1100px) {
  input[type='text'] {
    width: 64px;
  }
}
</style>
