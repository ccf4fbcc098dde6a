<script setup lang="ts">
// A shape as numbers, beside its handles on the picture.
import { computed } from 'vue'
import type { NumberParameter } from '@core/grade'
import { changedShape, isTurned, shapeBounds, shapeKindById, type Shape } from '@core/regions'
import ScaleControl from '../../../components/ScaleControl.vue'
import { useRegions } from '../../../stores/regions'
import { text } from '../text'

const props = withDefaults(
  defineProps<{ shape: Shape; inner: number; outer: number; drawable?: boolean; prefix?: string }>(),
  { drawable: true, prefix: '' },
)
const emit = defineEmits<{ shape: [shape: Shape]; softness: [change: { inner?: number; outer?: number }]; draw: [] }>()
const regions = useRegions()
const { numbers: words } = text.regions
const share = (
  label: string,
  tip: string,
  bounds: { readonly min: number; readonly max: number },
  scale: readonly [number, number] = [0, 1],
): NumberParameter => ({
  type: 'number',
  label,
  tip,
  unit: '%',
  ...bounds,
  scale,
  default: 0.5,
  step: 0.01,
  decimals: 1,
  shownFactor: 100,
})
const degrees: NumberParameter = {
  type: 'number',
  label: words.turn,
  tip: words.turnTip,
  unit: '°',
  ...shapeBounds.rotationDegrees,
  scale: [-180, 180],
  default: 0,
  step: 1,
  decimals: 1,
  signed: true,
}
const parameters: Readonly<Record<string, NumberParameter>> = {
  centreX: share(words.across, words.acrossTip, shapeBounds.place),
  centreY: share(words.down, words.downTip, shapeBounds.place),
  radiusX: share(words.width, words.widthTip, shapeBounds.radius),
  radiusY: share(words.height, words.heightTip, shapeBounds.radius),
  rotationDegrees: degrees,
  corner: share(words.corner, words.cornerTip, shapeBounds.share),
  core: share(words.core, words.coreTip, { min: 0, max: 0.99 }),
  fromX: share(words.fromX, words.fromTip, shapeBounds.place),
  fromY: share(words.fromY, words.fromTip, shapeBounds.place),
  toX: share(words.toX, words.toTip, shapeBounds.place),
  toY: share(words.toY, words.toTip, shapeBounds.place),
}
const keys = computed(() =>
  props.shape.kind === 'polygon' || props.shape.kind === 'path'
    ? []
    : Object.keys(parameters).filter((key) => key in props.shape),
)
const valueOf = (key: string): number => (props.shape as unknown as Readonly<Record<string, number>>)[key] ?? 0
const set = (key: string, value: number): void => emit('shape', { ...props.shape, [key]: value })
const softInner = share(words.inner, words.innerTip, shapeBounds.softness, [0, 0.3])
const softOuter = share(words.outer, words.outerTip, shapeBounds.softness, [0, 0.3])
const hasSoft = computed(() => shapeKindById(props.shape.kind).outlined)
// Outlines of points are sized and turned as a whole, a step at a time.
const size = (by: number): void => emit('shape', changedShape(props.shape, regions.aspect, { size: by }))
const turn = (by: number): void => emit('shape', changedShape(props.shape, regions.aspect, { degrees: by }))
</script>

<template>
  <ScaleControl
    v-for="key in keys"
    :key="key"
    :parameter="parameters[key]!"
    :model-value="valueOf(key)"
    :data-control="`${prefix}${key}`"
    @update:model-value="set(key, $event)"
  />
  <template v-if="hasSoft">
    <ScaleControl
      :parameter="softInner"
      :model-value="inner"
      :data-control="`${prefix}inner`"
      @update:model-value="emit('softness', { inner: $event })"
    />
    <ScaleControl
      :parameter="softOuter"
      :model-value="outer"
      :data-control="`${prefix}outer`"
      @update:model-value="emit('softness', { outer: $event })"
    />
  </template>
  <p
    v-if="!isTurned(shape) && shape.kind !== 'linear'"
    class="whole"
  >
    <span class="quiet">{{ words.points(shape.points.length) }}</span>
    <button
      type="button"
      :title="words.smaller"
      @click="size(1 / 1.05)"
    >
      −
    </button>
    <button
      type="button"
      :title="words.larger"
      @click="size(1.05)"
    >
      +
    </button>
    <button
      type="button"
      :title="words.left"
      @click="turn(-2)"
    >
      ↺
    </button>
    <button
      type="button"
      :title="words.right"
      @click="turn(2)"
    >
      ↻
    </button>
  </p>
  <button
    v-if="drawable"
    :data-tip="words.drawTip"
    type="button"
    class="draw"
    :aria-pressed="regions.drawing !== null"
    @click="emit('draw')"
  >
    {{ words.draw }}
  </button>
</template>

<style scoped>
button {
  justify-self: start;
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: var(--control);
  min-width: 24px;
  font-size: 12px;
}
button[aria-pressed='true'] {
  border-color: var(--accent);
  color: var(--accent);
}
.whole {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  margin: 0;
  font-size: 12px;
}
</style>
