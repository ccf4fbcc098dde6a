<script setup lang="ts">
// The clip from its first to its last frame: how good the track is at each, keyframes, and where the shape is hidden. A
// press goes there.
import { computed } from 'vue'
import { presenceAt, trackFrames, type Motion } from '@core/regions'
import { text } from '../text'

const props = defineProps<{
  motion: Motion | null
  first: number
  last: number
  frame: number
  stopped: number | null
}>()
const emit = defineEmits<{ go: [frame: number] }>()
const { motion: words } = text.regions
const span = computed(() => Math.max(1, props.last - props.first))
const toX = (frame: number): number => ((frame - props.first) / span.value) * 100
const track = computed(() => props.motion?.track ?? null)
/**
 * Points that agree, from nothing below to all above; residuals from nothing above to two pixels of a frame 540 high
 * below.
 */
const agreeing = computed(() => lineOf((q) => 28 - 26 * (q[0] ?? 0)))
const residual = computed(() => lineOf((q) => 2 + 26 * Math.min(1, (q[1] ?? 0) / (2000 / 540))))
function lineOf(y: (quality: readonly number[]) => number): string {
  const t = track.value
  return t
    ? Array.from(
        { length: trackFrames(t) },
        (_, i) =>
          `${i === 0 ? 'M' : 'L'} ${toX(t.first + i).toFixed(2)} ${y(t.quality.slice(i * 2, i * 2 + 2)).toFixed(2)}`,
      ).join(' ')
    : ''
}
const hidden = computed(() => {
  const out: { from: number; to: number }[] = []
  if (props.motion?.shown.length)
    for (let f = props.first; f <= props.last; f++) {
      if (presenceAt(props.motion, f) >= 1) continue
      const lastOne = out.at(-1)
      if (lastOne && lastOne.to === f - 1) lastOne.to = f
      else out.push({ from: f, to: f })
    }
  return out
})
function press(e: PointerEvent): void {
  if (e.button !== 0 && e.type === 'pointerdown') return
  const box = (e.currentTarget as Element).getBoundingClientRect()
  emit('go', Math.round(props.first + Math.min(1, Math.max(0, (e.clientX - box.left) / box.width)) * span.value))
}
</script>

<template>
  <svg
    class="strip"
    viewBox="0 0 100 30"
    preserveAspectRatio="none"
    role="img"
    :aria-label="words.strip"
    data-testid="motion-strip"
    @pointerdown="press"
  >
    <defs>
      <pattern
        id="hidden-hatch"
        width="1"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(20)"
      >
        <rect
          width="0.4"
          height="6"
          class="hatch"
        />
      </pattern>
    </defs>
    <rect
      v-for="h in hidden"
      :key="h.from"
      :x="toX(h.from)"
      y="0"
      :width="Math.max(0.5, toX(h.to) - toX(h.from))"
      height="30"
      fill="url(#hidden-hatch)"
    />
    <path
      class="residual"
      :d="residual"
    />
    <path
      class="agreeing"
      :d="agreeing"
    />
    <line
      v-if="track"
      class="reference"
      :x1="toX(track.reference)"
      :x2="toX(track.reference)"
      y1="0"
      y2="30"
    />
    <line
      v-if="stopped !== null"
      class="stopped"
      :x1="toX(stopped)"
      :x2="toX(stopped)"
      y1="0"
      y2="30"
    />
    <rect
      v-for="k in motion?.keys ?? []"
      :key="k.frame"
      class="key"
      :x="toX(k.frame) - 0.4"
      y="11"
      width="0.8"
      height="8"
    >
      <title>{{ words.keyAt(k.frame - first) }}</title>
    </rect>
    <line
      class="now"
      :x1="toX(frame)"
      :x2="toX(frame)"
      y1="0"
      y2="30"
    />
  </svg>
</template>

<style scoped>
.strip {
  width: 100%;
  height: 28px;
  background: var(--well);
  border: var(--line) solid var(--hairline);
  cursor: pointer;
  touch-action: none;
}
path,
line {
  fill: none;
  vector-effect: non-scaling-stroke;
}
.agreeing {
  stroke: var(--ink);
  stroke-width: 1.5px;
}
.residual {
  stroke: var(--ink-quiet);
  stroke-width: 1px;
  stroke-dasharray: 3 2;
}
.reference {
  stroke: var(--ink-quiet);
  stroke-width: 1px;
}
.stopped {
  stroke: var(--warning);
  stroke-width: 2px;
}
.now {
  stroke: var(--accent);
  stroke-width: 2px;
}
.key {
  fill: var(--accent);
}
.hatch {
  fill: var(--hairline-strong);
}
</style>
