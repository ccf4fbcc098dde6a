<!-- Long: a row and its buttons; half of it is their style. -->

<script setup lang="ts">
// What a region is made of: its components in order, how each joins what stands before it, and the numbers of the
// chosen one.
import { computed } from 'vue'
import type { NumberParameter } from '@core/grade'
import {
  shapeKindById,
  shapeKinds,
  type MatteComponent,
  type ComponentMode,
  type Region,
  type ShapeKindId,
} from '@core/regions'
import PlainSelect from '../../../components/PlainSelect.vue'
import ScaleControl from '../../../components/ScaleControl.vue'
import { useRegions } from '../../../stores/regions'
import { useView } from '../../../stores/view'
import ShapeNumbers from './ShapeNumbers.vue'
import { text } from '../text'

const props = defineProps<{ region: Region }>()
const regions = useRegions()
const view = useView()
const { regions: words } = text
const others = computed(() => regions.all.filter((r) => r.id !== props.region.id))
const kinds = computed(() => [
  { id: 'none', name: words.addComponent, tip: words.addComponentTip },
  ...shapeKinds,
  { id: 'key', name: words.keyComponent, tip: words.keyTip },
  ...others.value.map((r) => ({ id: `region ${r.id}`, name: words.other(r.name), tip: words.otherTip })),
])
function add(id: string): void {
  if (id === 'key') regions.addKey()
  else if (id.startsWith('region ')) regions.addOther(id.slice('region '.length))
  else if (id !== 'none') regions.addShape(id as ShapeKindId)
}
const modes: readonly ComponentMode[] = ['add', 'subtract', 'intersect']
const nameOf = ({ source }: MatteComponent): string => {
  if (source.kind === 'shape') return shapeKindById(source.shape.kind).name
  if (source.kind === 'key') return words.keyComponent
  return words.other(regions.all.find((r) => r.id === source.regionId)?.name ?? '—')
}
const change = (id: string, what: string, to: (component: MatteComponent) => MatteComponent): void => {
  view.componentId = id
  regions.editComponent(what, to)
}
const nextMode = (component: MatteComponent): void =>
  change(component.id, 'how a component joins', (p) => ({
    ...p,
    mode: modes[(modes.indexOf(p.mode) + 1) % modes.length] ?? 'add',
  }))
const opacity: NumberParameter = {
  type: 'number',
  label: words.opacity,
  tip: words.opacityTip,
  unit: '%',
  min: 0,
  max: 1,
  default: 1,
  step: 0.01,
  decimals: 0,
  shownFactor: 100,
}
const strength: NumberParameter = {
  type: 'number',
  label: words.strength,
  tip: words.strengthTip,
  unit: '%',
  min: 0,
  max: 1,
  default: 1,
  step: 0.01,
  decimals: 0,
  shownFactor: 100,
}
</script>

<template>
  <div class="components">
    <div class="list">
      <ol>
        <li
          v-for="p in region.components"
          :key="p.id"
          :class="{ chosen: p.id === regions.component?.id }"
          :data-component="p.id"
        >
          <button
            :data-tip="words.modeTip"
            type="button"
            class="mode"
            @click="nextMode(p)"
          >
            {{ words.modes[p.mode] }}
          </button>
          <button
            type="button"
            class="what"
            :aria-pressed="p.id === regions.component?.id"
            @click="view.componentId = p.id"
          >
            {{ nameOf(p) }}
          </button>
          <button
            :data-tip="words.componentInvertTip"
            type="button"
            :aria-pressed="p.invert"
            @click="change(p.id, 'component inside out', (q) => ({ ...q, invert: !q.invert }))"
          >
            {{ words.componentInvert }}
          </button>
          <button
            type="button"
            :aria-label="words.earlier"
            :title="words.earlier"
            :disabled="p === region.components[0]"
            @click="regions.orderComponent(p.id, -1)"
          >
            ↑
          </button>
          <button
            type="button"
            :aria-label="words.later"
            :title="words.later"
            :disabled="p === region.components.at(-1)"
            @click="regions.orderComponent(p.id, 1)"
          >
            ↓
          </button>
          <button
            type="button"
            :aria-label="words.removeComponent(nameOf(p))"
            :title="words.removeComponent(nameOf(p))"
            @click="regions.removeComponent(p.id)"
          >
            ×
          </button>
        </li>
      </ol>
      <div class="foot">
        <PlainSelect
          :label="words.addComponentLabel"
          :tip="words.addComponentTip"
          :options="kinds"
          model-value="none"
          data-testid="add-component"
          @update:model-value="add"
        />
        <span class="order quiet">
          <button
            type="button"
            :aria-label="words.regionEarlier"
            :title="words.regionEarlier"
            @click="regions.order(-1)"
          >
            ↑
          </button>
          <button
            type="button"
            :aria-label="words.regionLater"
            :title="words.regionLater"
            @click="regions.order(1)"
          >
            ↓
          </button>
          {{ words.order(regions.all.indexOf(region) + 1, regions.all.length) }}
        </span>
      </div>
    </div>
    <div class="numbers">
      <ScaleControl
        :parameter="strength"
        :model-value="region.strength"
        data-control="region-strength"
        @update:model-value="regions.set('strength', { strength: $event })"
      />
      <ScaleControl
        v-if="regions.component"
        :parameter="opacity"
        :model-value="regions.component.opacity"
        data-control="opacity"
        @update:model-value="regions.editComponent('opacity', (p) => ({ ...p, opacity: $event }))"
      />
      <ShapeNumbers
        v-if="regions.handled"
        :shape="regions.handled.source.shape"
        :inner="regions.handled.source.inner"
        :outer="regions.handled.source.outer"
        @shape="regions.setShape"
        @softness="regions.setSoftness"
        @draw="regions.drawing = regions.drawing ? null : regions.handled!.source.shape.kind"
      />
      <p
        v-else-if="regions.key"
        class="quiet"
      >
        {{ words.keyHere }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.components {
  display: grid;
  grid-template-columns: minmax(0, 340px) minmax(0, 1fr);
  gap: var(--gap-broad);
  min-height: 0;
}
.list {
  display: grid;
  grid-template-rows: 1fr auto;
  min-height: 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  overflow: auto;
  min-height: 0;
  display: grid;
  gap: var(--gap-hair);
  align-content: start;
}
li {
  display: grid;
  grid-template-columns: 62px 1fr 62px 24px 24px 24px;
  gap: var(--gap-hair);
  align-items: center;
}
li :deep(.tip),
li > * {
  min-width: 0;
}
button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 6px;
  min-height: var(--control);
  font-size: 12px;
  width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
button:disabled {
  color: var(--hairline);
}
button[aria-pressed='true'],
.chosen .what {
  border-color: var(--accent);
}
.what {
  text-align: left;
}
.foot {
  display: flex;
  gap: var(--gap-broad);
  align-items: center;
}
.foot :deep(.choice) {
  grid-template-columns: auto 1fr;
  width: 190px;
}
.order {
  display: flex;
  align-items: center;
  gap: var(--gap-hair);
  font-size: 12px;
  white-space: nowrap;
}
.order button {
  width: 24px;
}
.numbers {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  column-gap: var(--gap-broad);
  align-content: start;
}
.numbers :deep(.control) {
  grid-template-columns: 72px minmax(40px, 1fr) 54px 22px;
  gap: var(--gap-small);
}
.numbers :deep(.effect) {
  display: none;
}
p {
  margin: 0;
}
</style>
