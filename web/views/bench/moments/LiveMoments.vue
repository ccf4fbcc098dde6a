<script setup lang="ts">
// Three moments of the shot beside the picture: lead, darkest and brightest, through the grade while a control moves.
import { computed } from 'vue'
import { clipRange } from '../readings/clip-extremes'
import { useBench } from '../session/bench'
import { text } from '../text'
import MomentPicture from './MomentPicture.vue'
import { useLiveMoments, type Moment } from './useLiveMoments'

const bench = useBench()
const { shot, first, trace, whole, aspect } = bench
/** Darkest and brightest are told by the trace of the clip, which knows the grade: they come when that does. */
const moments = computed<readonly Moment[]>(() => {
  if (!shot.value) return []
  const middle = clipRange('middle', trace.traces.value, first.value)
  return [
    { id: 'lead', frame: shot.value.leadFrame },
    ...(middle
      ? ([
          { id: 'darkest', frame: middle.low.frame },
          { id: 'brightest', frame: middle.high.frame },
        ] as const)
      : []),
  ]
})
const { images } = useLiveMoments(() =>
  shot.value && whole.value ? { mediaHash: shot.value.media.hash, grade: whole.value, moments: moments.value } : null,
)
</script>

<template>
  <ol
    v-if="shot"
    class="moments"
    :aria-label="text.liveMoments.title"
    data-testid="live-moments"
  >
    <li
      v-for="{ id, frame } in moments"
      :key="id"
    >
      <button
        type="button"
        :data-moment="id"
        :data-tip="text.liveMoments.tip"
        @click="bench.go(frame)"
      >
        <MomentPicture
          :image="images.get(id) ?? null"
          :aspect="aspect"
        />
        <span class="figures">{{ text.liveMoments.names[id] }} · {{ frame - first }}</span>
      </button>
    </li>
  </ol>
</template>

<style scoped>
.moments {
  list-style: none;
  margin: 0;
  padding: 0;
  width: 148px;
  display: grid;
  align-content: start;
  gap: var(--gap-small);
  overflow: auto;
}
button {
  display: grid;
  gap: 2px;
  width: 100%;
  padding: 2px;
  background: none;
  border: var(--line) solid transparent;
  border-radius: var(--radius);
  text-align: left;
  font-size: var(--text-small);
}
button:hover {
  border-color: var(--accent);
}
</style>
