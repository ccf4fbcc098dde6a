<script setup lang="ts">
// The chosen shot large, the reference over or beside it, a patch measured in both, and both traces in one instrument.
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import type { Area } from '@core/readings'
import { putImage } from '../../composables/putImage'
import { useView, type CompareMode } from '../../stores/view'
import { shownAspect } from '../../workers/medium'
import ComparePicture from '../bench/picture/ComparePicture.vue'
import InstrumentPanel from '../bench/instruments/InstrumentPanel.vue'
import { figuresOf } from '../bench/figures'
import PatchMeasured from './PatchMeasured.vue'
import { usePatchDrag } from './usePatchDrag'
import type { Pair, Side } from './usePair'

const props = defineProps<{ pair: Pair; chosen: Side; mode: CompareMode }>()
const view = useView()
const { renderer, held, patch, document, swatches: pairs } = props.pair
const canvas = ref<HTMLCanvasElement | null>(null)
const box = useTemplateRef('box')
const room = useElementSize(box)
const aspect = computed(() => shownAspect(props.chosen.shot))
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
const { from, drawnArea, down, move, up } = usePatchDrag(stage, beside, patch, pairs)
const boxStyle = ({ left, right, top, bottom }: Area, half: number): Record<string, string> => {
  const wide = beside.value ? 50 : 100
  return {
    left: `${left * wide + half * 50}%`,
    top: `${top * 100}%`,
    width: `${(right - left) * wide}%`,
    height: `${(bottom - top) * 100}%`,
  }
}
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
        @pointerup="up"
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
        <template v-if="beside && pairs.pairing.value">
          <template
            v-for="(p, i) in pairs.pairs.value"
            :key="p.id"
          >
            <span
              class="patch paired figures"
              :style="boxStyle(p.hereArea, 0)"
            >
              {{ i + 1 }}
            </span>
            <span
              class="patch paired figures"
              :style="boxStyle(p.area, 1)"
            >
              {{ i + 1 }}
            </span>
          </template>
          <span
            v-if="pairs.half.value"
            class="patch half-made"
            :style="boxStyle(pairs.half.value.area, pairs.half.value.of === 'shot' ? 1 : 0)"
          />
          <span
            v-if="drawnArea && from"
            class="patch"
            :style="boxStyle(drawnArea, from.half)"
          />
        </template>
        <template v-else-if="patch">
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
    <PatchMeasured
      class="measured"
      :pair="pair"
      :name="chosen.shot.name"
      :pairing="beside && pairs.pairing.value"
    />
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
.paired {
  display: grid;
  place-items: center;
  font-size: 11px;
  color: var(--ink);
  text-shadow: 0 0 3px var(--well);
}
.half-made {
  outline-style: dashed;
}
.traces {
  display: grid;
  grid-template-rows: 1fr 1fr;
  gap: var(--gap-small);
  min-height: 0;
}
.measured {
  grid-column: 1 / -1;
}
</style>
