<script setup lang="ts">
// Between the picture and the instruments: drag it, or move it by the arrow keys; a double click puts it back.
import { computed, useTemplateRef } from 'vue'
import { arrowStep } from '../../../composables/arrowStep'
import { pictureShares } from '../../../stores/kept-settings'
import { useView } from '../../../stores/view'
import { layoutText } from './layout-text'

const view = useView()
const divider = useTemplateRef<HTMLElement>('divider')
const { least, most } = pictureShares
const keyStep = 0.01

/** Where it stands, in shares of the width, however it came there. */
const share = computed(() => view.layout.pictureShare)
const here = (): number => share.value ?? (divider.value?.offsetLeft ?? 0) / window.innerWidth
function move(to: number): void {
  view.layout = { ...view.layout, pictureShare: Math.min(most, Math.max(least, to)) }
}
function reset(): void {
  view.layout = { ...view.layout, pictureShare: null }
}
function grab(event: PointerEvent): void {
  if (event.button === 0) divider.value?.setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent): void {
  if (divider.value?.hasPointerCapture(event.pointerId)) move(event.clientX / window.innerWidth)
}
function step(event: KeyboardEvent): void {
  const { dx } = arrowStep(event)
  if (dx === 0) return
  event.preventDefault()
  event.stopPropagation()
  move(here() + dx * keyStep)
}
</script>

<template>
  <div
    ref="divider"
    class="divider"
    role="separator"
    tabindex="0"
    aria-orientation="vertical"
    :aria-label="layoutText.divider"
    :aria-valuenow="Math.round((share ?? 0.5) * 100)"
    :aria-valuemin="least * 100"
    :aria-valuemax="most * 100"
    :data-tip="layoutText.dividerTip"
    data-testid="divider"
    @pointerdown="grab"
    @pointermove="drag"
    @dblclick="reset"
    @keydown="step"
  />
</template>

<style scoped>
.divider {
  width: var(--gap-wide);
  cursor: col-resize;
  touch-action: none;
  display: grid;
  place-items: center;
}
.divider::before {
  content: '';
  width: 2px;
  height: 32px;
  border-radius: 1px;
  background: var(--hairline);
}
.divider:hover::before,
.divider:focus-visible::before {
  background: var(--accent);
  height: 100%;
}
</style>
