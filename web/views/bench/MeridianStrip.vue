<script setup lang="ts">
// The Meridian: percentile lines of luma from station to station, across the width; a station opens at a click.
import { computed } from 'vue'
import { stations, type Meridian, type StationId } from '@core/index'
import HelpTip from '../../components/HelpTip.vue'
import { sharePercent } from './figures'
import { text } from './text'

const props = defineProps<{ meridian: Meridian | null; station: StationId; asShot: boolean }>()
defineEmits<{ open: [id: StationId] }>()

const width = stations.length * 100
const height = 100
// From a little under black to one and a tenth: working log before Show, display signal from Show on.
const low = -0.04
const high = 1.06
const y = (level: number): number => height - ((Math.min(high, Math.max(low, level)) - low) / (high - low)) * height

/** One path per percentile: level in each station's second half, eased over its first half. */
const levels = computed(() => {
  const m = props.meridian
  if (!m) return []
  return m.asShot.map((start, line) => [start, ...m.stations.map((s) => s.levels[line] ?? start)])
})
const paths = computed(() => levels.value.map((list) => {
  let d = `M 0 ${y(list[0] ?? 0)}`
  list.slice(1).forEach((level, i) => {
    const x = i * 100, before = y(list[i] ?? 0)
    d += ` L ${x + 10} ${before} C ${x + 35} ${before} ${x + 30} ${y(level)} ${x + 55} ${y(level)} L ${x + 100} ${y(level)}`
  })
  return d
}))
const bands = computed(() => {
  const area = (a: number, b: number): string => {
    const upper = paths.value[b], lower = paths.value[a]
    return upper && lower ? `${upper} L ${width} ${height} L 0 ${height} Z ${lower} L ${width} ${height} L 0 ${height} Z` : ''
  }
  return [area(1, 5), area(2, 4)]
})
const names = ['0.1', '1', '10', '50', '90', '99', '99.9']
const labels = computed(() => levels.value.map((list, i) => ({ name: names[i] ?? '', at: y(list.at(-1) ?? 0) })).filter((_, i) => i === 0 || i === 3 || i === 6))
interface Standing { readonly words: string; readonly tip: string; readonly lost: boolean }
/** What each station lost for good, and where the middle tone stands after it. */
const standings = computed<readonly Standing[]>(() => (props.meridian?.stations ?? []).map(({ loss, levels: at }) => {
  const share = loss.clipped + loss.crushed + loss.outOfGamut, lost = share >= 0.0005
  const detail = share > 0 ? text.lossDetail(sharePercent(loss.clipped), sharePercent(loss.crushed), sharePercent(loss.outOfGamut)) : ''
  return { words: lost ? text.lost((share * 100).toFixed(1)) : text.noLoss, tip: `${text.middleAt(((at[3] ?? 0) * 100).toFixed(1))} ${detail}`, lost }
}))
</script>

<template>
  <section class="meridian" :class="{ asleep: asShot }" aria-label="Meridian">
    <svg :viewBox="`0 0 ${width} ${height}`" preserveAspectRatio="none" aria-hidden="true">
      <path v-for="(d, i) in bands" :key="`b${i}`" class="band" :d="d" fill-rule="evenodd" />
      <path v-for="(d, i) in paths" :key="i" class="line" :class="{ middle: i === 3 }" :d="d" data-testid="meridian-line" />
    </svg>
    <span v-for="l in labels" :key="l.name" class="label figures" :class="{ under: l.at < 60 }" :style="{ top: `calc(24px + (100% - 24px) * ${l.at / height})` }" aria-hidden="true">{{ l.name }}</span>
    <div class="stations" role="tablist" aria-label="Stations">
      <HelpTip v-for="(s, i) in stations" :key="s.id" :text="`${s.tip} ${standings[i]?.tip ?? ''}`">
        <button type="button" role="tab" :aria-selected="s.id === station" :class="{ here: s.id === station }" :data-station="s.id" @click="$emit('open', s.id)">
          <span class="caps">{{ s.name }}</span>
          <span class="figures loss" :class="{ lost: standings[i]?.lost }">{{ standings[i]?.words ?? '' }}</span>
        </button>
      </HelpTip>
    </div>
  </section>
</template>

<style scoped>
.meridian { position: relative; background: var(--panel); border-block: var(--line) solid var(--hairline); min-height: 0; }
.meridian.asleep svg { opacity: 0.3; }
svg { position: absolute; inset: 24px 0 0; width: 100%; height: calc(100% - 24px); }
.line { fill: none; stroke: var(--hairline-strong); stroke-width: 1px; vector-effect: non-scaling-stroke; }
.line.middle { stroke: var(--accent); stroke-width: 1.75px; }
.band { fill: var(--ink); opacity: 0.05; }
.label { position: absolute; right: 4px; font-size: 10px; color: var(--ink-quiet); transform: translateY(-105%); pointer-events: none; }
.label { padding: 0 2px; background: var(--panel); line-height: 12px; }
.label.under { transform: translateY(2px); }
.stations { position: absolute; inset: 0; display: grid; grid-template-columns: repeat(8, 1fr); }
.stations button { display: flex; justify-content: space-between; align-items: flex-start; text-align: left; background: none; border: 0; border-right: var(--line) solid var(--hairline); padding: 4px var(--gap); cursor: pointer; }
.stations button:hover, .stations button.here { background: var(--veil); }
.stations button.here .caps { color: var(--accent); }
.stations button:focus-visible { outline-offset: -3px; }
.loss { font-size: 10px; color: var(--ink-quiet); }
.loss.lost { color: var(--ink); }
</style>
