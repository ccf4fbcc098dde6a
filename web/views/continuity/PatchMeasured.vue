<script setup lang="ts">
// What one patch measures in both pictures; while swatches are paired, what to draw next.
import { text } from './text'
import { css, type Mean } from './patch-mean'
import type { Pair } from './usePair'

const props = defineProps<{ pair: Pair; name: string; pairing: boolean }>()
const { held, patchMeans, swatches } = props.pair
const percents = (mean: Mean): string => mean.map((v) => (v * 100).toFixed(1)).join(' · ')
</script>

<template>
  <p
    class="measured figures"
    role="status"
  >
    <span
      v-if="pairing"
      class="quiet"
    >
      {{ text.swatches.next(swatches.half.value?.of ?? null, swatches.full.value) }}
    </span>
    <template v-else-if="patchMeans && held">
      <span
        class="swatch"
        :style="{ background: css(patchMeans.here) }"
      />
      {{ text.patchIn(held.name, percents(patchMeans.here)) }}
      <span
        class="swatch"
        :style="{ background: css(patchMeans.there) }"
      />
      {{ text.patchIn(name, percents(patchMeans.there)) }}
      <strong>{{ text.patchOf(patchMeans.deltaE) }}</strong>
    </template>
    <span
      v-else-if="held"
      class="quiet"
    >
      {{ text.patch }}
    </span>
  </p>
</template>

<style scoped>
.measured {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  min-height: 20px;
  margin: 0;
  font-size: 12px;
}
.swatch {
  width: 16px;
  height: 16px;
  margin-left: var(--gap);
}
strong {
  margin-left: var(--gap);
  font-weight: 500;
}
</style>
