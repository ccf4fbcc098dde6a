<script setup lang="ts">
// Tone curves: one for all channels and one for each, over the tones of the picture, in stops from middle grey.
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useGesture } from '../../../composables/useGesture'
import { logAtStops, logPerStop, stopsAtLog } from '@core/colour'
import {
  addCurvePoint,
  monotoneCurve,
  moveCurvePoint,
  stepKindById,
  type CurvePoint,
  type NumberParameter,
  type Step,
} from '@core/grade'
import { lowestStops } from '@core/instruments'
import ScaleControl from '../../../components/ScaleControl.vue'
import SegmentedChoice from '../../../components/SegmentedChoice.vue'
import { usePicking } from '../../../stores/picking'
import { text } from '../text'
import CurveField from './CurveField.vue'
import PointNumbers from './PointNumbers.vue'
import { toneChannelChoices, type ToneChannel } from './tone-channels'
import DistributionBehind from './DistributionBehind.vue'

const props = defineProps<{ step: Step }>()
const channel = defineModel<ToneChannel>('channel', { default: 'points' })
const emit = defineEmits<{ change: [key: string, value: number | readonly CurvePoint[]] }>()
const gesture = useGesture()
const picking = usePicking()

const chosen = ref(0)
watch(channel, () => {
  chosen.value = 0
  picking.stop()
})
const points = computed(() => props.step.params[channel.value] as readonly CurvePoint[])
const point = computed(() => points.value[chosen.value] ?? points.value[0])
const range = [logAtStops(-7.4), logAtStops(8.4)] as const
const ticks = [-6, -4, -2, 0, 2, 4, 6, 8].map((s) => ({ at: logAtStops(s), strong: s === 0 }))
const strengthKey = computed(() => (channel.value === 'points' ? null : `${channel.value}Strength`))
const strength = computed(() =>
  strengthKey.value ? (stepKindById('tone-curve').parameters[strengthKey.value] as NumberParameter) : null,
)
const steep = computed(() =>
  (picking.distribution?.steep ?? []).map(({ from, to }) => ({ from: logAtStops(from), to: logAtStops(to) })),
)
const slope = computed(() => {
  const curve = monotoneCurve(points.value)
  const at = point.value?.x ?? range[0]
  return (curve(at + 0.002) - curve(at - 0.002)) / 0.004
})
const stops = (v: number): string => {
  const s = stopsAtLog(v)
  return `${s >= 0 ? '+' : '−'}${Math.abs(s).toFixed(1)}`
}
const set = (next: readonly CurvePoint[]): void => emit('change', channel.value, next)
function type(to: { readonly x: number; readonly y: number }): void {
  set(
    moveCurvePoint(
      points.value,
      Math.min(chosen.value, points.value.length - 1),
      { x: logAtStops(to.x), y: logAtStops(to.y) },
      -0.3,
      1.3,
    ),
  )
}

/** A tone picked in the picture is a point: one that is near is taken, else a new one. */
function pick(): void {
  let index = 0
  let from = 0
  picking.toggle({
    id: `tone-${channel.value}`,
    station: 'shape',
    side: props.step.side,
    begin: (colour) => {
      const x = Math.min(range[1], Math.max(range[0], logAtStops(colour.stops)))
      const near = points.value.findIndex((p) => Math.abs(p.x - x) < logPerStop * 0.4)
      gesture.begin()
      const taken = near < 0 ? addCurvePoint(points.value, { x, y: monotoneCurve(points.value)(x) }) : points.value
      index = near < 0 ? taken.findIndex((p) => p.x === x) : near
      from = taken[index]?.y ?? x
      if (near < 0) set(taken)
      chosen.value = index
    },
    drag: (up) => {
      const here = points.value[index]
      if (here)
        set(moveCurvePoint(points.value, index, { x: here.x, y: from + up * 5 * logPerStop }, range[0], range[1]))
    },
    end: gesture.end,
  })
}
onBeforeUnmount(() => picking.stop())
</script>

<template>
  <div
    class="curves"
    :data-step="step.id"
  >
    <div class="bar">
      <slot name="choices">
        <SegmentedChoice
          v-model="channel"
          :label="text.curve.label"
          :options="toneChannelChoices(step)"
        />
      </slot>
      <button
        :data-tip="text.picking.toneTip"
        type="button"
        :aria-pressed="picking.active === `tone-${channel}`"
        @click="pick"
      >
        {{ text.picking.tone }}
      </button>
      <PointNumbers
        v-if="point"
        :x="stopsAtLog(point.x)"
        :y="stopsAtLog(point.y)"
        :x-label="text.curve.at"
        :y-label="text.curve.to"
        unit=""
        y-unit="stops"
        :decimals="2"
        @set="type"
      />
      <span
        :data-tip="text.curve.slopeTip"
        class="figures quiet"
        data-testid="curve-slope"
      >
        {{ text.curve.slope(slope.toFixed(2)) }}
      </span>
      <span
        v-if="steep.length"
        :data-tip="text.curve.steepTip"
        class="warn"
      >
        ▲ {{ text.curve.steep }}
      </span>
      <ScaleControl
        v-if="strength && strengthKey"
        class="strength"
        :parameter="strength"
        :model-value="Number(step.params[strengthKey])"
        :data-control="strengthKey"
        @update:model-value="emit('change', strengthKey, $event)"
      />
    </div>
    <CurveField
      :points="points"
      :x="range"
      :y="range"
      :x-ticks="ticks"
      :y-ticks="ticks"
      :label="text.curve.channels[channel]"
      :point-label="(p) => text.curve.point(stops(p.x), stops(p.y))"
      test-id="tone-curve"
      :step="[logPerStop / 10, logPerStop / 10]"
      :marked="steep"
      @change="set"
      @chosen="chosen = $event"
    >
      <DistributionBehind
        v-if="picking.distribution?.distribution"
        :counts="picking.distribution.distribution.tones"
        :from="logAtStops(lowestStops)"
        :to="logAtStops(lowestStops + picking.distribution.distribution.tones.length / 4)"
        :x="range"
      />
    </CurveField>
    <p class="figures quiet ends">
      <span>−7.4</span>
      <span>{{ text.curve.help }}</span>
      <span>+8.4 stops</span>
    </p>
  </div>
</template>

<style scoped src="./curves.css" />
