<script setup lang="ts">
// The curve that was fitted, beside the nearest known one, with what is left over per patch.
import { computed } from 'vue'
import type { EncodingDefinition } from '@core/colour'
import type { CardMatch, FitResult, Patch } from '@core/measure'
import KeepEncoding from './KeepEncoding.vue'
import { text } from './text'

const props = defineProps<{
  patches: readonly Patch[]
  fit: FitResult | null
  nearest: CardMatch | null
  kept: string
}>()
defineEmits<{ keep: [definition: Omit<EncodingDefinition, 'curve' | 'source'>] }>()
const signed = (v: number, digits: number): string => `${v < 0 ? '−' : '+'}${Math.abs(v).toFixed(digits)}`
const numbers = computed(() =>
  props.fit
    ? (['a', 'b', 'c', 'd', 'e', 'f', 'cut'] as const).map((k) => ({
        k,
        v: Number(props.fit?.curve[k]).toPrecision(6),
      }))
    : [],
)
const shownPatches = computed(() => props.patches.slice(0, 24))
</script>

<template>
  <section
    class="fit"
    aria-label="Fit"
  >
    <h2 class="caps">{{ text.measure.fit }}</h2>
    <p
      v-if="!fit"
      class="quiet"
    >
      {{ patches.length < 4 ? text.measure.needMore(4 - patches.length) : '' }}
    </p>
    <template v-else>
      <p
        class="figures"
        data-testid="fit-rms"
      >
        {{ text.measure.rms(fit.rmsStops.toFixed(3), patches.length) }}
      </p>
      <dl>
        <template
          v-for="n in numbers"
          :key="n.k"
        >
          <dt>{{ n.k }}</dt>
          <dd class="figures">{{ n.v }}</dd>
        </template>
      </dl>
      <p
        v-if="nearest"
        data-testid="nearest"
      >
        {{
          text.measure.nearest(nearest.encoding.name, nearest.errorCodes.toFixed(1), signed(nearest.exposureStops, 2))
        }}
      </p>
      <KeepEncoding @keep="$emit('keep', $event)" />
      <p
        v-if="kept"
        role="status"
      >
        {{ text.measure.kept(kept) }}
      </p>
    </template>
    <table v-if="patches.length">
      <thead>
        <tr class="caps">
          <th>{{ text.measure.patch }}</th>
          <th>{{ text.measure.code }}</th>
          <th>{{ text.measure.light }}</th>
          <th :data-tip="text.measure.residualTip">{{ text.measure.residual }}</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="(p, i) in shownPatches"
          :key="i"
          class="figures"
        >
          <td>{{ i + 1 }}</td>
          <td>{{ (p.code * 1023).toFixed(1) }}</td>
          <td>{{ p.linear.toPrecision(4) }}</td>
          <td>{{ fit ? signed(fit.residualStops[i] ?? 0, 3) : '' }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.fit {
  display: grid;
  gap: var(--gap);
  align-content: start;
  min-height: 0;
  overflow-y: auto;
  background: var(--panel);
  border: var(--line) solid var(--hairline);
  padding: var(--gap-wide);
}
h2 {
  font-weight: 400;
}
dl {
  display: grid;
  grid-template-columns: repeat(3, auto 1fr);
  gap: 2px var(--gap);
  margin: 0;
}
dt {
  color: var(--ink-quiet);
}
dd {
  margin: 0;
}
table {
  border-collapse: collapse;
}
th,
td {
  text-align: right;
  padding: 1px var(--gap);
  font-weight: 400;
  border-bottom: var(--line) solid var(--raised);
}
th {
  color: var(--ink-quiet);
}
p {
  margin: 0;
}
</style>
