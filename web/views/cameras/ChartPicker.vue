<script setup lang="ts">
// A chart laid on a frame by its four corners, by pointer or by keys; the patches that are read are drawn inside.
import { computed, ref, useTemplateRef, watch } from 'vue'
import { patchMiddles, placesOn, type Corners, type Point } from '@core/cards'
import { clamp01 } from '@core/numbers'
import type { ShotDetail } from '@contracts/responses'
import { sentenceOf } from '../../api/client'
import Notice from '../../components/Notice.vue'
import { putImage } from '../../composables/putImage'
import { useCameraWorker } from '../../composables/useCameraWorker'
import { text } from './text'

const props = defineProps<{ shot: ShotDetail; frame: number }>()
const corners = defineModel<Corners>('corners', { required: true })
const worker = useCameraWorker()
const canvas = useTemplateRef('canvas')
const stage = useTemplateRef('stage')
const fault = ref('')

const where = computed(() => ({
  mediaHash: props.shot.media.hash,
  frameIndex: props.frame,
  range: props.shot.media.range,
}))
watch(
  where,
  async (at) => {
    try {
      const picture = await worker.ask('picture', at)
      if (canvas.value && at === where.value) putImage(canvas.value, picture)
    } catch (error) {
      fault.value = sentenceOf(error)
    }
  },
  { immediate: true },
)

/** Half of a patch that is read, in shares of the chart. */
const half = { x: 0.25 / 6, y: 0.25 / 4 } as const
/** The parts of the patches that are read, as outlines in percent; none while the corners cross. */
const cells = computed<readonly string[]>(() => {
  try {
    const at = placesOn(corners.value)
    return patchMiddles.map(({ x, y }) =>
      [at(x - half.x, y - half.y), at(x + half.x, y - half.y), at(x + half.x, y + half.y), at(x - half.x, y + half.y)]
        .map(percent)
        .join(' '),
    )
  } catch {
    return []
  }
})
const percent = ({ x, y }: Point): string => `${(x * 100).toFixed(3)},${(y * 100).toFixed(3)}`
const outline = computed(() => corners.value.map(percent).join(' '))

function put(index: number, point: Point): void {
  const held = { x: clamp01(point.x), y: clamp01(point.y) }
  corners.value = corners.value.map((c, i) => (i === index ? held : c)) as unknown as Corners
}
let held: number | null = null
function down(index: number, event: PointerEvent): void {
  if (event.button !== 0) return
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  held = index
}
function move(event: PointerEvent): void {
  const box = stage.value?.getBoundingClientRect()
  if (held === null || !box) return
  put(held, { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height })
}
function up(): void {
  held = null
}
const moves: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
function key(index: number, event: KeyboardEvent): void {
  const moved = moves[event.key]
  const corner = corners.value[index]
  if (!moved || !corner) return
  event.preventDefault()
  const by = event.shiftKey ? 0.02 : 0.002
  put(index, { x: corner.x + moved[0] * by, y: corner.y + moved[1] * by })
}
</script>

<template>
  <div class="picker">
    <p class="quiet">{{ text.chart.how }}</p>
    <div
      ref="stage"
      class="picture"
      role="group"
      :aria-label="text.chart.place"
    >
      <canvas
        ref="canvas"
        role="img"
        :aria-label="`${shot.name}, frame ${frame}, as shot`"
      />
      <svg
        viewBox="0 0 100 100"
        preserveAspectRatio="none"
        aria-hidden="true"
      >
        <polygon :points="outline" />
        <polygon
          v-for="(cell, i) in cells"
          :key="i"
          :points="cell"
        />
      </svg>
      <button
        v-for="(corner, i) in corners"
        :key="i"
        type="button"
        class="corner"
        :style="{ left: `${corner.x * 100}%`, top: `${corner.y * 100}%` }"
        :aria-label="text.chart.corner(i + 1)"
        :data-corner="i + 1"
        @pointerdown="down(i, $event)"
        @pointermove="move"
        @pointerup="up"
        @pointercancel="up"
        @keydown="key(i, $event)"
      />
    </div>
    <Notice
      :text="fault"
      @close="fault = ''"
    />
  </div>
</template>

<style scoped>
.picker {
  display: grid;
  gap: var(--gap);
  align-content: start;
}
.picture {
  position: relative;
  touch-action: none;
  max-width: 720px;
}
canvas {
  width: 100%;
  display: block;
  background: var(--well);
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
polygon {
  fill: none;
  stroke: var(--accent);
  stroke-width: 1.25px;
  vector-effect: non-scaling-stroke;
}
.corner {
  position: absolute;
  width: 24px;
  height: 24px;
  margin: -12px 0 0 -12px;
  padding: 0;
  border: 2px solid var(--accent);
  border-radius: 50%;
  background: transparent;
  cursor: move;
  touch-action: none;
}
p {
  margin: 0;
}
</style>
