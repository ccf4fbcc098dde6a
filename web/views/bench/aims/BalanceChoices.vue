<script setup lang="ts">
// The choices of Balance for me: small pictures side by side, each with its sentence; one key takes one.
import { computed, nextTick, ref, watch } from 'vue'
import { putImage } from '../../../composables/putImage'
import { useBalance } from '../../../stores/balance'
import { text } from '../text'

const store = useBalance()
const pictures = ref<HTMLCanvasElement[]>([])
watch(
  () => store.choices,
  async (choices) => {
    await nextTick()
    choices.forEach(({ picture }, i) => {
      const canvas = pictures.value[i]
      if (canvas) putImage(canvas, picture)
    })
  },
  { immediate: true },
)
/** Of the choice that is looked at: what it rests on and what it moves. */
const words = computed(() => {
  const choice = store.choices[store.at]
  if (!choice) return store.answer?.note ?? ''
  const why = store.at === 0 ? (store.answer?.note ?? '') : choice.sentence
  const checking = store.checking ? [text.balance.checking] : []
  return [...checking, why, ...choice.moves.map((m) => m.words)].join(' · ')
})
</script>

<template>
  <div
    class="balance"
    data-testid="balance"
    :data-checked="!store.asking && !store.checking"
    role="group"
    :aria-label="text.balance.title"
  >
    <p class="note">
      <span role="status">
        <template v-if="store.fault">▲ {{ store.fault }}</template>
        <template v-else-if="store.asking">{{ text.balance.asking }}</template>
        <template v-else>{{ words }}</template>
      </span>
      <button
        type="button"
        @click="store.close"
      >
        {{ text.balance.discard }}
      </button>
    </p>
    <ol :class="{ four: store.choices.length > 3 }">
      <li
        v-for="(choice, i) in store.choices"
        :key="choice.id"
      >
        <button
          type="button"
          class="choice"
          :class="{ looked: store.at === i }"
          :aria-pressed="store.at === i"
          :data-choice="choice.id"
          :data-tip="text.balance.choiceTip"
          @mouseenter="store.look(i)"
          @focus="store.look(i)"
          @click="store.take(i)"
        >
          <canvas
            ref="pictures"
            aria-hidden="true"
          />
          <span class="name">
            <kbd>{{ i + 1 }}</kbd>
            {{ choice.name }}
          </span>
        </button>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.balance {
  display: grid;
  gap: var(--gap-small);
}
.note {
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: var(--gap);
  margin: 0;
  min-height: 2.6em;
  color: var(--ink-quiet);
  font-size: var(--text-small);
  line-height: 1.3;
}
.note button {
  flex: none;
  padding: 0 var(--gap-small);
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  color: var(--ink);
  font-size: var(--text-small);
  min-height: 24px;
}
ol {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: var(--gap);
  margin: 0;
  padding: 0;
  list-style: none;
}
ol.four {
  grid-template-columns: repeat(auto-fit, minmax(72px, 1fr));
}
.choice {
  display: grid;
  gap: var(--gap-hair);
  width: 100%;
  padding: var(--gap-hair);
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  color: inherit;
  text-align: left;
}
.choice.looked {
  border-color: var(--ink);
}
.name {
  font-size: var(--text-small);
}
canvas {
  display: block;
  width: 100%;
  aspect-ratio: 16 / 9;
  object-fit: contain;
}
</style>
