<script setup lang="ts">
// What would lie outside the standard: each with a reason to leave it so, to be changed and ignored in one act.
import { computed, reactive } from 'vue'
import type { OutsideReading } from '@contracts/responses'
import { waivableKey as key, waivedKeys } from '@core/readings'
import { leftOutside, type ProposalEntry } from '../../stores/proposals'
import { text } from './text'

const props = defineProps<{ entry: ProposalEntry; outside: readonly OutsideReading[] }>()
const emit = defineEmits<{ ignore: [outside: readonly OutsideReading[]] }>()
/** The reasons as a person left them. */
const own = reactive<Record<string, string>>({})
const reasonFor = (one: OutsideReading): string => own[key(one)] ?? one.reason
const ignored = computed(() => waivedKeys(props.entry.ignored))
const left = computed(() => leftOutside(props.entry).map((one) => ({ ...one, reason: reasonFor(one).trim() })))
const allHaveReasons = computed(() => left.value.every(({ reason }) => reason !== ''))
function ignore(): void {
  if (allHaveReasons.value) emit('ignore', left.value)
}
</script>

<template>
  <p v-if="outside.length === 0">{{ text.within }}</p>
  <form
    v-else
    data-testid="outside-reasons"
    @submit.prevent="ignore"
  >
    <div
      v-for="one in outside"
      :key="key(one)"
      class="one"
    >
      <span :class="{ off: !ignored.has(key(one)) }">{{ ignored.has(key(one)) ? '' : '▲ ' }}{{ one.sentence }}</span>
      <span
        v-if="ignored.has(key(one))"
        class="quiet"
      >
        {{ text.ignored(ignored.get(key(one)) ?? '') }}
      </span>
      <input
        v-else
        type="text"
        class="field"
        maxlength="300"
        :value="reasonFor(one)"
        :placeholder="text.reason"
        :aria-label="`${one.sentence} ${text.reason}`"
        @input="own[key(one)] = ($event.target as HTMLInputElement).value"
      />
    </div>
    <button
      v-if="left.length > 0"
      type="submit"
      class="button"
      :data-tip="text.ignoreTip"
      :disabled="!allHaveReasons"
    >
      {{ entry.state === 'proposed' ? text.acceptAndIgnore : text.ignore }}
    </button>
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: auto minmax(180px, 1fr) auto;
  gap: 2px var(--gap);
  align-items: center;
}
.one {
  display: contents;
}
p {
  margin: 0;
}
.off {
  color: var(--warning);
}
button {
  grid-column: 3;
  grid-row: 1;
}
</style>
