<script setup lang="ts">
// One instrument: its name, its number, the trace that the worker painted, its graticule, and the marks of the place
// that is pointed at.
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { Aim } from '@core/aims'
import type { StationId } from '@core/grade'
import { placesOn, type InstrumentId, type InstrumentSettings, type Probe, type TraceImage } from '@core/instruments'
import { putImage } from '../../../composables/putImage'
import type { Graticules } from '../../../stores/kept-settings'
import type { LevelHandle } from '../aims/handles'
import LevelHandles from '../aims/LevelHandles.vue'
import type { SkinHandle } from '../aims/useSkinHandles'
import VectorHandles from '../aims/VectorHandles.vue'
import { text } from '../text'
import ChromaticityGraticule from './ChromaticityGraticule.vue'
import LevelGraticule from './LevelGraticule.vue'
import { scaleLines } from './scale-lines'
import VectorGraticule from './VectorGraticule.vue'

const props = defineProps<{
  id: InstrumentId
  figure: string
  trace: TraceImage | null
  settings: InstrumentSettings
  graticules: Graticules
  displayId: string
  tap: StationId
  probe: Probe | null
  playing: boolean
  handles?: readonly LevelHandle[]
  skins?: readonly SkinHandle[]
}>()
const emit = defineEmits<{
  skin: [aim: Aim]
  aim: [id: LevelHandle['id'], value: number]
  point: [place: { readonly x: number; readonly y: number } | null]
}>()
const canvas = ref<HTMLCanvasElement | null>(null)
const plot = ref<HTMLElement | null>(null)
const { width } = useElementSize(plot)
watch([() => props.trace, canvas], ([trace, target]) => {
  if (trace && target) putImage(target, trace, props.playing ? props.graticules.persistence : 0)
})

const square = computed(() => props.id === 'vectorscope' || props.id === 'chromaticity')
const lines = computed(() => scaleLines(props.graticules.scale, props.displayId, props.tap))
/** Fewer labels where there is no room for all. */
const acrossLines = computed(() => (width.value < 200 ? lines.value.filter((_, i) => i % 2 === 0) : lines.value))
const places = computed(() =>
  props.probe && props.tap === 'finish' ? placesOn(props.id, props.probe, props.settings) : [],
)

function point(event: PointerEvent): void {
  const box = plot.value?.getBoundingClientRect()
  if (box)
    emit('point', {
      x: Math.min(1, Math.max(0, (event.clientX - box.left) / box.width)),
      y: Math.min(1, Math.max(0, 1 - (event.clientY - box.top) / box.height)),
    })
}
</script>

<template>
  <section
    class="instrument"
    :class="id"
    :aria-label="text.instruments[id]"
  >
    <header>
      <slot name="name">
        <h2
          :data-tip="text.instrumentTips[id]"
          class="caps"
          tabindex="0"
        >
          {{ text.instruments[id] }}
        </h2>
      </slot>
      <span class="figure">
        <span
          class="figures"
          :data-testid="`${id}-figure`"
        >
          {{ figure }}
        </span>
      </span>
      <slot name="tools" />
    </header>
    <div
      class="well"
      :class="{ square, levels: !square && id !== 'histogram', histogram: id === 'histogram' }"
    >
      <div
        ref="plot"
        class="plot"
        @pointermove="point"
        @pointerleave="emit('point', null)"
      >
        <canvas
          ref="canvas"
          role="img"
          :aria-label="`${text.instruments[id]}: ${figure}`"
          :data-testid="`${id}-trace`"
        />
        <VectorGraticule
          v-if="id === 'vectorscope'"
          :display-id="displayId"
          :zoom="settings.vectorZoom"
          :graticules="graticules"
        />
        <ChromaticityGraticule
          v-else-if="id === 'chromaticity'"
          :display-id="displayId"
          :brightness="graticules.brightness"
        />
        <LevelGraticule
          v-else-if="id === 'histogram'"
          across
          :lines="acrossLines"
          :brightness="graticules.brightness"
        />
        <LevelGraticule
          v-else
          :lines="lines"
          :brightness="graticules.brightness"
          :parts="id === 'parade' ? 3 : 1"
        />
        <LevelHandles
          v-if="handles?.length"
          :handles="handles"
          @aim="(h, value) => emit('aim', h, value)"
        />
        <VectorHandles
          v-if="id === 'vectorscope' && skins?.length"
          :handles="skins"
          :zoom="settings.vectorZoom"
          @aim="emit('skin', $event)"
        />
        <span
          v-for="(p, i) in places"
          :key="i"
          class="mark"
          :class="{ tall: id === 'histogram' }"
          :style="{ left: `${p.x * 100}%`, bottom: `${p.y * 100}%` }"
          :data-testid="`${id}-mark`"
        />
      </div>
    </div>
  </section>
</template>

<style scoped>
.instrument {
  display: grid;
  grid-template-rows: 22px 1fr;
  min-height: 0;
  min-width: 0;
  background: var(--well);
  border: var(--line) solid var(--hairline);
}
header {
  display: flex;
  align-items: center;
  gap: var(--gap-small);
  padding: 0 var(--gap-small) 0 var(--gap);
  min-width: 0;
}
h2 {
  color: var(--ink-quiet);
  flex: 0 1 auto;
  min-width: 48px;
}
/* The number changes with every move, its place does not: put over the row, so nothing beside it is laid out again. */
.figure {
  position: relative;
  flex: 1;
  height: 16px;
}
.figure > span {
  contain: strict;
  position: absolute;
  inset: 0;
  font-size: var(--text-small);
  line-height: 16px;
  text-align: right;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.well {
  position: relative;
  min-height: 0;
  padding: var(--gap-small) var(--gap);
  container-type: size;
}
.well.levels {
  padding-left: 32px;
}
.well.histogram {
  padding-bottom: 15px;
}
.plot {
  position: relative;
  width: 100%;
  height: 100%;
  cursor: crosshair;
}
.well.square {
  display: grid;
  place-items: center;
  padding: var(--gap-small);
}
.square .plot {
  width: min(100cqw, 100cqh);
  height: min(100cqw, 100cqh);
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.mark {
  position: absolute;
  width: 9px;
  height: 9px;
  margin: 0 0 -4.5px -4.5px;
  border: 1.5px solid var(--ink);
  border-radius: 50%;
  background: var(--well);
  pointer-events: none;
}
.mark.tall {
  height: 100%;
  width: 2px;
  margin: 0 0 0 -1px;
  border: 0;
  border-radius: 0;
  background: var(--ink);
}
</style>
