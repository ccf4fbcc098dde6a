<script setup lang="ts">
// A drawn part kept as it is along the clip: its tone, or neutral; what came of it stands beside, in numbers.
import { computed } from 'vue'
import { steadyUnits, type SteadyKind } from '@core/steady'
import { useKeys } from '../../../stores/keys'
import { usePalette } from '../../../stores/palette'
import { useSteadying } from '../../../stores/steadying'
import { useTracking } from '../../../stores/tracking'
import { sharePercent } from '../figures'
import { useBench } from '../session/bench'
import { text } from '../text'

const bench = useBench()
const steadying = useSteadying()
const tracking = useTracking()
const keys = useKeys()
const { steady: words } = text
const kinds: readonly SteadyKind[] = ['tone', 'neutral']
const area = computed(() => {
  const { value: part } = bench.marking.drawnPart
  return part && { left: part.left, top: part.top, right: part.right, bottom: part.bottom }
})
/** What stands in the way. */
const obstacle = computed(() => {
  if (!tracking.clip?.medium.proxy) return words.noProxy
  return area.value ? '' : words.noPart(keys.keys.part)
})
function keep(kind: SteadyKind): void {
  if (area.value && !obstacle.value) void steadying.keep(kind, area.value, words.edited[kind])
}
const shown = (frame: number): number => frame - bench.first.value
const number = (kind: SteadyKind, value: number): string => value.toFixed(kind === 'tone' ? 2 : 0)
const told = computed<readonly string[]>(() => {
  if (steadying.fault) return [steadying.fault]
  const { outcome } = steadying
  if (!outcome) return []
  const { kind, answer } = outcome
  const { solved, lost, losses } = answer
  if (lost === 'flat') return [words.lost.flat()]
  const ended = lost ? [words.lost[lost](shown(answer.from), shown(answer.to))] : []
  if (typeof solved === 'string') return [words.unsteady[solved], ...ended]
  return [
    words.kept[kind](words.marks(solved.marks), number(kind, solved.after), number(kind, solved.before)),
    ...ended,
    ...(solved.leftOut > 0 ? [words.leftOut(solved.leftOut)] : []),
    ...(solved.limited ? [words.limited] : []),
    ...losses.map((l) => words.loss(shown(l.frame), l.what, sharePercent(l.before), sharePercent(l.after))),
  ]
})
/** Something of it is not as it was wanted. */
const warns = computed(() => {
  const { outcome } = steadying
  if (steadying.fault || !outcome) return steadying.fault !== ''
  const { solved, lost, losses } = outcome.answer
  if (lost || losses.length > 0) return true
  if (typeof solved === 'string') return solved !== 'steady'
  return solved.limited || solved.after > steadyUnits[outcome.kind].still
})
usePalette().offer(() =>
  kinds.map((kind) => ({ id: `steady ${kind}`, group: 'Working', name: words.keep[kind], run: () => keep(kind) })),
)
</script>

<template>
  <div
    class="steady"
    role="group"
    :aria-label="words.title"
  >
    <template v-if="steadying.running">
      <progress
        max="1"
        :value="steadying.share"
        :aria-label="words.keep[steadying.running]"
      />
      <span class="figures quiet">{{ words.running(Math.round(steadying.share * 100)) }}</span>
      <button
        type="button"
        class="button"
        @click="steadying.cancel"
      >
        {{ words.cancel }}
      </button>
    </template>
    <template v-else>
      <button
        v-for="kind in kinds"
        :key="kind"
        type="button"
        class="button"
        :data-tip="obstacle || words.tip[kind]"
        :aria-disabled="obstacle !== ''"
        @click="keep(kind)"
      >
        {{ words.keep[kind] }}
      </button>
      <span
        v-if="!told.length && obstacle"
        class="quiet"
      >
        {{ obstacle }}
      </span>
    </template>
    <p
      v-if="told.length"
      class="told figures"
      :class="{ warning: warns }"
      role="status"
      data-testid="steady-told"
    >
      {{ warns ? '▲ ' : '' }}{{ told.join(' ') }}
      <button
        type="button"
        class="button"
        @click="steadying.dismiss"
      >
        {{ words.dismiss }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.steady {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-small);
  align-items: center;
  font-size: 12px;
}
progress {
  width: 120px;
  accent-color: var(--accent);
}
.told {
  margin: 0;
  flex: 1 1 320px;
}
.button[aria-disabled='true'] {
  color: var(--ink-quiet);
}
</style>
