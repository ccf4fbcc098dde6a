<script setup lang="ts">
// The diagram of colours behind the chromaticity view: the spectral locus, the display's triangle, its white.
import { computed } from 'vue'
import { displayById, gamutById } from '@core/colour'
import { chromaticitySpan, uvPrime } from '@core/instruments'
import { spectralLocus } from '../../cameras/spectral-locus'

const props = defineProps<{ displayId: string; brightness: number }>()
const at = (x: number, y: number): string => {
  const [u, v] = uvPrime({ x, y })
  return `${(u / chromaticitySpan) * 100} ${100 - (v / chromaticitySpan) * 100}`
}
const locus = `M ${spectralLocus.map(([x, y]) => at(x, y)).join(' L ')} Z`
const gamut = computed(() => gamutById(displayById(props.displayId).gamutId))
const triangle = computed(
  () => `M ${[gamut.value.red, gamut.value.green, gamut.value.blue].map(({ x, y }) => at(x, y)).join(' L ')} Z`,
)
const white = computed(() => at(gamut.value.white.x, gamut.value.white.y).split(' ').map(Number))
</script>

<template>
  <svg
    class="graticule"
    viewBox="0 0 100 100"
    :style="{ '--lines': brightness }"
    aria-hidden="true"
  >
    <path :d="locus" />
    <path
      class="triangle"
      :d="triangle"
    />
    <circle
      :cx="white[0]"
      :cy="white[1]"
      r="1.6"
    />
  </svg>
</template>

<style scoped>
.graticule {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
path,
circle {
  fill: none;
  stroke: var(--hairline-strong);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
  opacity: calc(var(--lines) * 1.2);
}
.triangle {
  stroke: var(--accent);
}
</style>
