<script setup lang="ts">
// Lines of the signal's scale behind waveform, parade and histogram, and dividers between channels.
import { levelHigh, levelLow } from '@core/instruments'
import type { ScaleLine } from './scale-lines'

withDefaults(defineProps<{ lines: readonly ScaleLine[]; brightness: number; parts?: number; across?: boolean }>(), {
  parts: 1,
  across: false,
})
const share = (at: number): number => ((at - levelLow) / (levelHigh - levelLow)) * 100
</script>

<template>
  <div
    class="graticule"
    :class="{ across }"
    :style="{ '--lines': brightness }"
    aria-hidden="true"
  >
    <template
      v-for="l in lines"
      :key="l.label"
    >
      <span
        class="line"
        :style="across ? { left: `${share(l.at)}%` } : { bottom: `${share(l.at)}%` }"
      />
      <span
        class="label figures"
        :style="across ? { left: `${share(l.at)}%` } : { bottom: `${share(l.at)}%` }"
      >
        {{ l.label }}
      </span>
    </template>
    <span
      v-for="n in parts - 1"
      :key="n"
      class="divider"
      :style="{ left: `${(n / parts) * 100}%` }"
    />
  </div>
</template>

<style scoped>
.graticule {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.line {
  position: absolute;
  left: 0;
  right: 0;
  height: 1px;
  background: var(--hairline-strong);
  opacity: calc(var(--lines) * 0.7);
}
.label {
  position: absolute;
  left: -30px;
  width: 26px;
  text-align: right;
  transform: translateY(50%);
  font-size: 10px;
  color: var(--ink-quiet);
}
.across .line {
  right: auto;
  top: 0;
  bottom: 0;
  height: auto;
  width: 1px;
}
.across .label {
  bottom: auto;
  left: auto;
  top: 100%;
  width: 40px;
  margin-left: -20px;
  text-align: center;
  transform: none;
}
.divider {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 1px;
  background: var(--hairline);
}
</style>
