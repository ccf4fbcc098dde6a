<script setup lang="ts">
// Six quick colours: hue, saturation and lightness of each, set on the same curves that the field shows.
import { computed, ref } from 'vue'
import {
  amountAt,
  quickColours,
  setQuickColour,
  type ColourCurveId,
  type CurvePoint,
  type NumberParameter,
  type QuickColourId,
  type Step,
} from '@core/grade'
import ScaleControl from '../../../components/ScaleControl.vue'
import SegmentedChoice from '../../../components/SegmentedChoice.vue'
import { text } from '../text'

const props = defineProps<{ step: Step }>()
const emit = defineEmits<{ change: [key: ColourCurveId, value: readonly CurvePoint[]] }>()
const chosen = ref<QuickColourId>('red')
const colour = computed(() => quickColours.find((q) => q.id === chosen.value) ?? quickColours[0])
const pointsOf = (id: ColourCurveId): readonly CurvePoint[] => props.step.params[id] as readonly CurvePoint[]
const amount = (id: ColourCurveId, degrees: number): number =>
  Math.round(amountAt(id, pointsOf(id), degrees) * 1000) / 1000
const { quick } = text
const controls: readonly { readonly id: ColourCurveId; readonly parameter: NumberParameter; readonly base: number }[] =
  [
    {
      id: 'hueByHue',
      base: 0,
      parameter: {
        type: 'number',
        label: quick.hue,
        tip: quick.hueTip,
        unit: '°',
        min: -60,
        max: 60,
        scale: [-40, 40],
        default: 0,
        step: 0.5,
        decimals: 1,
        signed: true,
      },
    },
    {
      id: 'saturationByHue',
      base: 1,
      parameter: {
        type: 'number',
        label: quick.saturation,
        tip: quick.saturationTip,
        unit: '%',
        min: 0,
        max: 3,
        scale: [0, 2],
        default: 1,
        step: 0.01,
        decimals: 0,
        shownFactor: 100,
      },
    },
    {
      id: 'lightnessByHue',
      base: 0,
      parameter: {
        type: 'number',
        label: quick.lightness,
        tip: quick.lightnessTip,
        unit: 'stops',
        min: -2,
        max: 2,
        scale: [-1, 1],
        default: 0,
        step: 0.02,
        decimals: 2,
        signed: true,
      },
    },
  ]
const changed = (degrees: number): boolean => controls.some((c) => Math.abs(amount(c.id, degrees)) > 0.002)
const colours = computed(() =>
  quickColours.map(({ id, name, degrees }) => ({
    value: id,
    name,
    swatch: `oklch(0.66 0.13 ${degrees}deg)`,
    changed: changed(degrees),
  })),
)
</script>

<template>
  <div
    class="quick"
    :data-step="step.id"
  >
    <SegmentedChoice
      v-model="chosen"
      class="six"
      :label="quick.label"
      :options="colours"
    />
    <ScaleControl
      v-for="c in controls"
      :key="c.id"
      :parameter="c.parameter"
      :model-value="c.base + amount(c.id, colour.degrees)"
      :data-control="`quick-${c.id}`"
      @update:model-value="emit('change', c.id, setQuickColour(c.id, pointsOf(c.id), chosen, $event - c.base))"
    />
  </div>
</template>

<style scoped>
.quick {
  display: grid;
  gap: var(--gap-hair);
  align-content: start;
}
.six {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  margin-bottom: var(--gap-small);
}
.six :deep(button) {
  justify-content: start;
  margin: 0 -1px -1px 0;
  border-radius: 0;
}
.quick :deep(.control) {
  grid-template-columns: 68px minmax(40px, 1fr) 46px 34px;
}
.quick :deep(.effect) {
  display: none;
}
</style>
