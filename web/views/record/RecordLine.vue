<script setup lang="ts">
// One revision: what it changed, why, when and by whom; naming it, comparing it, going back to it.
import { computed, ref } from 'vue'
import type { RecordEntry } from '@contracts/responses'
import PictureInTurn from '../../components/PictureInTurn.vue'
import { text, timeOf } from './text'

const props = defineProps<{
  entry: RecordEntry
  /** It is the present one. */
  here: boolean
  /** It does not lie on the way to the present one. */
  off: boolean
  place: string
  names: readonly string[]
  still: string
  /** It is the first of two that are compared. */
  chosen: boolean
  /** Its name is being typed. */
  naming: boolean
}>()
const emit = defineEmits<{ name: [name: string]; naming: [open: boolean]; compare: []; back: [] }>()
const name = ref('')

/** "Balance for me: Card at 0.00 stops". */
const reason = computed(() => {
  const { why } = props.entry
  const kind = text.why[why?.kind ?? 'hand'] ?? text.why['hand'] ?? ''
  return why?.aims?.length ? `${kind}: ${why.aims.join('; ')}` : kind
})
function give(): void {
  const wanted = name.value.trim()
  if (!wanted) return
  emit('name', wanted)
  emit('naming', false)
  name.value = ''
}
</script>

<template>
  <li
    :class="{ here, off }"
    :data-revision="entry.depth"
  >
    <PictureInTurn
      :src="still"
      :alt="text.still(entry.depth)"
      width="96"
      height="54"
    />
    <div class="what">
      <p>
        <span class="figures quiet">{{ entry.depth }}</span>
        {{ ' ' }}
        <strong>{{ entry.summary }}</strong>
        {{ ' ' }}
        <span
          v-for="n in names"
          :key="n"
          class="tag"
        >
          {{ n }}
        </span>
        <span
          v-if="place"
          class="quiet small"
        >
          {{ place }}
        </span>
      </p>
      <p
        v-if="entry.changes.length"
        class="figures small"
      >
        {{ entry.changes.join(' · ') }}
      </p>
      <p class="quiet small">{{ timeOf(entry.at) }} · {{ entry.actor }} · {{ reason }}</p>
    </div>
    <form
      v-if="naming"
      @submit.prevent="give"
    >
      <input
        v-model="name"
        class="field"
        maxlength="60"
        :placeholder="text.namePlaceholder"
        :aria-label="text.namePlaceholder"
        autofocus
      />
      <button
        type="submit"
        class="button"
        :disabled="name.trim() === ''"
      >
        {{ text.keep }}
      </button>
      <button
        type="button"
        class="button"
        @click="emit('naming', false)"
      >
        {{ text.cancel }}
      </button>
    </form>
    <div
      v-else
      class="tools"
    >
      <button
        :data-tip="text.nameTip"
        type="button"
        class="button"
        @click="emit('naming', true)"
      >
        {{ text.name }}
      </button>
      <button
        :data-tip="text.compareTip"
        type="button"
        class="button"
        :aria-pressed="chosen"
        @click="emit('compare')"
      >
        {{ chosen ? text.comparing(entry.depth) : text.compare }}
      </button>
      <button
        :data-tip="text.backTip"
        type="button"
        class="button"
        :disabled="here"
        @click="emit('back')"
      >
        {{ text.back }}
      </button>
    </div>
  </li>
</template>

<style scoped src="./record.css"></style>
