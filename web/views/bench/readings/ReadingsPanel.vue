<script setup lang="ts">
// The readings: live numbers, then what stands out most, ranked; each opens to its sentence, its why, its place and its
// waiver.
import { computed, ref, watch } from 'vue'
import { aimOfReading, type Aim } from '@core/aims'
import type { DrawnPart, FrameTrace } from '@core/instruments'
import {
  isReadingId,
  isSpared,
  outside,
  printValue,
  readingKey as keyOf,
  readingKind,
  unitForm,
  type Area,
  type HouseStandard,
  type Reading,
  type ReadingId,
} from '@core/readings'
import type { ShotDetail } from '@contracts/responses'
import type { OverClip } from '../../../composables/useReadings'
import type { PictureFacts } from '../../../workers/messages'
import { isAsked } from '../../../components/first-reading/asked'
import { percent, sharePercent } from '../figures'
import { text } from '../text'
import type { PartAim } from '../useAiming'
import { clipRange } from './clip-extremes'
import LiveReadings from './LiveReadings.vue'
import PartBar from './PartBar.vue'
import ReadingDetail from './ReadingDetail.vue'
import ReadingList from './ReadingList.vue'
import NextStep from './NextStep.vue'
import ReadingsHead from './ReadingsHead.vue'
import { nextStep } from './next-step'
import { mostHelpfulFirst } from './standing'

const props = defineProps<{
  facts: PictureFacts | null
  partFacts: PictureFacts | null
  part: DrawnPart | null
  readings: readonly Reading[]
  clip: OverClip
  fresh: boolean
  fault: string
  standard: HouseStandard
  shot: ShotDetail
  traces: readonly (FrameTrace | undefined)[]
  partFault: string
  card: Area | null
  /** The reading whose pixels are lit. */ lit: string
  /** The aims stand here instead of the list. */ aiming: boolean
  aimCount: number
  /** Where a remembered colour is from. */ remembered: string
}>()
const emit = defineEmits<{
  go: [frame: number]
  area: [reading: Reading]
  aim: [aim: Aim]
  aiming: [on: boolean]
  partAim: [what: PartAim]
  waive: [reading: Reading, reason: string | null]
  card: []
  noCard: []
  subject: [name: string, fresh: boolean]
  clear: []
  read: []
  shot: []
}>()

/** Shown live above the list. */
const live: ReadonlySet<ReadingId> = new Set(['black', 'middle', 'white', 'clipped', 'crushed'])
const open = ref<string | null>(null)
const all = ref(false)
const waivers = computed(
  () => new Map(props.shot.waivers.map((w) => [w.subject ? `${w.reading} ${w.subject}` : w.reading, w])),
)
const waivedIds = computed(() => new Set([...waivers.value.keys()]))
const spared = computed(() => new Set(props.readings.filter((r) => isSpared(r, props.standard)).map((r) => r.id)))
const ranked = computed(() => props.readings.filter((r) => !live.has(r.id)))
const off = computed(() => outside(props.readings).filter((r) => !waivedIds.value.has(keyOf(r))))
const mostRows = 2
const next = computed(() => nextStep(off.value, isAsked(props.shot), props.fresh))
/** What helps: what lies outside, then alarms, then a little of what is met. */
const rows = computed(() =>
  all.value ? props.readings : mostHelpfulFirst(ranked.value, waivedIds.value).slice(0, mostRows),
)
const opened = computed(() => props.readings.find((r) => keyOf(r) === open.value) ?? null)
watch(
  () => props.shot.id,
  () => {
    open.value = null
  },
)
const proposal = computed(() => opened.value && aimOfReading(opened.value, props.card))
const value = (r: Reading): string => printValue(r.value, readingKind(r.id).unit)
const unit = (r: Reading): string => unitForm(readingKind(r.id).unit).after
const clipWords = computed(() => {
  const r = opened.value
  const id = r?.id
  const range = id && isReadingId(id) ? clipRange(id, props.traces, props.shot.firstFrame) : null
  const form = id === 'clipped' || id === 'crushed' ? sharePercent : percent
  if (range)
    return text.overClip(
      form(range.low.value),
      range.low.frame - props.shot.firstFrame,
      form(range.high.value),
      range.high.frame - props.shot.firstFrame,
    )
  const found = r && props.clip.worst.get(keyOf(r))
  return found
    ? text.worstOver(
        props.clip.seen,
        props.clip.all,
        value(found.reading),
        unit(found.reading),
        found.frame - props.shot.firstFrame,
      )
    : ''
})
</script>

<template>
  <section
    class="readings"
    :class="{ all }"
    :aria-label="text.readings"
    @keydown.esc="all = false"
  >
    <ReadingsHead
      :standard="standard"
      :clip="clip"
      :off="off.length"
      :fresh="fresh"
      :aiming="aiming"
      :aim-count="aimCount"
      :all="all"
      @aiming="emit('aiming', $event)"
      @all="all = $event"
    />
    <PartBar
      v-if="part || partFault"
      :part="part"
      :facts="partFacts"
      :subjects="shot.subjects"
      :fault="partFault"
      :has-card="shot.card !== null"
      :remembered="remembered"
      @card="emit('card')"
      @no-card="emit('noCard')"
      @subject="(name, fresh) => emit('subject', name, fresh)"
      @clear="emit('clear')"
      @aim="emit('partAim', $event)"
    />
    <slot
      v-if="aiming"
      name="aims"
    />
    <ReadingDetail
      v-else-if="opened"
      :reading="opened"
      :waiver="waivers.get(keyOf(opened)) ?? null"
      :clip="clipWords"
      :worst-frame="clip.worst.get(keyOf(opened))?.frame ?? null"
      :lit="lit === keyOf(opened)"
      :proposal="proposal"
      @close="open = null"
      @area="emit('area', opened)"
      @aim="proposal && emit('aim', proposal)"
      @waive="emit('waive', opened, $event)"
      @go="emit('go', $event)"
    />
    <template v-else>
      <LiveReadings
        v-if="!all"
        :facts="facts"
        :standard="standard"
        :traces="traces"
        :first="shot.firstFrame"
        :waived="waivedIds"
        :spared="spared"
        @go="emit('go', $event)"
        @open="open = $event"
      />
      <ReadingList
        :rows="rows"
        :waived="waivedIds"
        :clip="clip"
        :fresh="fresh"
        @open="open = $event"
      />
      <NextStep
        v-if="next && !all && !part"
        :next="next"
        :last-shot="shot.nextShotId === null"
        @read="emit('read')"
        @open="open = $event"
        @shot="emit('shot')"
      />
      <p
        v-if="fault"
        class="fault"
        role="alert"
      >
        ▲ {{ fault }}
      </p>
    </template>
  </section>
</template>

<style scoped>
.readings {
  position: relative;
  padding: var(--gap-small) var(--gap-wide);
  border-left: var(--line) solid var(--hairline);
  min-height: 0;
  overflow: hidden auto;
  background: var(--panel);
}
.readings:not(.all) {
  contain: size layout style;
  will-change: transform;
}
.readings.all {
  position: absolute;
  right: 0;
  bottom: 0;
  width: 560px;
  max-width: 100%;
  max-height: 100%;
  overflow: auto;
  border: var(--line) solid var(--hairline-strong);
  z-index: 3;
}
.fault {
  margin: 0;
  color: var(--warning);
}
</style>
