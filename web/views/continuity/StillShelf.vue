<script setup lang="ts">
// The shelf: stills of the project with their grade and notes, to hold a shot against or to carry to it.
import { computed, ref } from 'vue'
import type { ShotSummary, Still } from '@contracts/responses'
import { thumbnailAddress } from '../../api/thumbnail'
import EmptyState from '../../components/EmptyState.vue'
import PictureInTurn from '../../components/PictureInTurn.vue'
import { choosePictures } from '../../composables/pictureFile'
import { useStills } from '../../stores/stills'
import { text } from './text'

const props = defineProps<{
  /** Of what stills are kept, and what they are carried to. */
  chosen: { readonly shot: ShotSummary; readonly frame: number } | null
  heldId: string | null
  attempt: (work: () => Promise<void>) => Promise<void>
}>()
const emit = defineEmits<{ hold: [still: Still]; carry: [still: Still]; keep: []; fault: [words: string] }>()
const stills = useStills()
const words = text.shelf
const find = ref('')
const shown = computed(() => {
  const wanted = find.value.trim().toLowerCase()
  return stills.all.filter((s) => `${s.name} ${s.notes} ${s.from?.name ?? ''}`.toLowerCase().includes(wanted))
})
const picture = (still: Still): string =>
  still.from ? thumbnailAddress({ ...still.from, as: 'graded' }) : `/api/stills/${still.id}/picture`
const valueOf = (event: Event): string => (event.target as HTMLInputElement).value.trim()
function rename(still: Still, event: Event): void {
  const name = valueOf(event)
  if (name !== '' && name !== still.name) void props.attempt(() => stills.change(still.id, { name }))
}
function note(still: Still, event: Event): void {
  void props.attempt(() => stills.change(still.id, { notes: valueOf(event) }))
}
function bring(): void {
  choosePictures(false, ([file]) => {
    if (file)
      void props.attempt(() =>
        stills.bring(file).catch((error: unknown) => {
          if (error instanceof DOMException) throw new Error(words.notAPicture(file.name))
          throw error
        }),
      )
  })
}
</script>

<template>
  <section
    class="shelf"
    :aria-label="words.title"
  >
    <div class="tools">
      <button
        type="button"
        class="button"
        :data-tip="words.keepTip"
        :disabled="!chosen"
        @click="emit('keep')"
      >
        {{ words.keep }}
      </button>
      <button
        type="button"
        class="button"
        @click="bring"
      >
        {{ words.bring }}
      </button>
    </div>
    <EmptyState
      v-if="stills.all.length === 0"
      :hint="words.none"
    />
    <template v-else>
      <input
        v-model="find"
        type="search"
        class="find"
        :placeholder="words.find"
        :aria-label="words.find"
      />
      <EmptyState
        v-if="shown.length === 0"
        :hint="words.noneFound"
      >
        <button
          type="button"
          class="button"
          @click="find = ''"
        >
          {{ words.showAll }}
        </button>
      </EmptyState>
    </template>
    <ul tabindex="-1">
      <li
        v-for="still in shown"
        :key="still.id"
        :data-still="still.name"
        :class="{ held: still.id === heldId }"
      >
        <button
          type="button"
          class="picture"
          :aria-label="`${words.hold}: ${still.name}`"
          :aria-pressed="still.id === heldId"
          @click="emit('hold', still)"
        >
          <PictureInTurn
            :src="picture(still)"
            alt=""
          />
        </button>
        <input
          class="name"
          :value="still.name"
          maxlength="80"
          :aria-label="words.name"
          @change="rename(still, $event)"
        />
        <input
          class="quiet"
          :value="still.notes"
          maxlength="400"
          :placeholder="words.notes"
          :aria-label="words.notes"
          @change="note(still, $event)"
        />
        <span class="tools">
          <button
            v-if="still.from"
            type="button"
            class="button"
            :data-tip="words.applyTip"
            :disabled="!chosen"
            @click="emit('carry', still)"
          >
            {{ words.apply }}
          </button>
          <button
            type="button"
            class="button"
            @click="attempt(() => stills.remove(still.id))"
          >
            {{ words.remove }}
          </button>
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.shelf {
  display: grid;
  gap: var(--gap-small);
  align-content: start;
  min-height: 0;
  overflow: auto;
  font-size: 12px;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-small);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--gap);
}
li {
  display: grid;
  gap: var(--gap-hair);
}
.picture {
  padding: 0;
  border: 0;
  background: none;
  display: block;
}
.picture :deep(img) {
  display: block;
  width: 100%;
  aspect-ratio: 16 / 9;
  object-fit: contain;
  background: var(--well);
}
.held .picture {
  outline: 2px solid var(--accent);
}
input {
  width: 100%;
  min-height: var(--control);
  padding: 0 var(--gap-small);
  background: none;
  border: var(--line) solid transparent;
  border-radius: var(--radius);
}
input:hover,
input:focus,
.find {
  border-color: var(--hairline);
  background: var(--well);
}
</style>
