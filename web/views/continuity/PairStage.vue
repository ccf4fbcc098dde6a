<script setup lang="ts">
// The chosen shot large, the reference over or beside it, a patch measured in both, and both traces in one instrument.
import { useElementSize } from '@vueuse/core'
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue'
import type { Area } from '@core/readings'
import { putImage } from '../../composables/putImage'
import { useView, type CompareMode } from '../../stores/view'
import ComparePicture from '../bench/picture/ComparePicture.vue'
import InstrumentPanel from '../bench/instruments/InstrumentPanel.vue'
import { figuresOf } from '../bench/figures'
import { text } from './text'
import type { Pair, Side } from './usePair'

const props = defineProps<{ pair: Pair; chosen: Side; mode: CompareMode }>()
const view = useView()
const { renderer, held, patch, patchMeans, document } = props.pair
const canvas = ref<HTMLCanvasElement | null>(null)
const box = useTemplateRef('box')
const room = useElementSize(box)
const aspect = computed(() => {
  const { width, height, pixelAspect } = props.chosen.shot.media
  return (width * pixelAspect[0]) / (height * pixelAspect[1])
})
/** Both stand beside each other: the stage is twice as wide. */
const beside = computed(() => props.mode === 'side' && held.value !== null && !renderer.playing.value)
const size = computed(() => {
  const wide = beside.value ? 2 * aspect.value : aspect.value
  const width = Math.min(room.width.value, room.height.value * wide)
  return { width: `${width}px`, height: `${width / wide}px` }
})
watch([() => renderer.shown.value, canvas], ([shown, target]) => {
  if (shown && target) putImage(target, shown.picture)
})
const figures = computed(() => figuresOf(renderer.result.value?.facts ?? null))

const stage = useTemplateRef('stage')
interface Place {
  readonly x: number
  readonly y: number
  /** 1 in the right one of two pictures. */
  readonly half: number
}
const from = shallowRef<Place | null>(null)
/** In shares of the picture that is pointed at, or of the one in which a drag began. */
function place(event: PointerEvent, begun?: number): Place {
  const { left, top, width, height } = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const share = (v: number): number => Math.min(1, Math.max(0, v))
  const across = (event.clientX - left) / width
  const half = begun ?? (beside.value && across > 0.5 ? 1 : 0)
  return { x: share(beside.value ? across * 2 - half : across), y: share((event.clientY - top) / height), half }
}
function down(event: PointerEvent): void {
  if (event.button !== 0) return
  stage.value?.setPointerCapture(event.pointerId)
  from.value = place(event)
  patch.value = null
}
function move(event: PointerEvent): void {
  if (!from.value) return
  const to = place(event, from.value.half)
  const area: Area = {
    left: Math.min(from.value.x, to.x),
    right: Math.max(from.value.x, to.x),
    top: Math.min(from.value.y, to.y),
    bottom: Math.max(from.value.y, to.y),
  }
  if (area.right - area.left > 0.005 && area.bottom - area.top > 0.005) patch.value = area
}
const boxStyle = ({ left, right, top, bottom }: Area, half: number): Record<string, string> => {
  const wide = beside.value ? 50 : 100
  return {
    left: `${left * wide + half * 50}%`,
    top: `${top * 100}%`,
    width: `${(right - left) * wide}%`,
    height: `${(bottom - top) * 100}%`,
  }
}
type Mean = readonly [number, number, number]
const css = (mean: Mean): string => `rgb(${mean.map((v) => Math.round(v * 255)).join(' ')})`
const percents = (mean: Mean): string => mean.map((v) => (v * 100).toFixed(1)).join(' · ')
</script>

<template>
  <div class="pair">
    <div
      ref="box"
      class="room"
    >
      <div
        ref="stage"
        class="stage"
        :class="{ beside }"
        :style="size"
        data-testid="pair-stage"
        :data-settled="renderer.settled.value"
        @pointerdown="down"
        @pointermove="move"
        @pointerup="from = null"
        @pointercancel="from = null"
      >
        <canvas
          ref="canvas"
          role="img"
          :aria-label="chosen.shot.name"
          :class="{ half: beside }"
        />
        <ComparePicture
          v-if="held && mode !== 'off' && !renderer.playing.value"
          :still="held"
          :mode="mode"
          :wipe="view.wipe"
          :aspect="aspect"
          @wipe="view.wipe = $event"
        />
        <template v-if="patch">
          <span
            v-for="half in beside ? [0, 1] : [0]"
            :key="half"
            class="patch"
            :style="boxStyle(patch, half)"
          />
        </template>
      </div>
    </div>
    <div class="traces">
      <InstrumentPanel
        v-for="id in ['waveform', 'vectorscope'] as const"
        :id="id"
        :key="id"
        :figure="figures[id]"
        :trace="renderer.result.value?.traces[id] ?? null"
        :settings="view.instruments"
        :graticules="view.graticules"
        :display-id="document?.show.displayId ?? 'bt709-2.4'"
        tap="finish"
        :probe="null"
        :playing="false"
      />
    </div>
    <p
      class="measured figures"
      role="status"
    >
      <template v-if="patchMeans && held">
        <span
          class="swatch"
          :style="{ background: css(patchMeans.here) }"
        />
        {{ text.patchIn(held.name, percents(patchMeans.here)) }}
        <span
          class="swatch"
          :style="{ background: css(patchMeans.there) }"
        />
        {{ text.patchIn(chosen.shot.name, percents(patchMeans.there)) }}
        <strong>{{ text.patchOf(patchMeans.deltaE) }}</strong>
      </template>
      <span
        v-else-if="held"
        class="quiet"
      >
        {{ text.patch }}
      </span>
    </p>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) 260px;
  gap: var(--gap-small) var(--gap);
  min-height: 0;
  min-width: 0;
}
.room {
  display: grid;
  place-items: center;
  min-height: 0;
  min-width: 0;
  overflow: hidden;
}
.stage {
  position: relative;
  background: var(--well);
  cursor: crosshair;
  touch-action: none;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
canvas.half {
  left: 50%;
  width: 50%;
}
.beside :deep(.compare canvas) {
  inset: 0 50% 0 0;
  width: 50%;
  height: 100%;
}
.patch {
  position: absolute;
  outline: 1px solid var(--ink);
  outline-offset: 0;
  pointer-events: none;
}
.traces {
  display: grid;
  grid-template-rows: 1fr 1fr;
  gap: var(--gap-small);
  min-height: 0;
}
.measured {
  grid-column: 1 / -1;
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
