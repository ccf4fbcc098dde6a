<script setup lang="ts">
// The present grade and the versions of a shot side by side, each with what sets it apart from the present one.
import { shallowRef, watch } from 'vue'
import { differences, type GradeDocument } from '@core/grade'
import type { VersionSummary } from '@contracts/responses'
import PictureInTurn from '../../components/PictureInTurn.vue'
import { text } from './text'

const props = defineProps<{
  versions: readonly VersionSummary[]
  headId: string
  still: (revisionId: string) => string
  load: (revisionId: string) => Promise<GradeDocument>
}>()
const emit = defineEmits<{ back: [revisionId: string]; fault: [error: unknown] }>()
interface Apart {
  readonly id: string
  readonly name: string
  readonly words: readonly string[]
}
const shown = shallowRef<readonly Apart[]>([])
watch(
  () => [props.headId, props.versions] as const,
  async ([headId, versions]) => {
    try {
      const present = await props.load(headId)
      const apart = await Promise.all(
        versions.map(async (v) => ({
          id: v.revisionId,
          name: v.name,
          words:
            v.revisionId === headId ? [] : differences(present, await props.load(v.revisionId)).map((d) => d.words),
        })),
      )
      if (props.headId === headId) shown.value = [{ id: headId, name: text.present, words: [] }, ...apart]
    } catch (error) {
      emit('fault', error)
    }
  },
  { immediate: true },
)
</script>

<template>
  <section
    class="grid"
    :aria-label="text.grid"
    data-testid="version-grid"
  >
    <figure
      v-for="(v, i) in shown"
      :key="`${v.id} ${v.name}`"
      :data-version="v.name"
    >
      <PictureInTurn
        :src="still(v.id)"
        :alt="v.name"
        width="384"
        height="216"
      />
      <figcaption>
        <p>
          <strong>{{ v.name }}</strong>
          {{ ' ' }}
          <button
            v-if="v.id !== headId"
            type="button"
            @click="emit('back', v.id)"
          >
            {{ text.back }}
          </button>
        </p>
        <p
          v-if="i > 0"
          class="figures quiet"
        >
          {{ v.words.join(' · ') || text.asPresent }}
        </p>
      </figcaption>
    </figure>
  </section>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  gap: var(--gap-wide);
  align-content: start;
  overflow: auto;
  min-height: 0;
  padding-bottom: var(--gap-wide);
}
figure {
  margin: 0;
}
img {
  display: block;
  width: 100%;
  height: auto;
  object-fit: contain;
  background: var(--well);
}
p {
  margin: var(--gap-small) 0 0;
  font-size: 12px;
}
strong {
  font-weight: 500;
}
button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 2px 8px;
  min-height: var(--control);
  font-size: 12px;
  margin-left: var(--gap);
}
button:hover {
  border-color: var(--accent);
}
</style>
