<script setup lang="ts">
// How the picture's colours are distributed along an axis, drawn behind a curve.
import { computed } from 'vue'

const props = defineProps<{
  /** 0…1, evenly from `from` to `to`. */ counts: ArrayLike<number>
  from: number
  to: number
  x: readonly [number, number]
}>()
const toX = (v: number): number => ((v - props.x[0]) / (props.x[1] - props.x[0])) * 100
const path = computed(() => {
  const { counts, from, to } = props
  const width = (to - from) / counts.length
  // Square roots: what is rare is seen as well.
  const tops = Array.from(
    counts,
    (c, i) => `${toX(from + (i + 0.5) * width).toFixed(2)} ${(100 - Math.sqrt(c) * 88).toFixed(2)}`,
  )
  return `M ${toX(from).toFixed(2)} 100 L ${tops.join(' L ')} L ${toX(to).toFixed(2)} 100 Z`
})
</script>

<template>
  <svg
    class="distribution"
    viewBox="0 0 100 100"
    preserveAspectRatio="none"
    aria-hidden="true"
    data-testid="distribution"
  >
    <path :d="path" />
  </svg>
</template>

<style scoped>
.distribution {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
path {
  fill: var(--raised);
  stroke: none;
}
</style>
