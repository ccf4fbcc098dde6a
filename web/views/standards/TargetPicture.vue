<script setup lang="ts">
// A standard's targets drawn on a waveform's scale: bands of black, middle, white and skin over a made-up trace.
import { computed } from 'vue'
import { printValue, readingKind, type ReadingId, type Targets } from '@core/readings'
import { text } from './text'

const props = defineProps<{ targets: Targets }>()
const levels: readonly ReadingId[] = ['white', 'skinLuma', 'middle', 'black']
const low = -0.05
const high = 1.05
const y = (level: number): number => ((high - level) / (high - low)) * 100
const bands = computed(() =>
  levels.flatMap((id) => {
    const target = props.targets[id]
    return target
      ? [
          {
            id,
            name: readingKind(id).name,
            top: y(target.high),
            height: Math.max(0.8, y(target.low) - y(target.high)),
            words: `${printValue(target.low, 'percent')}–${printValue(target.high, 'percent')} %`,
          },
        ]
      : []
  }),
)
/** Where a scene would lie that meets the standard: from the middle of black's band to the middle of white's. */
const trace = computed(() => {
  const middleOf = (id: ReadingId, otherwise: number): number => {
    const t = props.targets[id]
    return t ? (t.low + t.high) / 2 : otherwise
  }
  const bottom = middleOf('black', 0.06)
  const top = middleOf('white', 0.8)
  const points: string[] = []
  for (let x = 0; x <= 200; x += 2) {
    const wave = 0.5 + 0.5 * Math.sin(x / 17) * Math.cos(x / 41)
    points.push(`${x / 2},${y(bottom + (top - bottom) * (0.55 + 0.45 * wave))}`)
  }
  for (let x = 200; x >= 0; x -= 2)
    points.push(`${x / 2},${y(bottom + (top - bottom) * 0.3 * (0.5 + 0.5 * Math.sin(x / 23)))}`)
  return points.join(' ')
})
const lines = [0, 25, 50, 75, 100]
</script>

<template>
  <figure :aria-label="text.picture">
    <div class="plot">
      <svg
        viewBox="0 0 100 100"
        preserveAspectRatio="none"
        aria-hidden="true"
      >
        <polygon
          class="trace"
          :points="trace"
        />
      </svg>
      <span
        v-for="l in lines"
        :key="l"
        class="line"
        :style="{ top: `${y(l / 100)}%` }"
      >
        <span class="figures">{{ l }}</span>
      </span>
      <div
        v-for="b in bands"
        :key="b.id"
        class="band"
        :class="b.id"
        :style="{ top: `${b.top}%`, height: `${b.height}%` }"
        :data-band="b.id"
      >
        <span>
          {{ b.name }}
          <span class="figures">{{ b.words }}</span>
        </span>
      </div>
    </div>
    <figcaption
      v-if="bands.length === 0"
      class="quiet"
    >
      {{ text.noLevels }}
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
.plot {
  position: relative;
  height: 260px;
  margin-left: 34px;
  background: var(--well);
  border: var(--line) solid var(--hairline);
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.trace {
  fill: var(--ink);
  opacity: 0.12;
}
.line {
  position: absolute;
  left: 0;
  right: 0;
  height: 1px;
  background: var(--hairline);
}
.line span {
  position: absolute;
  right: 100%;
  padding-right: 6px;
  transform: translateY(-50%);
  font-size: 10px;
  color: var(--ink-quiet);
}
.band {
  position: absolute;
  left: 0;
  right: 0;
  background: rgb(233 226 207 / 26%);
  border-block: 1px solid var(--accent);
}
.band > span {
  position: absolute;
  left: var(--gap);
  top: 50%;
  transform: translateY(-50%);
  font-size: 11px;
  background: var(--well);
  padding: 0 var(--gap-small);
  white-space: nowrap;
}
.skinLuma > span {
  left: auto;
  right: var(--gap);
}
</style>
