<!-- Long: one control: patches by pointer and by keys on one picture. -->

<script setup lang="ts">
// Patches on a frame: drag a box over each; it takes the next step of light. Frames may change between patches (a
// bracketed card).
import { clamp01 } from '@core/numbers'
import { computed, ref, shallowRef, watch } from 'vue'
import { ElButton } from 'element-plus'
import type { NumberParameter } from '@core/grade'
import type { Box } from '@core/image'
import type { Patch } from '@core/measure'
import type { ShotDetail } from '@contracts/responses'
import { sentenceOf } from '../../api/client'
import Notice from '../../components/Notice.vue'
import ScaleControl from '../../components/ScaleControl.vue'
import { putImage } from '../../composables/putImage'
import { useCameraWorker } from '../../composables/useCameraWorker'
import { text } from './text'

const props = defineProps<{ shot: ShotDetail; frame: number; how: string }>()
const emit = defineEmits<{ patches: [patches: readonly Patch[]]; frame: [frame: number] }>()
const worker = useCameraWorker()

interface Picked {
  readonly box: Box
  readonly frame: number
  readonly code: number
  linear: number
}
const picked = ref<Picked[]>([])
const canvas = ref<HTMLCanvasElement | null>(null)
const dragged = shallowRef<Box | null>(null)
const stepStops = ref(1)
const firstLight = ref(0.18)
const fault = ref('')
const stepParameter: NumberParameter = {
  type: 'number',
  label: text.measure.steps,
  tip: text.measure.stepsTip,
  unit: 'stops',
  min: -4,
  max: 4,
  scale: [-2, 2],
  default: 1,
  step: 0.1,
  decimals: 2,
  signed: true,
}
const firstParameter: NumberParameter = {
  type: 'number',
  label: text.measure.first,
  tip: text.measure.firstTip,
  unit: 'light',
  min: 0.0005,
  max: 100,
  scale: [0.005, 1],
  default: 0.18,
  step: 0.01,
  decimals: 3,
}
const frameParameter = computed<NumberParameter>(() => ({
  type: 'number',
  label: text.measure.frameNumber,
  tip: 'The frame patches are taken from; it may change between patches.',
  unit: '',
  min: 0,
  max: props.shot.media.frameCount - 1,
  default: props.shot.leadFrame,
  step: 1,
  decimals: 0,
}))
const where = computed(() => ({
  mediaHash: props.shot.media.hash,
  frameIndex: props.frame,
  range: props.shot.media.range,
}))
const boxesHere = computed(() =>
  picked.value.map((p, i) => ({ ...p, number: i + 1 })).filter((p) => p.frame === props.frame),
)

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
watch(
  picked,
  (list) =>
    emit(
      'patches',
      list.map(({ code, linear }) => ({ code, linear })),
    ),
  { deep: true },
)
watch([stepStops, firstLight], () => {
  picked.value = picked.value.map((p, i) => ({ ...p, linear: firstLight.value * 2 ** (stepStops.value * i) }))
})

let from: { x: number; y: number } | null = null
function place(e: PointerEvent): { x: number; y: number } {
  const r = (e.currentTarget as HTMLElement).getBoundingClientRect()
  return { x: clamp01((e.clientX - r.left) / r.width), y: clamp01((e.clientY - r.top) / r.height) }
}
function down(e: PointerEvent): void {
  if (e.button !== 0) return
  ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
  from = place(e)
}
function move(e: PointerEvent): void {
  if (!from) return
  const to = place(e)
  dragged.value = {
    x: Math.min(from.x, to.x),
    y: Math.min(from.y, to.y),
    width: Math.abs(to.x - from.x),
    height: Math.abs(to.y - from.y),
  }
}
async function up(): Promise<void> {
  const start = from
  const box = dragged.value
  from = null
  dragged.value = null
  // A click takes a small box about it.
  if (start)
    await add(
      box && box.width > 0.005 && box.height > 0.005
        ? box
        : { x: Math.max(0, start.x - 0.01), y: Math.max(0, start.y - 0.015), width: 0.02, height: 0.03 },
    )
}
async function add(box: Box): Promise<void> {
  try {
    const [mean] = await worker.ask('patches', { boxes: [box], ...where.value })
    if (mean)
      picked.value = [
        ...picked.value,
        {
          box,
          frame: props.frame,
          code: mean[1],
          linear: firstLight.value * 2 ** (stepStops.value * picked.value.length),
        },
      ]
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}
/** From the keyboard: a box in the middle that the arrow keys move, Enter takes. */
const cursor = shallowRef<Box | null>(null)
function key(e: KeyboardEvent): void {
  const by = e.shiftKey ? 0.05 : 0.01
  const moves: Record<string, readonly [number, number]> = {
    ArrowLeft: [-by, 0],
    ArrowRight: [by, 0],
    ArrowUp: [0, -by],
    ArrowDown: [0, by],
  }
  const moved = moves[e.key]
  const at = cursor.value ?? { x: 0.48, y: 0.47, width: 0.04, height: 0.06 }
  if (moved)
    cursor.value = {
      ...at,
      x: Math.min(1 - at.width, Math.max(0, at.x + moved[0])),
      y: Math.min(1 - at.height, Math.max(0, at.y + moved[1])),
    }
  else if (e.key === 'Enter') void add(at)
  else if (e.key === 'Delete' || e.key === 'Backspace') picked.value = picked.value.slice(0, -1)
  else return
  e.preventDefault()
}
const styleOf = (b: Box): Record<string, string> => ({
  left: `${b.x * 100}%`,
  top: `${b.y * 100}%`,
  width: `${b.width * 100}%`,
  height: `${b.height * 100}%`,
})
function setLight(index: number, typed: string): void {
  const value = Number(typed.replace(',', '.'))
  if (Number.isFinite(value)) picked.value = picked.value.map((p, i) => (i === index ? { ...p, linear: value } : p))
}
</script>

<template>
  <div class="picker">
    <p class="quiet">{{ how }}</p>
    <div
      class="picture"
      tabindex="0"
      role="application"
      aria-label="Patches: arrow keys move a box, Enter takes it, Delete removes the last"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="from = null"
      @keydown="key"
    >
      <canvas
        ref="canvas"
        role="img"
        :aria-label="`${shot.name}, frame ${frame}, as shot`"
      />
      <span
        v-for="p in boxesHere"
        :key="p.number"
        class="box figures"
        :style="styleOf(p.box)"
      >
        {{ p.number }}
      </span>
      <span
        v-if="dragged"
        class="box"
        :style="styleOf(dragged)"
      />
      <span
        v-if="cursor"
        class="box cursor"
        :style="styleOf(cursor)"
      />
    </div>
    <div class="numbers">
      <ScaleControl
        :parameter="frameParameter"
        :model-value="frame"
        data-control="frame"
        @update:model-value="emit('frame', Math.round($event))"
      />
      <ScaleControl
        :parameter="firstParameter"
        :model-value="firstLight"
        data-control="first-light"
        @update:model-value="firstLight = $event"
      />
      <ScaleControl
        :parameter="stepParameter"
        :model-value="stepStops"
        data-control="step-stops"
        @update:model-value="stepStops = $event"
      />
    </div>
    <ul
      v-if="picked.length"
      class="lights"
    >
      <li
        v-for="(p, i) in picked"
        :key="i"
      >
        <span class="figures">{{ i + 1 }}</span>
        <input
          class="field figures"
          inputmode="decimal"
          :aria-label="`Light of patch ${i + 1}`"
          :value="p.linear.toPrecision(4)"
          @change="setLight(i, ($event.target as HTMLInputElement).value)"
        />
        <button
          type="button"
          :aria-label="`${text.measure.removePatch} ${i + 1}`"
          @click="picked = picked.filter((_, n) => n !== i)"
        >
          ×
        </button>
      </li>
    </ul>
    <ElButton
      v-if="picked.length"
      size="small"
      class="clear"
      @click="picked = []"
    >
      {{ text.measure.clear }}
    </ElButton>
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
  cursor: crosshair;
  max-width: 720px;
}
canvas {
  width: 100%;
  display: block;
  background: var(--well);
}
.box {
  position: absolute;
  border: 1px solid var(--accent);
  color: var(--accent);
  font-size: var(--text-small);
  pointer-events: none;
  text-shadow: 0 0 2px var(--well);
}
.cursor {
  border-style: dashed;
}
.numbers {
  display: grid;
  gap: var(--gap-hair);
  max-width: 620px;
}
.lights {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-small) var(--gap-wide);
  list-style: none;
  margin: 0;
  padding: 0;
}
.lights li {
  display: flex;
  align-items: center;
  gap: var(--gap-small);
}
.lights input {
  width: 76px;
  text-align: right;
}
.lights button {
  background: none;
  border: 0;
  color: var(--ink-quiet);
}
.clear {
  justify-self: start;
}
p {
  margin: 0;
}
</style>
