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
import { text } from '../text'

const props = defineProps<{ step: Step }>()
const emit = defineEmits<{ change: [key: string, value: readonly CurvePoint[]] }>()
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
</script>

<template>
  <div
    class="quick"
    :data-step="step.id"
  >
    <div
      class="six"
      role="group"
      :aria-label="quick.label"
    >
      <button
        v-for="q in quickColours"
        :key="q.id"
        type="button"
        :aria-pressed="chosen === q.id"
        @click="chosen = q.id"
      >
        <span
          class="swatch"
          :style="{ background: `oklch(0.66 0.13 ${q.degrees}deg)` }"
          aria-hidden="true"
        />
        {{ q.name }}{{ changed(q.degrees) ? ' •' : '' }}
      </button>
    </div>
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
  gap: var(--gap-small);
  align-content: start;
  max-width: 620px;
}
.six {
  display: flex;
  gap: var(--gap-small);
}
button {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: var(--control);
  font-size: 12px;
}
button:hover {
  border-color: var(--accent);
}
button[aria-pressed='true'] {
  border-color: var(--accent);
  color: var(--accent);
}
.swatch {
  width: 10px;
  height: 10px;
  border-radius: 50%;
}
</style>
