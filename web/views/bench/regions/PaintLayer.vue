<script setup lang="ts">
// Painting over what is not to be followed: discs on the picture that no point is taken from.
import { ref } from 'vue'
import { useRegions } from '../../../stores/regions'
import { useTracking } from '../../../stores/tracking'
import { text } from '../text'

const tracking = useTracking()
const regions = useRegions()
const layer = ref<HTMLElement | null>(null)
const radius = 0.035
const most = 200
let painting = false
function paint(e: PointerEvent): void {
  const box = layer.value?.getBoundingClientRect()
  if (!box) return
  const x = (e.clientX - box.left) / box.width
  const y = (e.clientY - box.top) / box.height
  if (
    tracking.excluded.some((d) => Math.hypot((d.x - x) * regions.aspect, d.y - y) < radius / 3) ||
    tracking.excluded.length >= most
  )
    return
  tracking.excluded = [...tracking.excluded, { x, y, radius }]
}
function down(e: PointerEvent): void {
  if (e.button !== 0) return
  layer.value?.setPointerCapture(e.pointerId)
  painting = true
  paint(e)
}
</script>

<template>
  <div
    ref="layer"
    class="layer"
    :class="{ active: tracking.painting }"
    data-testid="paint-layer"
    @pointerdown="down"
    @pointermove="painting && paint($event)"
    @pointerup="painting = false"
    @pointercancel="painting = false"
  >
    <p
      v-if="tracking.painting"
      class="note"
    >
      {{ text.regions.draw.paint }}
    </p>
    <svg
      :viewBox="`0 0 ${regions.aspect} 1`"
      preserveAspectRatio="none"
    >
      <circle
        v-for="(d, i) in tracking.excluded"
        :key="i"
        :cx="d.x * regions.aspect"
        :cy="d.y"
        :r="d.radius"
      />
    </svg>
  </div>
</template>

<style scoped>
.layer {
  position: absolute;
  inset: 0;
  touch-action: none;
  pointer-events: none;
}
.active {
  pointer-events: auto;
  cursor: crosshair;
}
.note {
  position: absolute;
  right: var(--gap);
  top: var(--gap);
  margin: 0;
  padding: 1px var(--gap);
  background: rgb(0 0 0 / 70%);
  font-size: 11px;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
circle {
  fill: rgb(0 0 0 / 45%);
  stroke: var(--ink-quiet);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
}
</style>
