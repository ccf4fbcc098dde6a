<script setup lang="ts">
// What is proposed for the chosen shots: a list of before and after, to accept, open on the Bench or refuse, one by one
// or all.
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import PictureInTurn from '../../components/PictureInTurn.vue'
import { thumbnailAddress } from '../../api/thumbnail'
import { useProposals, type ProposalEntry } from '../../stores/proposals'
import { text } from './text'

const emit = defineEmits<{ done: [] }>()
const store = useProposals()
const router = useRouter()
const words = text.proposals
const title = computed(() =>
  store.asked.kind === 'match' ? words.matchTitle(store.asked.reference.name) : words.balanceTitle,
)

const before = ({ shot, proposal }: ProposalEntry): string =>
  thumbnailAddress({
    revisionId: proposal?.headId ?? shot.headId,
    frame: shot.leadFrame,
    as: 'graded',
    firstFrame: shot.firstFrame,
    frameCount: shot.frameCount,
  })
const sentence = ({ proposal, at }: ProposalEntry): string =>
  (at === 0 ? proposal?.note : proposal?.choices[at]?.sentence) ?? ''

async function accept(id: string): Promise<void> {
  await store.accept(id)
  emit('done')
}
async function acceptAll(): Promise<void> {
  await store.acceptAll()
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
        {{ words.progress(store.done, store.entries.length, store.open.length) }}
      </span>
      <button
        v-if="store.running"
        type="button"
        @click="store.cancel"
      >
        {{ text.cancel }}
      </button>
      <button
        type="button"
        class="go"
        :disabled="store.open.length === 0"
        @click="acceptAll"
      >
        {{ words.acceptAll(store.open.length) }}
      </button>
      <button
        type="button"
        @click="store.close"
      >
        {{ words.close }}
      </button>
    </div>
    <ul>
      <li
        v-for="entry in store.entries"
        :key="entry.shot.id"
        :data-proposal="entry.shot.name"
        :data-state="entry.state"
      >
        <PictureInTurn
          v-if="entry.proposal && entry.state === 'proposed'"
          :src="before(entry)"
          :alt="words.before(entry.shot.name)"
        />
        <PictureInTurn
          v-if="entry.proposal && entry.state === 'proposed'"
          :src="store.pictureOf(entry)"
          :alt="words.after(entry.shot.name)"
        />
        <div class="said">
          <strong>{{ entry.shot.name }}</strong>
          <span class="quiet">{{ words.states[entry.state] }}</span>
          <p
            v-if="entry.fault"
            class="off"
          >
            ▲ {{ entry.fault }}
          </p>
          <template v-else-if="entry.proposal">
            <p>{{ sentence(entry) }}</p>
            <p class="figures quiet">{{ entry.proposal.choices[entry.at]?.changes.join(' · ') }}</p>
          </template>
        </div>
        <div
          v-if="entry.state === 'proposed' && (entry.proposal?.choices.length ?? 0) > 1"
          class="choices"
          role="group"
          :aria-label="words.choices(entry.shot.name)"
        >
          <button
            v-for="(choice, i) in entry.proposal?.choices"
            :key="choice.id"
            type="button"
            :aria-pressed="entry.at === i"
            @click="store.look(entry.shot.id, i)"
          >
            {{ choice.name }}
          </button>
        </div>
        <div class="acts">
          <template v-if="entry.state === 'proposed'">
            <button
              type="button"
              class="go"
              @click="accept(entry.shot.id)"
            >
              {{ words.accept }}
            </button>
            <button
              type="button"
              :data-tip="words.editTip"
              @click="edit(entry)"
            >
              {{ words.edit }}
            </button>
            <button
              type="button"
              @click="store.refuse(entry.shot.id)"
            >
              {{ words.refuse }}
            </button>
          </template>
          <button
            v-else-if="entry.state === 'failed'"
            type="button"
            @click="store.ask(entry.shot.id)"
          >
            {{ words.again }}
          </button>
        </div>
      </li>
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
.bar,
.acts,
.choices {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
}
.choices {
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
li {
  display: flex;
  gap: var(--gap-wide);
  align-items: center;
  padding: var(--gap-small) 0;
  border-top: var(--line) solid var(--hairline);
}
img {
  width: 160px;
  aspect-ratio: 16 / 9;
  object-fit: contain;
  background: var(--well);
  flex: none;
}
.said {
  flex: 1;
  min-width: 0;
}
.said > strong {
  margin-right: var(--gap);
}
p {
  margin: 0;
}
.off {
  color: var(--warning);
}
</style>
