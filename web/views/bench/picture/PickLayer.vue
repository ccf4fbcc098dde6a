<script setup lang="ts">
// A layer over the picture while a curve picks from it: press to take a colour, drag up and down to change what the
// curve does there.
import { nextTick, ref } from 'vue'
import type { PlaceColour } from '@core/instruments'
import { usePicking } from '../../../stores/picking'
import { text } from '../text'

const props = defineProps<{ colourAt: (x: number, y: number) => Promise<PlaceColour | null> }>()
const picking = usePicking()
const at = ref<{ readonly x: number; readonly y: number } | null>(null)
let pressed: { readonly y: number; readonly height: number; taken: boolean; up: number } | null = null

async function down(event: PointerEvent): Promise<void> {
  if (event.button !== 0) return
  const layer = event.currentTarget as HTMLElement
  const box = layer.getBoundingClientRect()
  const mine = { y: event.clientY, height: box.height, taken: false, up: 0 }
  layer.setPointerCapture(event.pointerId)
  pressed = mine
  at.value = { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height }
  const colour = await props.colourAt(at.value.x, at.value.y)
  if (!colour) return
  picking.picker?.begin(colour)
  // The curve has the new point once its step has come round.
  await nextTick()
  mine.taken = true
  if (mine.up !== 0) picking.picker?.drag(mine.up)
  // Let go before the answer came.
  if (pressed !== mine) picking.picker?.end()
}
function move(event: PointerEvent): void {
  if (!pressed) return
  pressed.up = (pressed.y - event.clientY) / pressed.height
  if (pressed.taken) picking.picker?.drag(pressed.up)
}
function up(): void {
  if (pressed?.taken) picking.picker?.end()
  pressed = null
  at.value = null
}
</script>

<template>
  <div
    class="layer"
    data-testid="pick-layer"
    @pointerdown.stop="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
  >
    <p class="note">{{ text.picking.help }}</p>
    <span
      v-if="at"
      class="place"
      :style="{ left: `${at.x * 100}%`, top: `${at.y * 100}%` }"
    />
  </div>
</template>

<style scoped>
.layer {
  position: absolute;
  inset: 0;
  cursor: crosshair;
  touch-action: none;
}
.note {
  position: absolute;
  right: var(--gap);
  top: var(--gap);
  margin: 0;
  padding: 1px var(--gap);
  background: rgb(0 0 0 / 70%);
  font-size: 11px;
  pointer-events: none;
}
.place {
  position: absolute;
  width: 13px;
  height: 13px;
  margin: -7px;
  border: 2px solid var(--accent);
  outline: 1px solid #000;
  pointer-events: none;
}
</style>
