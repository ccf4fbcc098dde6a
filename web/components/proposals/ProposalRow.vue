<script setup lang="ts">
// One shot's proposal: before and after, what is said of it, its choices, and what becomes of it.
import { computed } from 'vue'
import type { OutsideReading } from '@contracts/responses'
import { thumbnailAddress } from '../../api/thumbnail'
import { openPlaces, useProposals, type ProposalEntry } from '../../stores/proposals'
import PictureInTurn from '../PictureInTurn.vue'
import OutsideReasons from './OutsideReasons.vue'
import PlacedOutlines from './PlacedOutlines.vue'
import { text as words } from './text'

const props = defineProps<{ entry: ProposalEntry }>()
const emit = defineEmits<{ accept: []; edit: []; ignore: [outside: readonly OutsideReading[]] }>()
const store = useProposals()
const before = ({ shot, proposal }: ProposalEntry): string =>
  thumbnailAddress({
    revisionId: proposal?.headId ?? shot.headId,
    frame: shot.leadFrame,
    as: 'graded',
    firstFrame: shot.firstFrame,
    frameCount: shot.frameCount,
  })
/** It rests on nothing sure, or something would be lost: it is accepted by itself or not at all. */
const unsure = computed(() => props.entry.state === 'proposed' && !store.sure.includes(props.entry))
const sentence = ({ proposal, at }: ProposalEntry): string =>
  (at === 0 ? proposal?.note : proposal?.choices[at]?.sentence) ?? ''
</script>

<template>
  <li
    :data-proposal="entry.shot.name"
    :data-state="entry.state"
  >
    <PictureInTurn
      v-if="entry.proposal && entry.state === 'proposed'"
      :src="before(entry)"
      :alt="words.before(entry.shot.name)"
    />
    <div
      v-if="entry.proposal && entry.state === 'proposed'"
      class="after"
      :class="{ large: entry.proposal.places?.length }"
      :style="{ '--aspect': `${entry.shot.media.width} / ${entry.shot.media.height}` }"
    >
      <PictureInTurn
        :src="store.pictureOf(entry)"
        :alt="words.after(entry.shot.name)"
      />
      <PlacedOutlines
        v-if="entry.proposal.places?.length"
        :entry="entry"
      />
    </div>
    <div class="said">
      <strong>{{ entry.shot.name }}</strong>
      <span class="quiet">
        {{ unsure ? words.unsure(entry.proposal?.choices[0]?.id !== 'tone') : words.states[entry.state] }}
      </span>
      <p
        v-if="entry.fault"
        class="off"
      >
        ▲ {{ entry.fault }}
      </p>
      <template v-if="entry.proposal && entry.state !== 'failed'">
        <p>{{ sentence(entry) }}</p>
        <p
          v-if="entry.state === 'proposed' && openPlaces(entry).length"
          class="off"
        >
          ▲ {{ words.open(openPlaces(entry).length) }}
        </p>
        <OutsideReasons
          v-if="entry.proposal.outside && entry.state !== 'refused' && entry.state !== 'undone'"
          :entry="entry"
          :outside="entry.proposal.outside"
          @ignore="emit('ignore', $event)"
        />
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
        class="button"
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
          class="button go"
          @click="emit('accept')"
        >
          {{ words.accept }}
        </button>
        <button
          type="button"
          class="button"
          :data-tip="words.editTip"
          @click="emit('edit')"
        >
          {{ words.edit }}
        </button>
        <button
          type="button"
          class="button"
          @click="store.refuse(entry.shot.id)"
        >
          {{ words.refuse }}
        </button>
      </template>
      <button
        v-else-if="entry.state === 'failed'"
        type="button"
        class="button"
        @click="store.ask(entry.shot.id)"
      >
        {{ words.again }}
      </button>
    </div>
  </li>
</template>

<style scoped>
.acts,
.choices {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
}
.choices {
  flex-wrap: wrap;
}
strong {
  font-weight: 500;
}
.go:enabled {
  border-color: var(--accent);
  color: var(--accent);
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
.after {
  position: relative;
  flex: none;
  display: flex;
}
/* Outlines are to be seen and held. */
.large img {
  width: min(320px, calc(220px * (var(--aspect))));
  aspect-ratio: var(--aspect);
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
