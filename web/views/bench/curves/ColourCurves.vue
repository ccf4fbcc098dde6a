<script setup lang="ts">
// Colour curves: five, one at a time, over the picture's own colours. A colour picked in the picture becomes a hump
// that width and softness shape.
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { useGesture } from '../../../composables/useGesture'
import {
  addCurvePoint,
  amountAt,
  colourCurve,
  colourCurveIds,
  colourCurves,
  pushBounds,
  setPush,
  tears,
  type ColourCurveId,
  type ColourPush,
  type CurvePoint,
  type NumberParameter,
  type Step,
} from '@core/grade'
import { lowestStops, type PlaceColour } from '@core/instruments'
import ScaleControl from '../../../components/ScaleControl.vue'
import { usePicking } from '../../../stores/picking'
import { hueWheel } from '../../../design/hue-wheel'
import { text } from '../text'
import CurveField from './CurveField.vue'
import PointNumbers from './PointNumbers.vue'
import SpreadBehind from './Spread.vue'

const props = defineProps<{ step: Step }>()
const emit = defineEmits<{ change: [key: string, value: readonly CurvePoint[]] }>()
const gesture = useGesture()
const picking = usePicking()

const curveId = ref<ColourCurveId>('hueByHue')
const chosen = ref(0)
const push = shallowRef<ColourPush | null>(null)
watch(curveId, () => {
  chosen.value = 0
  push.value = null
  picking.stop()
})
const declared = computed(() => colourCurves[curveId.value])
const points = computed(() => props.step.params[curveId.value] as readonly CurvePoint[])
const byHue = computed(() => 'periodic' in declared.value)
const words = computed(() => text.colourCurves[curveId.value])
const x = computed(() => [declared.value.x.min, declared.value.x.max] as const)
/** The field shows what hands use; typing reaches the rest. */
const shownY: Readonly<Record<ColourCurveId, readonly [number, number]>> = {
  hueByHue: [-40, 40],
  saturationByHue: [0, 2],
  lightnessByHue: [-1.5, 1.5],
  saturationByLightness: [0, 2],
  saturationBySaturation: [0, 2],
}
const y = computed(() => shownY[curveId.value])
const every: Readonly<Record<ColourCurveId, readonly [number, number]>> = {
  hueByHue: [30, 10],
  saturationByHue: [30, 0.5],
  lightnessByHue: [30, 0.5],
  saturationByLightness: [2, 0.5],
  saturationBySaturation: [0.1, 0.5],
}
const ticksOf = (from: number, to: number, step: number, strong: number | null): { at: number; strong: boolean }[] =>
  Array.from({ length: Math.floor((to - from) / step + 1e-9) + 1 }, (_, i) => ({
    at: from + i * step,
    strong: Math.abs(from + i * step - (strong ?? NaN)) < 1e-9,
  }))
const xTicks = computed(() =>
  ticksOf(
    Math.ceil(x.value[0] / every[curveId.value][0]) * every[curveId.value][0],
    x.value[1],
    every[curveId.value][0],
    curveId.value === 'saturationByLightness' ? 0 : null,
  ),
)
const yTicks = computed(() => ticksOf(y.value[0], y.value[1], every[curveId.value][1], declared.value.neutral))
const torn = computed(() => tears(curveId.value, points.value))
const point = computed(() => points.value[chosen.value] ?? points.value[0])
const behind = computed(() => {
  const found = picking.distribution?.distribution
  if (!found) return null
  if (byHue.value) return { counts: found.hues, from: 0, to: 360 }
  return curveId.value === 'saturationByLightness'
    ? { counts: found.tones, from: lowestStops, to: lowestStops + found.tones.length / 4 }
    : { counts: found.purities, from: 0, to: 1 }
})
const unitX = computed(() => ({ '°': '°', stops: 'stops', purity: '', '×': '×', log: '' })[declared.value.x.unit])
const unitY = computed(() => ({ '°': '°', stops: 'stops', purity: '', '×': '×', log: '' })[declared.value.y.unit])
const set = (next: readonly CurvePoint[]): void => emit('change', curveId.value, next)
const held = (v: number): number => Math.min(declared.value.y.max, Math.max(declared.value.y.min, v))

function type(to: { readonly x: number; readonly y: number }): void {
  const index = Math.min(chosen.value, points.value.length - 1)
  const [low, high] = x.value
  const last = byHue.value ? high - 0.1 : high
  push.value = null
  const before = points.value[index - 1]?.x ?? low - 0.01
  const after = points.value[index + 1]?.x ?? last + 0.01
  set(
    points.value.map((p, i) =>
      i === index
        ? { x: Math.min(after - 0.01, Math.max(before + 0.01, Math.min(last, Math.max(low, to.x)))), y: held(to.y) }
        : p,
    ),
  )
}
function shape(change: Partial<ColourPush>): void {
  if (!push.value) return
  push.value = { ...push.value, ...change }
  set(setPush(curveId.value, points.value, push.value))
}
/** How much a drag over the whole height of the picture does. */
const reach: Readonly<Record<ColourCurveId, number>> = {
  hueByHue: 60,
  saturationByHue: 2,
  lightnessByHue: 2,
  saturationByLightness: 2,
  saturationBySaturation: 2,
}
function pick(): void {
  let from = 0
  let index = 0
  const beginHump = (colour: PlaceColour): void => {
    from = amountAt(curveId.value, points.value, colour.degrees)
    push.value = {
      degrees: colour.degrees,
      widthDegrees: push.value?.widthDegrees ?? 45,
      softness: push.value?.softness ?? 1,
      amount: from,
    }
    const humped = setPush(curveId.value, points.value, push.value)
    set(humped)
    chosen.value = Math.max(
      0,
      humped.findIndex((p) => Math.abs(p.x - colour.degrees) < 0.01),
    )
  }
  const beginPoint = (colour: PlaceColour): void => {
    const wanted = curveId.value === 'saturationByLightness' ? colour.stops : colour.purity
    const at = Math.min(x.value[1], Math.max(x.value[0], wanted))
    const near = (x.value[1] - x.value[0]) / 40
    index = points.value.findIndex((p) => Math.abs(p.x - at) < near)
    const taken =
      index < 0
        ? addCurvePoint(points.value, {
            x: at,
            y: held((colourCurve(curveId.value, points.value) ?? (() => declared.value.neutral))(at)),
          })
        : points.value
    if (index < 0) {
      index = taken.findIndex((p) => p.x === at)
      set(taken)
    }
    chosen.value = index
    from = taken[index]?.y ?? declared.value.neutral
  }
  picking.toggle({
    id: curveId.value,
    station: 'hue',
    side: props.step.side,
    begin: (colour) => {
      gesture.begin()
      if (byHue.value) beginHump(colour)
      else beginPoint(colour)
    },
    drag: (up) => {
      if (byHue.value) shape({ amount: from + up * reach[curveId.value] })
      else {
        const here = points.value[index]
        if (here)
          set(points.value.map((p, i) => (i === index ? { x: p.x, y: held(from + up * reach[curveId.value]) } : p)))
      }
    },
    end: gesture.end,
  })
}
const width: NumberParameter = {
  type: 'number',
  label: text.picking.width,
  tip: text.picking.widthTip,
  unit: '°',
  ...pushBounds.widthDegrees,
  default: 45,
  step: 1,
  decimals: 0,
}
const softness: NumberParameter = {
  type: 'number',
  label: text.picking.softness,
  tip: text.picking.softnessTip,
  unit: '%',
  ...pushBounds.softness,
  default: 1,
  step: 0.01,
  decimals: 0,
  shownFactor: 100,
}
onBeforeUnmount(() => {
  picking.stop()
  picking.wanted = null
})
watch(
  () => props.step.side,
  (side) => {
    picking.wanted = { station: 'hue', side }
  },
  { immediate: true },
)
</script>

<template>
  <div
    class="curves"
    :data-step="step.id"
  >
    <div class="bar">
      <span
        role="group"
        :aria-label="text.colourCurves.label"
      >
        <button
          v-for="id in colourCurveIds"
          :key="id"
          :data-tip="colourCurves[id].tip"
          type="button"
          :class="{ bent: colourCurve(id, step.params[id] as readonly CurvePoint[]) !== null }"
          :aria-pressed="curveId === id"
          @click="curveId = id"
        >
          {{ text.colourCurves[id].short }}
        </button>
      </span>
      <button
        :data-tip="text.picking.colourTip"
        type="button"
        :aria-pressed="picking.active === curveId"
        @click="pick"
      >
        {{ text.picking.colour }}
      </button>
      <PointNumbers
        v-if="point"
        :x="point.x"
        :y="point.y"
        :x-label="text.curve.at"
        :y-label="text.curve.to"
        :unit="unitX"
        :y-unit="unitY"
        :decimals="declared.x.unit === '°' ? 1 : 2"
        @set="type"
      />
      <span
        v-if="torn.length"
        :data-tip="text.colourCurves.tornTip"
        class="warn"
        role="status"
        data-testid="torn"
      >
        ▲ {{ text.colourCurves.torn }}
      </span>
    </div>
    <CurveField
      :points="points"
      :x="x"
      :y="y"
      :periodic="byHue"
      :x-ticks="xTicks"
      :y-ticks="yTicks"
      :label="declared.label"
      :point-label="(p) => words.point(p.x, p.y)"
      test-id="colour-curve"
      :step="[(x[1] - x[0]) / 180, (y[1] - y[0]) / 100]"
      :marked="torn"
      @change="
        (next) => {
          push = null
          set(next)
        }
      "
      @chosen="chosen = $event"
    >
      <SpreadBehind
        v-if="behind"
        v-bind="behind"
        :x="x"
      />
      <span
        v-if="byHue"
        class="wheel"
        :style="{ background: hueWheel }"
        aria-hidden="true"
      />
    </CurveField>
    <div
      v-if="push && byHue"
      class="hump"
    >
      <ScaleControl
        :parameter="width"
        :model-value="push.widthDegrees"
        data-control="push-width"
        @update:model-value="shape({ widthDegrees: $event })"
      />
      <ScaleControl
        :parameter="softness"
        :model-value="push.softness"
        data-control="push-softness"
        @update:model-value="shape({ softness: $event })"
      />
    </div>
    <p
      v-else
      class="figures quiet ends"
    >
      <span>{{ words.low }}</span>
      <span>{{ text.curve.help }}</span>
      <span>{{ words.high }}</span>
    </p>
  </div>
</template>

<style scoped src="./curves.css" />
<style scoped>
.wheel {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  height: 5px;
  pointer-events: none;
}
.hump {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  column-gap: var(--gap-broad);
}
.hump :deep(.control) {
  grid-template-columns: 76px minmax(60px, 1fr) 58px 48px;
}
.hump :deep(.effect) {
  display: none;
}
</style>
