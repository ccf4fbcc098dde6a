<script setup lang="ts">
// One reading in full: its sentence, why it matters, where it rests, and waiving it with a reason.
import { ref } from 'vue'
import { proposalWords, type Aim } from '@core/aims'
import { overlays } from '@core/instruments'
import { hasPixels, readingKind, type Reading } from '@core/readings'
import type { Waiver } from '@contracts/responses'
import { text } from '../text'

defineProps<{
  reading: Reading
  waiver: Waiver | null
  clip: string
  worstFrame: number | null
  /** Its pixels are lit in the picture. */ lit: boolean
  /** The aim it proposes. */ proposal: Aim | null
}>()
const emit = defineEmits<{ close: []; go: [frame: number]; area: []; aim: []; waive: [reason: string | null] }>()
const reason = ref('')
function waive(): void {
  const words = reason.value.trim()
  if (words) emit('waive', words)
  reason.value = ''
}
</script>

<template>
  <div
    class="detail"
    data-testid="reading-detail"
  >
    <p>
      <button
        type="button"
        class="button"
        @click="emit('close')"
      >
        ‹ {{ text.allReadings }}
      </button>
      {{ ' ' }}
      <strong>{{ reading.sentence }}</strong>
    </p>
    <p class="quiet">{{ readingKind(reading.id).why }} {{ readingKind(reading.id).tip }} {{ clip }}</p>
    <p class="tools">
      <button
        v-if="proposal"
        type="button"
        class="button propose"
        @click="emit('aim')"
      >
        {{ proposalWords(proposal) }}
      </button>
      <button
        v-if="reading.area || hasPixels(reading.id) || overlays.some((o) => o.id === reading.id)"
        type="button"
        class="button"
        :aria-pressed="lit"
        @click="emit('area')"
      >
        {{ lit ? text.showNoMore : text.showWhere }}
      </button>
      <button
        v-if="worstFrame !== null"
        type="button"
        class="button"
        data-testid="go-worst"
        @click="emit('go', worstFrame)"
      >
        {{ text.goWorst }}
      </button>
      <span
        v-if="reading.confidence < 0.995"
        class="quiet"
      >
        {{ text.sure(reading.confidence) }}
      </span>
    </p>
    <form
      v-if="!waiver"
      @submit.prevent="waive"
    >
      <input
        v-model="reason"
        type="text"
        class="field"
        maxlength="300"
        :placeholder="text.waiveReason"
        :aria-label="text.waiveReason"
      />
      <button
        type="submit"
        class="button"
        :disabled="reason.trim() === ''"
      >
        {{ text.waive }}
      </button>
    </form>
    <p
      v-else
      class="tools"
    >
      <span>{{ text.waivedBecause(waiver.reason) }}</span>
      {{ ' ' }}
      <button
        type="button"
        class="button"
        @click="emit('waive', null)"
      >
        {{ text.takeUp }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.detail {
  display: grid;
  gap: var(--gap-small);
  align-content: start;
  font-size: 12px;
}
p {
  margin: 0;
}
strong {
  font-weight: 500;
}
.tools,
form {
  display: flex;
  gap: var(--gap);
  align-items: center;
}
input {
  flex: 1;
}
</style>
