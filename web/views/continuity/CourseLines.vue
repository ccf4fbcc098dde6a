<script setup lang="ts">
// The measures of the shots that stand below, one line each: what jumps at a cut is thick.
import { computed } from 'vue'
import { printLine, type Jump, type SceneLine } from '@core/continuity'
import type { ShotSummary } from '@contracts/responses'
import { text } from './text'

const props = defineProps<{
  shots: readonly ShotSummary[]
  lines: readonly SceneLine[]
  jumps: readonly Jump[]
  /** The first shot below, and how many. */
  first: number
  count: number
  /** Pixels: of the names, and of a shot. */
  labels: number
  column: number
}>()
const lineHeight = 20

interface Point {
  readonly x: number
  readonly y: number
  readonly words: string
}
interface Cut {
  readonly d: string
  readonly jump: Jump | null
}
/** All rows share the scale of a line, so that they can be held against each other. */
const drawn = computed(() =>
  props.lines
    .filter((line) => line.values.some((v) => v !== null))
    .map((line, n) => {
      const known = line.values.flatMap((v) => (v === null ? [] : [v]))
      const [low, high] = [Math.min(...known), Math.max(...known)]
      // What differs by less than is seen looks flat.
      const span = Math.max(high - low, 3 * line.step)
      const xOf = (i: number): number => props.labels + (i - props.first + 0.5) * props.column
      const yOf = (v: number): number => (n + 0.5 - ((v - (low + high) / 2) / span) * 0.55) * lineHeight
      const here = Array.from({ length: props.count }, (_, i) => props.first + i)
      return {
        line,
        key: `${line.id} ${line.of ?? ''}`,
        label: line.of ? `${line.of}, ${line.name.toLowerCase()}` : line.name,
        base: (n + 0.5) * lineHeight + 4,
        points: here.flatMap((i): Point[] => {
          const v = line.values[i] ?? null
          return v === null ? [] : [{ x: xOf(i), y: yOf(v), words: printLine(line, v, line.id === 'warmth') }]
        }),
        cuts: here.flatMap((i): Cut[] => {
          const [before, v] = [line.values[i - 1] ?? null, line.values[i] ?? null]
          if (v === null || before === null) return []
          const jump = props.jumps.find((j) => j.line.id === line.id && j.line.of === line.of && j.at === i) ?? null
          return [{ d: `M${xOf(i - 1)} ${yOf(before)}L${xOf(i)} ${yOf(v)}`, jump }]
        }),
      }
    }),
)
const wordsOf = ({ words, at }: Jump): string =>
  text.jump(words, props.shots[at - 1]?.name ?? '', props.shots[at]?.name ?? '')
</script>

<template>
  <svg
    v-if="drawn.length"
    :height="drawn.length * lineHeight"
    :width="labels + count * column"
    aria-hidden="true"
  >
    <g
      v-for="l in drawn"
      :key="l.key"
    >
      <path
        v-for="(c, i) in l.cuts"
        :key="i"
        :class="{ jump: c.jump }"
        :data-tip="c.jump ? wordsOf(c.jump) : undefined"
        :d="c.d"
      />
      <rect
        x="0"
        :y="l.base - 14"
        :width="labels - 4"
        :height="lineHeight"
      />
      <text
        :data-tip="text.lineTips[l.line.id]"
        x="0"
        :y="l.base"
      >
        {{ l.label }}
      </text>
      <template
        v-for="p in l.points"
        :key="p.x"
      >
        <circle
          :cx="p.x"
          :cy="p.y"
          r="2.5"
        />
        <rect
          :x="p.x + 5"
          :y="l.base - 11"
          :width="p.words.length * 6.4 + 4"
          height="14"
        />
        <text
          class="value"
          :x="p.x + 7"
          :y="l.base"
        >
          {{ p.words }}
        </text>
      </template>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
path {
  fill: none;
  stroke: var(--hairline-strong);
  stroke-width: 1.25;
}
path.jump {
  stroke: var(--warning);
  stroke-width: 3;
}
/* Words stand on the ground, not on a line. */
rect {
  fill: var(--surround);
}
circle {
  fill: var(--ink);
}
text {
  fill: var(--ink-quiet);
  font: 11px var(--face);
}
.value {
  font-family: var(--face-figures);
  font-size: 10.5px;
  fill: var(--ink);
}
</style>
