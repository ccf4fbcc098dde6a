<!-- Long: the settings of one key, under each other. -->

<script setup lang="ts">
// A key: colours picked from the picture, and the ranges of hue, chroma and lightness that were fitted to them, over
// the picture's own distribution.
import { computed, ref, watch } from 'vue'
import { stations } from '@core/grade'
import {
  fitKey,
  keyDistributionEnds,
  keyTaps,
  type HueRange,
  type KeyRanges,
  type KeyTap,
  type SoftRange,
} from '@core/regions'
import PlainSelect from '../../../components/PlainSelect.vue'
import { useRegions } from '../../../stores/regions'
import RangeBar from './RangeBar.vue'
import { text } from '../text'

const regions = useRegions()
const { key: words } = text.regions
const chosen = ref(0)
const groups = computed(() => regions.key?.key.groups ?? [])
const group = computed(() => groups.value[Math.min(chosen.value, groups.value.length - 1)] ?? null)
watch(
  () => regions.component?.id,
  () => {
    chosen.value = 0
  },
)
const taps = keyTaps.map((id) => ({ id, name: words.after(stations.find((s) => s.id === id)?.name ?? id) }))
const setGroup = (change: Partial<KeyRanges>): void => {
  const at = Math.min(chosen.value, groups.value.length - 1)
  regions.editKey('range', (s) => ({
    ...s,
    key: { ...s.key, groups: s.key.groups.map((g, i) => (i === at ? { ...g, ...change } : g)) },
  }))
}
const fresh: KeyRanges = { hue: null, chroma: null, lightness: { low: 0.3, high: 0.7, softLow: 0.1, softHigh: 0.1 } }
function addGroup(): void {
  regions.editKey('group added', (s) => ({ ...s, key: { ...s.key, groups: [...s.key.groups, fresh] } }))
  chosen.value = groups.value.length - 1
}
const removeGroup = (): void =>
  regions.editKey('group removed', (s) => ({
    ...s,
    key: { ...s.key, groups: s.key.groups.filter((_, i) => i !== Math.min(chosen.value, groups.value.length - 1)) },
  }))
const defaults: Readonly<Record<'chroma' | 'lightness', SoftRange>> = {
  chroma: { low: 0.04, high: 0.15, softLow: 0.02, softHigh: 0.05 },
  lightness: { low: 0.3, high: 0.7, softLow: 0.1, softHigh: 0.1 },
}
const hueDefault: HueRange = { centre: 60, half: 20, soft: 15 }
const lastTaken = (): void =>
  regions.editKey('last pick taken back', (s) => {
    const samples = s.key.samples.slice(0, -1)
    return { ...s, key: { ...s.key, samples, groups: fitKey(samples) } }
  })
/** As a range on a line: its middle may lie anywhere, its ends come round. */
const hueAsRange = (h: HueRange): SoftRange => ({
  low: h.centre - h.half,
  high: h.centre + h.half,
  softLow: h.soft,
  softHigh: h.soft,
})
function setHue(r: SoftRange): void {
  const centre = ((((r.low + r.high) / 2) % 360) + 360) % 360
  const before = group.value?.hue
  setGroup({
    hue: {
      centre: Math.round(centre * 10) / 10,
      half: Math.min(180, Math.max(0, (r.high - r.low) / 2)),
      soft: Math.min(180, Math.max(0, before && r.softLow !== before.soft ? r.softLow : r.softHigh)),
    },
  })
}
</script>

<template>
  <p
    v-if="!regions.key"
    class="quiet"
  >
    {{ words.none }}
    <button
      type="button"
      @click="regions.addKey"
    >
      {{ words.add }}
    </button>
  </p>
  <div
    v-else
    class="key"
  >
    <div class="picks">
      <div class="row">
        <button
          :data-tip="words.pickTip"
          type="button"
          :aria-pressed="regions.sampling === 'add'"
          data-testid="key-add"
          @click="regions.sampling = regions.sampling === 'add' ? null : 'add'"
        >
          {{ words.pick }}
        </button>
        <button
          :data-tip="words.dropTip"
          type="button"
          :aria-pressed="regions.sampling === 'remove'"
          data-testid="key-remove"
          @click="regions.sampling = regions.sampling === 'remove' ? null : 'remove'"
        >
          {{ words.drop }}
        </button>
        <button
          :data-tip="words.backTip"
          type="button"
          :disabled="regions.key.key.samples.length === 0"
          @click="lastTaken"
        >
          {{ words.back }}
        </button>
      </div>
      <p class="quiet figures">
        {{
          words.samples(
            regions.key.key.samples.filter((s) => s.mode === 'add').length,
            regions.key.key.samples.filter((s) => s.mode === 'remove').length,
          )
        }}
      </p>
      <PlainSelect
        :label="words.tap"
        :tip="words.tapTip"
        :options="taps"
        :model-value="regions.key.key.tap"
        @update:model-value="
          (tap) =>
            regions.editKey('read after another station', (s) => ({ ...s, key: { ...s.key, tap: tap as KeyTap } }))
        "
      />
      <div class="row">
        <button
          v-for="(_, i) in groups"
          :key="i"
          :data-tip="words.groupTip"
          type="button"
          class="figures"
          :aria-pressed="group === groups[i]"
          @click="chosen = i"
        >
          {{ i + 1 }}
        </button>
        <button
          :data-tip="words.addGroupTip"
          type="button"
          @click="addGroup"
        >
          {{ words.addGroup }}
        </button>
        <button
          v-if="group"
          type="button"
          :title="words.removeGroup"
          :aria-label="words.removeGroup"
          @click="removeGroup"
        >
          ×
        </button>
      </div>
    </div>
    <div
      v-if="group"
      class="ranges"
    >
      <RangeBar
        id="hue"
        :label="words.hue"
        :tip="words.hueTip"
        unit="°"
        :low="0"
        :high="360"
        round
        :counts="regions.distribution?.hues ?? null"
        :range="group.hue && hueAsRange(group.hue)"
        :step="1"
        @range="setHue"
        @on="setGroup({ hue: $event ? hueDefault : null })"
      />
      <RangeBar
        id="chroma"
        :label="words.chroma"
        :tip="words.chromaTip"
        unit=""
        :low="0"
        :high="keyDistributionEnds.chroma"
        :counts="regions.distribution?.chromas ?? null"
        :range="group.chroma"
        :step="0.002"
        @range="setGroup({ chroma: $event })"
        @on="setGroup({ chroma: $event ? defaults.chroma : null })"
      />
      <RangeBar
        id="lightness"
        :label="words.lightness"
        :tip="words.lightnessTip"
        unit=""
        :low="0"
        :high="keyDistributionEnds.lightness"
        :counts="regions.distribution?.lightnesses ?? null"
        :range="group.lightness"
        :step="0.01"
        @range="setGroup({ lightness: $event })"
        @on="setGroup({ lightness: $event ? defaults.lightness : null })"
      />
    </div>
    <p
      v-else
      class="quiet"
    >
      {{ words.empty }}
    </p>
  </div>
</template>

<style scoped>
.key {
  display: grid;
  grid-template-columns: 260px minmax(0, 1fr);
  gap: var(--gap-broad);
  min-height: 0;
}
.picks {
  display: grid;
  gap: var(--gap-small);
  align-content: start;
}
.picks :deep(.choice) {
  grid-template-columns: auto 1fr;
}
.row {
  display: flex;
  gap: var(--gap-small);
  flex-wrap: wrap;
}
.ranges {
  display: grid;
  gap: var(--gap-small);
  align-content: start;
  min-width: 0;
}
button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: var(--control);
  min-width: 24px;
  font-size: 12px;
}
button:disabled {
  color: var(--hairline-strong);
}
button[aria-pressed='true'] {
  border-color: var(--accent);
  color: var(--accent);
}
p {
  margin: 0;
  font-size: 12px;
}
</style>
