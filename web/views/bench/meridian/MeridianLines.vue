<script setup lang="ts">
// The Meridian's drawing: seven percentile lines of luma and the bands between them, those of a marked part, and where
// two lines have run together.
import { computed } from 'vue'
import { stations } from '@core/grade'
import { mergesOf, type Meridian } from '@core/instruments'
import { bandOf, lineNames, linesOf, pathOf, planeHeight, planeWidth, yOf } from './meridian-paths'

const props = defineProps<{
  meridian: Meridian | null
  part: Meridian | null
  /** The picture is shown as shot: the lines are not of what is seen. */ faded: boolean
}>()

const lines = computed(() => (props.meridian ? linesOf(props.meridian) : []))
const paths = computed(() => lines.value.map(pathOf))
const bands = computed(() =>
  (
    [
      [0, 6],
      [1, 5],
      [2, 4],
    ] as const
  ).flatMap(([a, b]) => {
    const lower = lines.value[a]
    const upper = lines.value[b]
    return lower && upper ? [bandOf(lower, upper)] : []
  }),
)
const partPaths = computed(() =>
  props.part
    ? linesOf(props.part)
        .filter((_, i) => i === 2 || i === 3 || i === 4)
        .map(pathOf)
    : [],
)
const labels = computed(() => {
  let last = Infinity
  // From the top down; names that would touch are left out, the middle one never.
  return lines.value
    .map((list, i) => ({ name: lineNames[i] ?? '', at: yOf(list.at(-1) ?? 0), level: list.at(-1) ?? 0 }))
    .filter(({ at, name }) => {
      const far = last - at > 11 || name === '50'
      if (far) last = at
      return far
    })
})
const merges = computed(() =>
  props.meridian
    ? mergesOf(props.meridian).map((m) => ({
        ...m,
        x: stations.findIndex((s) => s.id === m.station) * 100 + 56,
        y: yOf(m.level),
      }))
    : [],
)
</script>

<template>
  <svg
    :class="{ faded }"
    :viewBox="`0 0 ${planeWidth} ${planeHeight}`"
    preserveAspectRatio="none"
    aria-hidden="true"
  >
    <path
      v-for="(d, i) in bands"
      :key="`b${i}`"
      class="band"
      :d="d"
      fill-rule="evenodd"
    />
    <path
      v-for="(d, i) in paths"
      :key="i"
      class="line"
      :class="{ middle: i === 3, end: i === 0 || i === 6 }"
      :d="d"
      data-testid="meridian-line"
    />
    <path
      v-for="(d, i) in partPaths"
      :key="`p${i}`"
      class="part"
      :class="{ middle: i === 1 }"
      :d="d"
      data-testid="meridian-part"
    />
  </svg>
  <span
    v-for="(m, i) in merges"
    :key="`m${i}`"
    class="merge"
    :style="{ left: `${(m.x / planeWidth) * 100}%`, top: `calc(24px + (100% - 24px) * ${m.y / planeHeight})` }"
    aria-hidden="true"
    data-testid="merge"
  />
  <span
    v-for="l in labels"
    :key="l.name"
    class="label figures"
    :style="{ top: `calc(24px + (100% - 24px) * ${l.at / planeHeight})` }"
    aria-hidden="true"
  >
    <span class="quiet">{{ l.name }}</span>
  </span>
</template>

<style scoped>
/* A layer of its own: lines that move do not have the words over them drawn again. */
svg {
  position: absolute;
  inset: 24px 0 0;
  width: 100%;
  height: calc(100% - 24px);
  will-change: transform;
}
.line {
  fill: none;
  stroke: var(--hairline-strong);
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
}
.line.end {
  stroke: var(--ink-quiet);
  stroke-dasharray: 1 3;
}
.line.middle {
  stroke: var(--accent);
  stroke-width: 2px;
}
.part {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1px;
  stroke-dasharray: 5 3;
  vector-effect: non-scaling-stroke;
  opacity: 0.75;
}
.part.middle {
  stroke-width: 1.75px;
  opacity: 1;
}
.band {
  fill: var(--ink);
  opacity: 0.06;
}
.merge {
  position: absolute;
  width: 0;
  height: 0;
  margin: -4px 0 0 -1px;
  border: 4px solid transparent;
  border-right: 7px solid var(--warning);
  border-left: 0;
  pointer-events: none;
}
.label {
  position: absolute;
  right: 3px;
  padding: 0 2px;
  font-size: 9.5px;
  line-height: 11px;
  background: var(--panel);
  transform: translateY(-50%);
  pointer-events: none;
}
svg.faded {
  opacity: 0.3;
}
</style>
