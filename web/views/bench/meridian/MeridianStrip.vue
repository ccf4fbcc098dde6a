<script setup lang="ts">
// The Meridian: percentile lines of luma from station to station. A station opens at a click, is left out while it is
// held, and has its strength at its foot.
import { computed } from 'vue'
import { stations, type StationId } from '@core/grade'
import { mergesOf, type Meridian } from '@core/instruments'
import { sharePercent } from '../figures'
import { text } from '../text'
import { lineNames } from './meridian-paths'
import MeridianLines from './MeridianLines.vue'
import StationStrength from './StationStrength.vue'

const props = defineProps<{
  meridian: Meridian | null
  part: Meridian | null
  station: StationId
  asShot: boolean
  strengths: Readonly<Partial<Record<StationId, number>>>
  bypassed: StationId | null
  lossesOf: StationId | null
  /** Only the names of the stations and what they lost. */
  folded: boolean
}>()
const emit = defineEmits<{
  open: [id: StationId]
  bypass: [id: StationId | null]
  strength: [id: StationId, value: number]
  losses: [id: StationId | null]
}>()

const merges = computed(() => (props.meridian ? mergesOf(props.meridian) : []))

interface Standing {
  readonly words: string
  /** Where its lines run together, or else where its middle tone stands. */
  readonly note: string
  readonly lossTip: string
  readonly lost: boolean
}
/** What each station lost for good, and where the middle tone stands after it. */
const standings = computed<readonly Standing[]>(() =>
  (props.meridian?.stations ?? []).map(({ station, loss, levels: at }) => {
    const share = loss.clipped + loss.crushed + loss.outOfGamut
    const lost = share >= 0.0005
    const run = merges.value
      .filter((m) => m.station === station)
      .map((m) => `${lineNames[m.lines[0]] ?? ''} and ${lineNames[m.lines[1]] ?? ''} %`)
    return {
      words: lost ? text.lost((share * 100).toFixed(1)) : text.noLoss,
      note: run.length > 0 ? text.merged(run.join(', ')) : text.middleAt(((at[3] ?? 0) * 100).toFixed(1)),
      lossTip: text.lossTip(sharePercent(loss.clipped), sharePercent(loss.crushed), sharePercent(loss.outOfGamut)),
      lost,
    }
  }),
)

const holdMs = 260
let timer: ReturnType<typeof setTimeout> | undefined
let held = false
function press(id: StationId, event: PointerEvent): void {
  held = false
  // What does nothing cannot be left out.
  if (event.button !== 0 || props.strengths[id] === undefined) return
  timer = setTimeout(() => {
    held = true
    emit('bypass', id)
  }, holdMs)
}
function letGo(): void {
  clearTimeout(timer)
  if (props.bypassed) emit('bypass', null)
}
function click(id: StationId): void {
  // A hold is no click.
  if (!held) emit('open', id)
  held = false
}
</script>

<template>
  <section
    class="meridian"
    aria-label="Meridian"
  >
    <MeridianLines
      v-if="!folded"
      :meridian="meridian"
      :part="part"
      :faded="asShot"
    />
    <div
      class="stations"
      role="tablist"
      aria-label="Stations"
    >
      <div
        v-for="(s, i) in stations"
        :key="s.id"
        class="station"
        :class="{ here: s.id === station, out: s.id === bypassed }"
      >
        <button
          :data-tip="`${s.tip} ${standings[i]?.note ?? ''}`"
          type="button"
          role="tab"
          class="open"
          :aria-selected="s.id === station"
          :data-station="s.id"
          @click="click(s.id)"
          @pointerdown="press(s.id, $event)"
          @pointerup="letGo"
          @pointerleave="letGo"
          @pointercancel="letGo"
        >
          <span class="caps">{{ s.name }}</span>
          <span
            v-if="s.id === bypassed"
            class="figures loss lost"
          >
            {{ text.leftOut }}
          </span>
        </button>
      </div>
    </div>
    <!-- A list of tabs holds tabs alone: what else stands on a station lies over it. -->
    <div class="stations beside">
      <div
        v-for="(s, i) in stations"
        :key="s.id"
        class="on"
      >
        <button
          v-if="s.id !== bypassed"
          :data-tip="standings[i]?.lossTip"
          type="button"
          class="figures loss"
          :class="{ lost: standings[i]?.lost, lit: lossesOf === s.id }"
          :disabled="!standings[i]?.lost"
          :aria-label="text.lossOf(s.name, standings[i]?.words ?? '')"
          :aria-pressed="lossesOf === s.id"
          :data-loss="s.id"
          @click="emit('losses', lossesOf === s.id ? null : s.id)"
        >
          {{ standings[i]?.words ?? '' }}
        </button>
        <StationStrength
          v-if="!folded && strengths[s.id] !== undefined"
          :name="s.name"
          :model-value="strengths[s.id] ?? 1"
          @update:model-value="emit('strength', s.id, $event)"
        />
      </div>
    </div>
  </section>
</template>

<style scoped>
.meridian {
  position: relative;
  background: var(--panel);
  border-block: var(--line) solid var(--hairline);
  min-height: 0;
  contain: size layout style;
}
.stations {
  position: absolute;
  inset: 0;
  display: grid;
  grid-template-columns: repeat(8, 1fr);
}
.station {
  position: relative;
  border-right: var(--line) solid var(--hairline);
  min-width: 0;
}
.beside {
  pointer-events: none;
}
.beside :deep(.loss),
.beside :deep(.strength) {
  pointer-events: auto;
}
.on {
  position: relative;
  min-width: 0;
}
.open {
  position: absolute;
  inset: 0;
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
  text-align: left;
  background: none;
  border: 0;
  padding: 4px var(--gap);
  cursor: pointer;
}
.station:hover,
.station.here {
  background: var(--veil);
}
.station.here .caps {
  color: var(--accent);
}
.station.here::before {
  content: '';
  position: absolute;
  inset: 0 0 auto;
  height: 2px;
  background: var(--accent);
}
.station.out {
  background: repeating-linear-gradient(135deg, transparent 0 6px, var(--veil) 6px 12px);
}
.open:focus-visible {
  outline-offset: -3px;
}
.loss {
  position: absolute;
  right: 2px;
  top: 0;
  min-height: 24px;
  min-width: 24px;
  background: none;
  border: 0;
  padding: 0 var(--gap-small);
  font-size: 10px;
  color: var(--ink-quiet);
}
.open .loss {
  position: static;
  min-height: 0;
}
.loss.lost {
  color: var(--ink);
  text-decoration: underline;
  text-decoration-color: var(--warning);
  text-underline-offset: 3px;
}
.loss.lit {
  background: var(--accent);
  color: var(--ink-on-accent);
}
</style>
