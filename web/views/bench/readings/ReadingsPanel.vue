<script setup lang="ts">
// The readings: live numbers, then what stands out most, ranked; each opens to its sentence, its why, its place and its
// waiver.
import { computed, ref, watch } from 'vue'
import { aimOfReading, type Aim } from '@core/aims'
import type { DrawnPart, FrameTrace } from '@core/instruments'
import {
  isReadingId,
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
import type { ClipWorst, OverClip } from '../../../composables/useReadings'
import type { PictureFacts } from '../../../workers/messages'
import { percent, sharePercent } from '../figures'
import { text } from '../text'
import type { PartAim } from '../useAiming'
import { clipRange } from './clip-extremes'
import LiveReadings from './LiveReadings.vue'
import PartBar from './PartBar.vue'
import ReadingDetail from './ReadingDetail.vue'

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
}>()

/** Shown live above the list. */
const live: ReadonlySet<ReadingId> = new Set(['black', 'middle', 'white', 'clipped', 'crushed'])
const open = ref<string | null>(null)
const all = ref(false)
const waivers = computed(
  () => new Map(props.shot.waivers.map((w) => [w.subject ? `${w.reading} ${w.subject}` : w.reading, w])),
)
const waivedIds = computed(() => new Set([...waivers.value.keys()]))
const spared = computed(
  () => new Set(props.readings.filter((r) => r.target === null && props.standard.targets[r.id]).map((r) => r.id)),
)
const standing = (r: Reading): 'off' | 'waived' | 'met' | 'note' => {
  if (waivers.value.has(keyOf(r))) return 'waived'
  if (r.weight > 0) return 'off'
  if (r.verdict === 'met') return 'met'
  return 'note'
}
const ranked = computed(() => props.readings.filter((r) => !live.has(r.id)))
const off = computed(() => outside(props.readings).filter((r) => !waivers.value.has(keyOf(r))))
const mostRows = computed(() => (props.part ? 2 : 3))
/** What helps: what lies outside, then alarms, then a little of what is met. */
const rows = computed(() =>
  all.value ? props.readings : [...ranked.value].sort((a, b) => order(b) - order(a)).slice(0, mostRows.value),
)
const order = (r: Reading): number => {
  if (standing(r) === 'off') return 3
  if (r.alarm) return 2
  if (standing(r) === 'met' && r.id !== 'neutrals') return 0
  return 1
}
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
function wants({ id, target }: Reading): string {
  if (!target) return ''
  // There is little room: no zeros behind the point.
  const { unit: of } = readingKind(id)
  const short = (v: number): string => {
    const shown = printValue(v, of)
    return shown.includes('.') ? shown.replace(/\.?0+$/, '') : shown
  }
  const high = short(target.high)
  if (target.low === -target.high) return `± ${high}`
  return target.low === 0 && id !== 'black' ? `≤ ${high}` : `${short(target.low)}–${high}`
}
/** Where in the clip a reading lies furthest outside, when that is further than here. */
const worse = (r: Reading): ClipWorst | null => {
  const found = props.clip.worst.get(keyOf(r))
  return found && found.reading.weight > r.weight + 1e-6 ? found : null
}
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
    <h2>
      <span
        class="tabs"
        role="group"
        :aria-label="text.readings"
      >
        <button
          type="button"
          class="caps"
          :aria-pressed="!aiming"
          @click="emit('aiming', false)"
        >
          {{ text.readings }}
        </button>
        <button
          type="button"
          class="caps"
          :aria-pressed="aiming"
          data-testid="aims-tab"
          @click="emit('aiming', true)"
        >
          {{ text.aims.title }}{{ aimCount ? ` ${aimCount}` : '' }}
        </button>
      </span>
      <RouterLink
        class="quiet"
        :to="{ name: 'standards', params: { standardId: standard.id } }"
      >
        {{ standard.name }}
      </RouterLink>
      <span
        v-if="clip.seen > 0 && clip.seen < clip.all"
        :data-tip="text.lookingThrough(clip.seen, clip.all)"
        class="quiet figures seen"
        data-testid="clip-seen"
      >
        {{ clip.seen }}/{{ clip.all }}
      </span>
      <span
        class="count figures"
        :class="{ off: off.length > 0 }"
        role="status"
        data-testid="outside"
      >
        {{ fresh ? text.outside(off.length) : text.measuring }}
      </span>
      <button
        type="button"
        :aria-expanded="all"
        @click="all = !all"
      >
        {{ all ? text.fewer : text.allReadings }}
      </button>
    </h2>
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
      <ol :class="{ stale: !fresh }">
        <li
          v-for="r in rows"
          :key="keyOf(r)"
        >
          <button
            :data-tip="worse(r) ? `${r.sentence} ${text.worseElsewhere}` : r.sentence"
            type="button"
            :class="standing(r)"
            :data-reading="r.id"
            @click="open = keyOf(r)"
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
            <span class="figures quiet wants">{{ worse(r) ? '⇥ ' : '' }}{{ wants(r) }}</span>
          </button>
        </li>
      </ol>
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
h2 {
  font-size: var(--text);
  font-weight: 400;
  display: flex;
  gap: var(--gap);
  align-items: center;
  min-height: 24px;
}
.tabs {
  display: flex;
  gap: 2px;
}
.tabs button {
  border-color: transparent;
  color: var(--ink-quiet);
  padding: 0 4px;
  min-height: 24px;
}
.tabs [aria-pressed='true'] {
  color: var(--ink);
  border-bottom-color: var(--accent);
  border-radius: 0;
}
h2 button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  font-size: 11px;
  padding: 0 6px;
  min-height: 20px;
}
.count {
  flex: 1;
  text-align: right;
  font-size: 11px;
  color: var(--ink-quiet);
}
.seen {
  font-size: 11px;
}
.count.off {
  color: var(--warning);
}
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
  align-items: baseline;
  text-align: left;
  background: none;
  border: 0;
  border-bottom: var(--line) solid var(--raised);
  padding: 0;
  height: 20px;
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
.fault {
  margin: 0;
  color: var(--warning);
}
</style>
