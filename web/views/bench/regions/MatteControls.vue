<script setup lang="ts">
// Cleaning the chosen key's matte, and what the region's matte is worth, in numbers.
import { computed } from 'vue'
import type { NumberParameter } from '@core/grade'
import { cleaningBounds, hardJump, noCleaning, tornShare, usualCleaning, type CleaningPart } from '@core/regions'
import ScaleControl from '../../../components/ScaleControl.vue'
import { useRegions } from '../../../stores/regions'
import { text } from '../text'

const regions = useRegions()
const { matte: words } = text.regions
const cleaning = computed(() => regions.key?.cleaning ?? null)
const units: Readonly<
  Record<
    CleaningPart,
    { readonly unit: string; readonly factor: number; readonly step: number; readonly decimals: number }
  >
> = (() => {
  const size = { unit: '‰', factor: 1000, step: 0.0005, decimals: 1 }
  const share = { unit: '%', factor: 100, step: 0.01, decimals: 0 }
  return {
    calm: size,
    specks: size,
    holes: size,
    grow: size,
    follow: size,
    blur: size,
    low: share,
    high: share,
    steady: { unit: 'fr', factor: 1, step: 1, decimals: 0 },
  }
})()
const parameterOf = (part: CleaningPart, label: string, tip: string): NumberParameter => {
  const { unit, factor, step, decimals } = units[part]
  return {
    type: 'number',
    label,
    tip,
    unit,
    ...cleaningBounds[part],
    default: noCleaning[part],
    step,
    decimals,
    shownFactor: factor,
    signed: part === 'grow',
  }
}
const parts = Object.entries(words.parts).map(([part, [label, tip]]) => ({
  part: part as CleaningPart,
  parameter: parameterOf(part as CleaningPart, label, tip),
}))
const set = (part: CleaningPart, value: number): void =>
  regions.editKey('cleaning', (s) => ({
    ...s,
    cleaning: { ...s.cleaning, [part]: part === 'steady' ? Math.round(value) : value },
  }))
const percent = (v: number, digits = 1): string => (v * 100).toFixed(digits)
const torn = computed(() => regions.key !== null && (regions.facts?.hardEdge ?? 0) > tornShare)
</script>

<template>
  <div class="matte">
    <div
      v-if="cleaning"
      class="parts"
    >
      <ScaleControl
        v-for="p in parts"
        :key="p.part"
        :parameter="p.parameter"
        :model-value="cleaning[p.part]"
        :data-control="`clean-${p.part}`"
        @update:model-value="set(p.part, $event)"
      />
    </div>
    <p
      v-else
      class="quiet"
    >
      {{ words.noKey }}
    </p>
    <div
      class="facts"
      data-testid="matte-facts"
    >
      <div
        v-if="cleaning"
        class="row"
      >
        <button
          :data-tip="words.cleanTip"
          type="button"
          data-testid="clean"
          @click="regions.editKey('cleaned', (s) => ({ ...s, cleaning: usualCleaning }))"
        >
          {{ words.clean }}
        </button>
        <button
          :data-tip="words.rawTip"
          type="button"
          @click="regions.editKey('cleaning taken off', (s) => ({ ...s, cleaning: noCleaning }))"
        >
          {{ words.raw }}
        </button>
      </div>
      <div
        v-if="regions.facts"
        class="measured"
        :class="{ old: !regions.factsFresh }"
        :data-fresh="regions.factsFresh"
      >
        <p>
          <span
            :data-tip="words.coverageTip"
            class="figures"
            data-fact="coverage"
          >
            {{ words.coverage(percent(regions.facts.coverage)) }}
          </span>
        </p>
        <p>
          <span
            :data-tip="words.specksTip"
            class="figures"
            data-fact="specks"
          >
            {{ words.specks(regions.facts.specks) }}
          </span>
        </p>
        <p>
          <span
            :data-tip="words.chatterTip"
            class="figures"
            data-fact="chatter"
          >
            {{ words.chatter(regions.facts.chatter === null ? null : percent(regions.facts.chatter)) }}
          </span>
        </p>
        <p v-if="regions.facts.moved !== null && regions.facts.moved > 0.001">
          <span
            :data-tip="words.movedTip"
            class="figures"
            data-fact="moved"
          >
            {{ words.moved(percent(regions.facts.moved)) }}
          </span>
        </p>
        <p :class="{ warning: torn }">
          <span
            :data-tip="words.hardTip"
            class="figures"
            data-fact="hard"
          >
            {{ torn ? '▲ ' : '' }}{{ words.hard(percent(regions.facts.hardEdge, 0), percent(hardJump, 0)) }}
          </span>
        </p>
      </div>
      <p
        v-else
        class="quiet"
      >
        {{ words.measuring }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.matte {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 268px;
  gap: var(--gap-broad);
  min-height: 0;
}
.parts {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  column-gap: var(--gap-broad);
  align-content: start;
}
.parts :deep(.control) {
  grid-template-columns: 84px minmax(40px, 1fr) 48px 22px;
  gap: var(--gap-small);
}
.parts :deep(.effect) {
  display: none;
}
.facts {
  display: grid;
  gap: var(--gap-hair);
  align-content: start;
  font-size: 12px;
}
.row {
  display: flex;
  gap: var(--gap-small);
  margin-bottom: var(--gap-small);
}
button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: var(--control);
  font-size: 12px;
}
/* Of the matte as it was: the new one is being measured. */
.old {
  opacity: 0.5;
}
.warning {
  color: var(--warning);
}
p {
  margin: 0;
}
</style>
