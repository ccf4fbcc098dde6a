<script setup lang="ts">
// Readings as rows: sign, name, number, target. A row opens its reading.
import { printValue, readingKey as keyOf, readingKind, unitForm, type Reading } from '@core/readings'
import type { ClipWorst, OverClip } from '../../../composables/useReadings'
import { text } from '../text'
import { standingOf, targetLabel, type Standing } from './standing'

const props = defineProps<{
  rows: readonly Reading[]
  /** Keys of readings that are ignored, with a reason. */ waived: ReadonlySet<string>
  clip: OverClip
  fresh: boolean
}>()
const emit = defineEmits<{ open: [key: string] }>()

const standing = (r: Reading): Standing => standingOf(r, props.waived)
const value = (r: Reading): string => printValue(r.value, readingKind(r.id).unit)
const unit = (r: Reading): string => unitForm(readingKind(r.id).unit).after
/** Where in the clip a reading lies furthest outside, when that is further than here. */
const worse = (r: Reading): ClipWorst | null => {
  const found = props.clip.worst.get(keyOf(r))
  return found && found.reading.weight > r.weight + 1e-6 ? found : null
}
/** Its evidence, or else what it is, and that it is worse elsewhere: two sentences, the rest is one click away. */
function tipOf(r: Reading): string {
  const sentences = (r.detail || readingKind(r.id).tip).split(/(?<=[.!?])\s+(?=[A-Z])/)
  return (worse(r) ? [...sentences.slice(0, 1), text.worseElsewhere] : sentences.slice(0, 2)).join(' ')
}
</script>

<template>
  <ol :class="{ stale: !fresh }">
    <li
      v-for="r in rows"
      :key="keyOf(r)"
    >
      <button
        :data-tip="tipOf(r)"
        type="button"
        :class="standing(r)"
        :data-reading="r.id"
        @click="emit('open', keyOf(r))"
      >
        <span
          class="sign"
          aria-hidden="true"
        >
          {{ { off: '▲', waived: '–', met: '·', note: r.alarm ? '▲' : '·' }[standing(r)] }}
        </span>
        <span class="name">
          {{ r.name }}
          <span
            v-if="standing(r) === 'waived'"
            class="quiet"
          >
            {{ text.waived }}
          </span>
        </span>
        <span class="more quiet">{{ r.detail }}</span>
        <span class="figures">
          {{ value(r) }}
          <span class="quiet">{{ unit(r) }}</span>
        </span>
        <span class="figures quiet wants">{{ worse(r) ? '⇥ ' : '' }}{{ targetLabel(r) }}</span>
      </button>
    </li>
  </ol>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 2px 0 0;
  padding: 0;
}
ol.stale {
  opacity: 0.55;
}
li button {
  display: grid;
  grid-template-columns: 14px auto minmax(0, 1fr) auto 44px;
  gap: var(--gap-small);
  width: 100%;
  align-items: center;
  text-align: left;
  background: none;
  border: 0;
  border-bottom: var(--line) solid var(--raised);
  padding: 0;
  height: 24px;
  font-size: 12px;
}
li button:hover {
  background: var(--veil);
}
.sign {
  color: var(--ink-quiet);
}
.off .sign,
.off .name {
  color: var(--warning);
}
.more {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 11px;
}
.name {
  white-space: nowrap;
}
.wants {
  font-size: 10px;
  text-align: right;
  white-space: nowrap;
  overflow: hidden;
}
</style>
