<script setup lang="ts">
// Colour curves: five, one at a time, over the picture's own colours. A colour picked in the picture becomes a hump
// that width and softness shape.
import { computed, ref, watch } from 'vue'
import {
  colourCurve,
  colourCurveIds,
  colourCurves,
  tears,
  type ColourCurveId,
  type CurvePoint,
  type Step,
} from '@core/grade'
import { lowestStops } from '@core/instruments'
import { clamp } from '@core/numbers'
import ScaleControl from '../../../components/ScaleControl.vue'
import SegmentedChoice from '../../../components/SegmentedChoice.vue'
import { usePicking } from '../../../stores/picking'
import { hueWheel } from '../../../design/hue-wheel'
import { text } from '../text'
import { colourFields, humpSoftness, humpWidth, xTicksOf, yTicksOf } from './colour-field'
import CurveField from './CurveField.vue'
import PointNumbers from './PointNumbers.vue'
import DistributionBehind from './DistributionBehind.vue'
import { useColourPicking } from './useColourPicking'

const props = defineProps<{ step: Step }>()
const emit = defineEmits<{ change: [key: string, value: readonly CurvePoint[]] }>()
const picking = usePicking()

const curveId = defineModel<ColourCurveId>('curveId', { default: 'hueByHue' })
const chosen = ref(0)
watch(curveId, () => {
  chosen.value = 0
})
const declared = computed(() => colourCurves[curveId.value])
const points = computed(() => props.step.params[curveId.value] as readonly CurvePoint[])
const byHue = computed(() => 'periodic' in declared.value)
const words = computed(() => text.colourCurves[curveId.value])
const x = computed(() => [declared.value.x.min, declared.value.x.max] as const)
const y = computed(() => colourFields[curveId.value].shownY)
const xTicks = computed(() => xTicksOf(curveId.value))
const yTicks = computed(() => yTicksOf(curveId.value))
const choices = computed(() =>
  colourCurveIds.map((value) => ({
    value,
    name: text.colourCurves[value].short,
    tip: colourCurves[value].tip,
    changed: colourCurve(value, props.step.params[value] as readonly CurvePoint[]) !== null,
  })),
)
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
const { push, shape, toggle: pick } = useColourPicking(() => props.step, curveId, points, chosen, set)

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
        ? {
            x: clamp(clamp(to.x, low, last), before + 0.01, after - 0.01),
            y: clamp(to.y, declared.value.y.min, declared.value.y.max),
          }
        : p,
    ),
  )
}
</script>

<template>
  <div
    class="curves"
    :data-step="step.id"
  >
    <div class="bar">
      <SegmentedChoice
        v-model="curveId"
        :label="text.colourCurves.label"
        :options="choices"
      />
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
    <div
      v-if="$slots['default']"
      class="beside"
    >
      <slot />
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
      <DistributionBehind
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
        :parameter="humpWidth"
        :model-value="push.widthDegrees"
        data-control="push-width"
        @update:model-value="shape({ widthDegrees: $event })"
      />
      <ScaleControl
        :parameter="humpSoftness"
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
.curves {
  grid-template-columns: minmax(0, 1fr) auto;
  column-gap: var(--gap-wide);
}
.bar {
  grid-column: 1 / -1;
}
.beside {
  grid-column: 2;
  grid-row: 2 / 4;
  width: 260px;
  padding-top: var(--gap-small);
}
.curves > :not(.bar, .beside) {
  grid-column: 1;
}
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
