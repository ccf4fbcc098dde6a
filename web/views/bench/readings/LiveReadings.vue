<script setup lang="ts">
// The numbers that follow the hand: levels, losses and balance of every pixel, each against its target.
import { computed } from 'vue'
import type { FrameTrace } from '@core/instruments'
import { verdictOf, type HouseStandard, type ReadingId } from '@core/readings'
import type { PictureFacts } from '../../../workers/messages'
import { percent, readingsOf, sharePercent } from '../figures'
import { text } from '../text'
import { clipRange, worstOf } from './clip-extremes'

const props = defineProps<{
  facts: PictureFacts | null
  standard: HouseStandard
  traces: readonly (FrameTrace | undefined)[]
  first: number
  waived: ReadonlySet<string>
  /** Readings whose target the scene itself makes senseless. */ spared: ReadonlySet<string>
}>()
const emit = defineEmits<{ go: [frame: number]; open: [id: ReadingId] }>()

const judged: Partial<Record<string, (f: PictureFacts) => number>> = {
  black: (f) => f.black,
  middle: (f) => f.middle,
  white: (f) => f.white,
  clipped: (f) => f.clippedShare,
  crushed: (f) => f.crushedShare,
}
interface Standing {
  readonly words: string
  readonly met: boolean
}
function standing(id: string): Standing | null {
  const of = judged[id]
  const target = props.standard.targets[id as ReadingId]
  if (!props.facts || !of || !target) return null
  if (props.waived.has(id)) return { words: text.waived, met: true }
  if (props.spared.has(id)) return { words: text.notAsked, met: true }
  const verdict = verdictOf(of(props.facts), target)
  const form = id === 'clipped' || id === 'crushed' ? sharePercent : percent
  return verdict && { words: text.wanted(form(target.low), form(target.high), verdict), met: verdict === 'met' }
}
/** The worst frame of the clip, where that lies outside while this one may not. */
function elsewhere(id: string): { readonly words: string; readonly frame: number } | null {
  const range = clipRange(id as ReadingId, props.traces, props.first)
  const worst = range && worstOf(range, props.standard.targets[id as ReadingId])
  if (!worst || props.waived.has(id) || props.spared.has(id)) return null
  return {
    words: text.worstAt(
      (id === 'clipped' || id === 'crushed' ? sharePercent : percent)(worst.value),
      worst.frame - props.first,
    ),
    frame: worst.frame,
  }
}
const readings = computed(() =>
  props.facts
    ? readingsOf(props.facts).map((r) => ({ ...r, standing: standing(r.id), elsewhere: elsewhere(r.id) }))
    : [],
)
const opens = (id: string): boolean => id in judged
</script>

<template>
  <dl class="live">
    <div
      v-for="r in readings"
      :key="r.id"
      class="row"
      :class="{ wide: r.id === 'balance' }"
    >
      <dt>
        <button
          :data-tip="text.readingTips[r.id]"
          type="button"
          :disabled="!opens(r.id)"
          @click="emit('open', r.id as ReadingId)"
        >
          {{ text.readingNames[r.id] }}
        </button>
      </dt>
      <dd class="figures">
        <span
          v-if="r.standing"
          class="standing"
          :class="{ off: !r.standing.met }"
          :data-testid="`standing-${r.id}`"
        >
          {{ r.standing.words }}
        </span>
        <button
          v-if="r.elsewhere"
          :data-tip="`${r.elsewhere.words} ${text.goThere}`"
          type="button"
          class="elsewhere"
          :aria-label="`${r.elsewhere.words} ${text.goThere}`"
          :data-testid="`worst-${r.id}`"
          @click="emit('go', r.elsewhere.frame)"
        >
          ⇥
        </button>
        <span
          class="value"
          :class="{ out: r.standing && !r.standing.met }"
          :data-testid="`reading-${r.id}`"
        >
          {{ r.value }}
          <span
            v-if="r.unit"
            class="quiet"
          >
            {{ r.unit }}
          </span>
        </span>
      </dd>
    </div>
  </dl>
</template>

<style scoped>
.live {
  display: grid;
  grid-template-columns: 1fr 1fr;
  column-gap: var(--gap-wide);
  margin: 0;
}
.row {
  display: flex;
  align-items: center;
  gap: var(--gap-small);
  border-bottom: var(--line) solid var(--raised);
  min-width: 0;
  height: 24px;
  overflow: hidden;
}
dt {
  flex: none;
}
dt button {
  background: none;
  border: 0;
  padding: 0;
  min-height: 24px;
  min-width: 24px;
}
dt button:enabled:hover {
  color: var(--accent);
}
dd {
  margin: 0;
  flex: 1;
  display: flex;
  align-items: center;
  justify-content: flex-end;
  gap: var(--gap-small);
  white-space: nowrap;
  min-width: 0;
  font-size: 12px;
}
.standing {
  color: var(--ink-quiet);
  font-size: 10px;
  letter-spacing: -0.03em;
  overflow: hidden;
  text-overflow: ellipsis;
  flex: 1;
  text-align: left;
}
.standing.off {
  color: var(--warning);
}
.value {
  flex: none;
}
.elsewhere {
  background: none;
  border: 0;
  color: var(--warning);
  padding: 0;
  min-width: 24px;
  min-height: 24px;
  margin: 0 -6px;
}
@media (max-width: 1100px) {
  /* Three figures need a whole line; what comes after them fills the place beside the others. */
  .live {
    grid-auto-flow: row dense;
  }
  .wide {
    grid-column: 1 / -1;
  }
  .standing {
    display: none;
  }
  .value.out {
    color: var(--warning);
  }
  dd {
    font-size: 11px;
    letter-spacing: -0.04em;
  }
}
</style>
