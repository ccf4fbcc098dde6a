<script setup lang="ts">
// What is proposed for the chosen shots: a list of before and after, to accept, open on the Bench or refuse, one by one
// or all.
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { OutsideReading } from '@contracts/responses'
import { useProposals, type ProposalEntry } from '../../stores/proposals'
import ProposalRow from './ProposalRow.vue'
import { text } from './text'

const emit = defineEmits<{ done: [] }>()
const store = useProposals()
const router = useRouter()
const words = text
const title = computed(() => {
  const { asked } = store
  switch (asked.kind) {
    case 'balance':
      return words.balanceTitle
    case 'first-pass':
      return words.firstPassTitle([...new Set([...asked.heroOf.values()].map((s) => s.name))])
    case 'match':
      return words.matchTitle(asked.reference.name)
    case 'carry':
      return words.carryTitle(asked.kept?.name ?? asked.reference.name)
  }
})

async function accept(id: string): Promise<void> {
  await store.accept(id)
  emit('done')
}
async function acceptAll(): Promise<void> {
  await store.acceptAll()
  emit('done')
}
async function undoAll(): Promise<void> {
  await store.undoAll()
  emit('done')
}
async function ignore(id: string, outside: readonly OutsideReading[]): Promise<void> {
  await store.ignore(id, outside)
  emit('done')
}
async function edit({ shot }: ProposalEntry): Promise<void> {
  await store.accept(shot.id)
  await router.push({ name: 'bench', params: { shotId: shot.id }, query: { station: 'level' } })
}
</script>

<template>
  <section
    class="proposals"
    data-testid="proposals"
    :aria-label="title"
  >
    <div class="bar">
      <strong>{{ title }}</strong>
      <span
        class="space figures quiet"
        role="status"
      >
        {{ words.progress(store.done, store.entries.length, store.undecided.length) }}
      </span>
      <button
        v-if="store.running"
        type="button"
        class="button"
        @click="store.cancel"
      >
        {{ text.cancel }}
      </button>
      <button
        type="button"
        class="button go"
        :disabled="store.sure.length === 0"
        @click="acceptAll"
      >
        {{ words.acceptAll(store.sure.length) }}
      </button>
      <button
        v-if="store.changed.length"
        type="button"
        class="button"
        :data-tip="words.undoAllTip"
        @click="undoAll"
      >
        {{ words.undoAll(store.changed.length) }}
      </button>
      <button
        type="button"
        class="button"
        @click="store.close"
      >
        {{ words.close }}
      </button>
    </div>
    <ul>
      <ProposalRow
        v-for="entry in store.entries"
        :key="entry.shot.id"
        :entry="entry"
        @accept="accept(entry.shot.id)"
        @edit="edit(entry)"
        @ignore="ignore(entry.shot.id, $event)"
      />
    </ul>
  </section>
</template>

<style scoped>
.proposals {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: var(--gap);
  max-height: 55vh;
  padding: var(--gap);
  background: var(--panel);
  border: var(--line) solid var(--hairline-strong);
  font-size: 12px;
  flex: none;
}
.bar {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
}
.space {
  flex: 1;
  text-align: right;
}
strong {
  font-weight: 500;
}
.go:enabled {
  border-color: var(--accent);
  color: var(--accent);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  overflow: auto;
}
</style>
