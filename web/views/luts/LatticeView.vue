<script setup lang="ts">
// A LUT's entries where they send their colours, to be turned: a drag or the arrow keys.
import { onMounted, ref, watch } from 'vue'
import { applyLut, lutDomain, type Lut } from '@core/luts'
import { text } from './text'

const props = defineProps<{ lut: Lut }>()
const canvas = ref<HTMLCanvasElement | null>(null)
const turn = ref({ round: 0.7, up: 0.45 })
/** Places per axis: enough to see the shape, few enough to turn at once. */
const places = 13

function points(): { readonly at: Float64Array; readonly colour: string[] } {
  const { min, max } = lutDomain(props.lut)
  const at = new Float64Array(places ** 3 * 3)
  for (let b = 0, o = 0; b < places; b++)
    for (let g = 0; g < places; g++)
      for (let r = 0; r < places; r++, o += 3)
        [r, g, b].forEach((v, c) => {
          at[o + c] = (min[c] ?? 0) + (((max[c] ?? 0) - (min[c] ?? 0)) * v) / (places - 1)
        })
  applyLut(props.lut, at, 'tetrahedral')
  const byte = (v: number): number => Math.round(Math.min(1, Math.max(0, v)) * 255)
  return {
    at,
    colour: Array.from(
      { length: places ** 3 },
      (_, p) => `rgb(${byte(at[p * 3] ?? 0)} ${byte(at[p * 3 + 1] ?? 0)} ${byte(at[p * 3 + 2] ?? 0)})`,
    ),
  }
}
let kept: ReturnType<typeof points> | null = null

function draw(): void {
  const target = canvas.value
  const pen = target?.getContext('2d')
  if (!target || !pen) return
  const { width, height } = target.getBoundingClientRect()
  const scale = window.devicePixelRatio || 1
  target.width = width * scale
  target.height = height * scale
  kept ??= points()
  const { at, colour } = kept
  const { round, up } = turn.value
  const size = Math.min(target.width, target.height) * 0.52
  const [cr, sr, cu, su] = [Math.cos(round), Math.sin(round), Math.cos(up), Math.sin(up)]
  const project = (r: number, g: number, b: number): [number, number, number] => {
    const x = r - 0.5
    const y = g - 0.5
    const z = b - 0.5
    const across = x * cr - z * sr
    const depth = x * sr + z * cr
    return [target.width / 2 + across * size, target.height / 2 - (y * cu - depth * su) * size, y * su + depth * cu]
  }
  pen.clearRect(0, 0, target.width, target.height)
  pen.strokeStyle = getComputedStyle(target).getPropertyValue('--hairline')
  pen.lineWidth = scale
  pen.beginPath()
  for (const [a, b] of edges) {
    const [x0, y0] = project(...a)
    const [x1, y1] = project(...b)
    pen.moveTo(x0, y0)
    pen.lineTo(x1, y1)
  }
  pen.stroke()
  const order = Array.from({ length: places ** 3 }, (_, p) => ({
    p,
    place: project(at[p * 3] ?? 0, at[p * 3 + 1] ?? 0, at[p * 3 + 2] ?? 0),
  })).sort((a, b) => a.place[2] - b.place[2])
  const dot = 2.4 * scale
  for (const {
    p,
    place: [x, y],
  } of order) {
    pen.fillStyle = colour[p] ?? ''
    pen.fillRect(x - dot / 2, y - dot / 2, dot, dot)
  }
}
type Corner = [number, number, number]
const edges: readonly (readonly [Corner, Corner])[] = [0, 1, 2].flatMap((axis) =>
  [0, 1].flatMap((u) =>
    [0, 1].map((v) => {
      const corner = (t: number): Corner => {
        if (axis === 0) return [t, u, v]
        return axis === 1 ? [u, t, v] : [u, v, t]
      }
      return [corner(0), corner(1)] as const
    }),
  ),
)

let from: { x: number; y: number; round: number; up: number } | null = null
function down(e: PointerEvent): void {
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  from = { x: e.clientX, y: e.clientY, ...turn.value }
}
function move(e: PointerEvent): void {
  if (from)
    turn.value = {
      round: from.round + (e.clientX - from.x) / 120,
      up: Math.min(1.55, Math.max(-1.55, from.up + (e.clientY - from.y) / 120)),
    }
}
function key(e: KeyboardEvent): void {
  const by: Record<string, [number, number]> = {
    ArrowLeft: [-0.1, 0],
    ArrowRight: [0.1, 0],
    ArrowUp: [0, -0.1],
    ArrowDown: [0, 0.1],
  }
  const step = by[e.key]
  if (!step) return
  e.preventDefault()
  turn.value = { round: turn.value.round + step[0], up: Math.min(1.55, Math.max(-1.55, turn.value.up + step[1])) }
}
watch(turn, draw)
onMounted(draw)
</script>

<template>
  <figure>
    <figcaption
      :data-tip="text.charts.latticeTip"
      class="quiet"
    >
      {{ text.charts.lattice }}
    </figcaption>
    <canvas
      ref="canvas"
      tabindex="0"
      role="img"
      :aria-label="text.charts.latticeTip"
      data-testid="lattice"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="from = null"
      @keydown="key"
    />
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: grid;
  grid-template-rows: auto 1fr;
  min-height: 0;
  min-width: 0;
}
figcaption {
  font-size: 11px;
}
canvas {
  width: 100%;
  height: 100%;
  min-height: 0;
  background: var(--well);
  touch-action: none;
  cursor: grab;
}
</style>
