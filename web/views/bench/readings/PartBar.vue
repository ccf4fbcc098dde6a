<script setup lang="ts">
// What the measured part is: its numbers, and saying what lies there: a grey card, or a subject.
import { ref } from 'vue'
import type { DrawnPart } from '@core/instruments'
import type { SubjectSummary } from '@contracts/responses'
import type { PictureFacts } from '../../../workers/messages'
import { percent } from '../figures'
import type { PartAim } from '../useAiming'
import { text } from '../text'

const props = defineProps<{
  part: DrawnPart | null
  facts: PictureFacts | null
  subjects: readonly SubjectSummary[]
  fault: string
  hasCard: boolean
  /** Where a remembered colour is from; empty without one. */ remembered: string
}>()
const emit = defineEmits<{
  card: []
  aim: [what: PartAim]
  subject: [name: string, fresh: boolean]
  clear: []
  noCard: []
}>()
const naming = ref(false)
const name = ref('')
function choose(event: Event): void {
  const select = event.target as HTMLSelectElement
  const { value } = select
  select.value = ''
  if (value === 'new') naming.value = true
  else if (value) emit('subject', props.subjects.find((s) => s.id === value)?.name ?? '', false)
}
function aim(event: Event): void {
  const select = event.target as HTMLSelectElement
  const what = select.value as PartAim
  select.value = ''
  emit('aim', what)
}
function keep(): void {
  const words = name.value.trim()
  if (words) emit('subject', words, true)
  naming.value = false
  name.value = ''
}
</script>

<template>
  <div
    class="part-bar"
    data-testid="part-bar"
  >
    <span
      v-if="facts"
      class="figures numbers"
    >
      {{ text.partFacts(percent(facts.middle), percent(facts.chroma * 2), facts.hueDegrees.toFixed(0)) }}
    </span>
    <form
      v-if="naming"
      @submit.prevent="keep"
    >
      <input
        v-model="name"
        maxlength="60"
        :placeholder="text.subjectName"
        :aria-label="text.subjectName"
        autofocus
      />
      <button
        type="submit"
        :disabled="name.trim() === ''"
      >
        {{ text.keep }}
      </button>
      <button
        type="button"
        @click="naming = false"
      >
        {{ text.cancel }}
      </button>
    </form>
    <template v-else>
      <button
        type="button"
        :title="text.cardTip"
        :disabled="!part"
        @click="emit('card')"
      >
        {{ text.isCard }}
      </button>
      <select
        :title="text.subjectTip"
        :disabled="!part"
        value=""
        :aria-label="text.isSubject"
        @change="choose"
      >
        <option
          value=""
          disabled
        >
          {{ text.isSubject }}
        </option>
        <option
          v-for="s in subjects"
          :key="s.id"
          :value="s.id"
        >
          {{ s.name }}
        </option>
        <option value="new">{{ text.newSubject }}</option>
      </select>
      <select
        :title="text.aims.partTip"
        :disabled="!part"
        value=""
        :aria-label="text.aims.partTip"
        @change="aim"
      >
        <option
          value=""
          disabled
        >
          {{ text.aims.part }}
        </option>
        <option value="neutral">{{ text.aims.partNeutral }}</option>
        <option value="grey">{{ text.aims.partGrey }}</option>
        <option value="black">{{ text.aims.partBlack }}</option>
        <option value="white">{{ text.aims.partWhite }}</option>
        <option
          value="remember"
          :disabled="!facts"
        >
          {{ text.aims.remember }}
        </option>
        <option
          v-if="remembered"
          value="same"
        >
          {{ text.aims.same(remembered).toLowerCase() }}
        </option>
      </select>
      <button
        v-if="hasCard"
        type="button"
        @click="emit('noCard')"
      >
        {{ text.noCard }}
      </button>
      <button
        type="button"
        @click="emit('clear')"
      >
        {{ text.clearPart }}
      </button>
    </template>
    <span
      v-if="fault"
      class="fault"
      role="alert"
    >
      ▲ {{ fault }}
    </span>
  </div>
</template>

<style scoped>
.part-bar {
  display: flex;
  align-items: center;
  gap: var(--gap-small);
  min-height: 26px;
  white-space: nowrap;
  overflow: hidden;
  font-size: 12px;
}
/* As wide as their first word: the numbers need the room, and a list that is open shows all of its words. */
select {
  max-width: 88px;
}
.numbers {
  font-size: 11px;
  overflow: hidden;
  text-overflow: ellipsis;
}
form {
  display: flex;
  gap: var(--gap-small);
  flex: 1;
}
input {
  flex: 1;
  min-width: 60px;
}
input,
button,
select {
  background: var(--well);
  color: var(--ink);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  min-height: var(--control);
  padding: 0 6px;
  font-size: 12px;
}
button:hover:enabled {
  border-color: var(--accent);
}
.fault {
  color: var(--warning);
}
</style>
