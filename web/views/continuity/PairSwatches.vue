<script setup lang="ts">
// Swatch pairs that a person laid side by side, and what would show them alike.
import { computed } from 'vue'
import { ElButton } from 'element-plus'
import { cutTo } from '@core/names'
import { useGrade } from '../../stores/grade'
import { nameOfReference, type Reference } from './held'
import { css } from './patch-mean'
import { text } from './text'
import type { Pair } from './usePair'

const props = defineProps<{ pair: Pair; reference: Reference }>()
const emit = defineEmits<{ pairing: [] }>()
const grade = useGrade()
const { pairing, pairs, answer, asking, possible, remove, ask } = props.pair.swatches
const { swatches: words } = text
function toggle(): void {
  pairing.value = !pairing.value
  if (pairing.value) emit('pairing')
}
const shown = computed(() =>
  pairs.value.map((p, i) => ({ ...p, number: i + 1, found: answer.value?.surfaces?.find((s) => s.id === p.id) })),
)
const label = (number: number, found: { before: number; after: number } | undefined): string =>
  found ? words.pair(number, found.before.toFixed(1), found.after.toFixed(1)) : words.remove(number)
const choice = computed(() => answer.value?.choices.find((c) => c.changes.length > 0) ?? null)
function take(): void {
  const { value: taken } = choice
  if (!taken) return
  // It was worked out for what is saved: an edit made since then is not overwritten.
  if (answer.value?.headId !== grade.revision?.headId || grade.saveState !== 'saved') return void ask()
  grade.edit(cutTo(words.summary(nameOfReference(props.reference)), 400), () => taken.grade, {
    kind: 'matched',
    aims: [cutTo(`${taken.name}: ${taken.sentence}`, 200)],
    ...(props.reference.kind === 'shot' ? { from: props.reference.shot.headId } : {}),
  })
}
</script>

<template>
  <div
    class="swatches"
    role="group"
    :aria-label="words.title"
    data-testid="swatch-pairs"
  >
    <div class="row">
      <button
        type="button"
        class="button"
        :data-tip="possible ? words.tip : words.mapped"
        :aria-pressed="pairing"
        :disabled="!possible"
        @click="toggle"
      >
        {{ words.begin }}
      </button>
      <ul v-if="shown.length">
        <li
          v-for="p in shown"
          :key="p.id"
        >
          <button
            type="button"
            :aria-label="`${label(p.number, p.found)}. ${words.remove(p.number)}`"
            :data-tip="label(p.number, p.found)"
            @click="remove(p.id)"
          >
            <span :style="{ background: css(p.seen) }" />
            <span :style="{ background: p.found ? css(p.found.shown.before) : undefined }" />
          </button>
        </li>
      </ul>
      <span
        v-else-if="pairing"
        class="quiet"
      >
        {{ words.none }}
      </span>
    </div>
    <p
      v-if="asking"
      role="status"
    >
      {{ words.working }}
    </p>
    <template v-else-if="answer">
      <p role="status">{{ answer.note }}</p>
      <template v-if="choice">
        <p class="figures quiet">{{ choice.changes.join(' · ') }}</p>
        <div>
          <ElButton
            size="small"
            type="primary"
            :data-tip="text.matchTip"
            @click="take"
          >
            {{ text.take }}
          </ElButton>
        </div>
      </template>
    </template>
  </div>
</template>

<style scoped>
.swatches {
  display: grid;
  gap: var(--gap-small);
  border-top: var(--line) solid var(--hairline);
  padding-top: var(--gap-small);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap);
  align-items: center;
}
p {
  margin: 0;
}
ul {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  margin: 0;
  padding: 0;
}
li button {
  display: grid;
  width: 24px;
  height: 28px;
  padding: 0;
  border: var(--line) solid var(--hairline);
  background: none;
}
li span + span {
  border-top: var(--line) solid var(--well);
}
li button:hover {
  border-color: var(--accent);
}
</style>
