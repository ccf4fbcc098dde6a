<script setup lang="ts">
// How an instrument counts and draws: modes, scale, gain, lines; what it looks at; the reference trace; a window of its
// own.
import { computed } from 'vue'
import { stations, type StationId } from '@core/grade'
import type { InstrumentId, InstrumentSettings } from '@core/instruments'
import ScaleControl from '../../../components/ScaleControl.vue'
import SegmentedChoice from '../../../components/SegmentedChoice.vue'
import type { Graticules } from '../../../stores/kept-settings'
import { text } from '../text'
import { instrumentChoices, type ChoiceChange } from './instrument-choices'
import { brightness, gain, persistence, skinAngle } from './instrument-scales'
import { onSceneSide } from './scale-lines'

const props = defineProps<{
  id: InstrumentId
  settings: InstrumentSettings
  graticules: Graticules
  tap: StationId
  reference: boolean
  shots: readonly { readonly id: string; readonly name: string }[]
}>()
const emit = defineEmits<{
  settings: [change: Partial<InstrumentSettings>]
  graticules: [change: Partial<Graticules>]
  tap: [station: StationId]
  reference: [of: 'this' | string | null]
  detach: []
}>()
const o = text.options
const change: ChoiceChange = {
  settings: (to) => emit('settings', to),
  graticules: (to) => emit('graticules', to),
}

const choices = computed(() => instrumentChoices(props.id, props.settings, props.graticules, change))
</script>

<template>
  <div class="options">
    <div
      v-for="c in choices"
      :key="c.label"
      class="row"
    >
      <span
        :data-tip="c.tip"
        tabindex="0"
      >
        {{ c.label }}
      </span>
      <SegmentedChoice
        :model-value="c.now as string"
        :label="c.label"
        :options="c.options.map(([value, name]) => ({ value: value as string, name }))"
        fill
        @update:model-value="c.set($event as never)"
      />
    </div>
    <div class="row">
      <label
        :data-tip="o.tapTip"
        :for="`tap-${id}`"
      >
        {{ o.tap }}
      </label>
      <select
        :id="`tap-${id}`"
        :value="tap"
        @change="emit('tap', ($event.target as HTMLSelectElement).value as StationId)"
      >
        <option
          v-for="s in stations"
          :key="s.id"
          :value="s.id"
        >
          {{ s.id === 'finish' ? o.end : o.after(s.name, onSceneSide(s.id)) }}
        </option>
      </select>
    </div>
    <ScaleControl
      :parameter="gain"
      :model-value="settings.gain"
      @update:model-value="emit('settings', { gain: $event })"
    />
    <ScaleControl
      :parameter="brightness"
      :model-value="graticules.brightness"
      @update:model-value="emit('graticules', { brightness: $event })"
    />
    <ScaleControl
      :parameter="persistence"
      :model-value="graticules.persistence"
      @update:model-value="emit('graticules', { persistence: $event })"
    />
    <ScaleControl
      v-if="id === 'vectorscope'"
      :parameter="skinAngle"
      :model-value="graticules.skinDegrees"
      @update:model-value="emit('graticules', { skinDegrees: $event })"
    />
    <div class="row">
      <span
        :data-tip="o.referenceTip"
        tabindex="0"
      >
        {{ o.reference }}
      </span>
      <div class="tools">
        <button
          type="button"
          @click="emit('reference', 'this')"
        >
          {{ o.hold }}
        </button>
        <select
          :aria-label="o.fromShot"
          value=""
          @change="emit('reference', ($event.target as HTMLSelectElement).value)"
        >
          <option
            value=""
            disabled
          >
            {{ o.fromShot }}
          </option>
          <option
            v-for="s in shots"
            :key="s.id"
            :value="s.id"
          >
            {{ s.name }}
          </option>
        </select>
        <button
          type="button"
          :disabled="!reference"
          @click="emit('reference', null)"
        >
          {{ o.clear }}
        </button>
      </div>
    </div>
    <div class="row">
      <span />
      <button
        type="button"
        class="plain"
        @click="emit('detach')"
      >
        {{ o.detach }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.options {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--gap-small);
}
.row {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr);
  align-items: center;
  gap: var(--gap);
  min-height: 26px;
}
.row > select {
  width: 100%;
}
.tools {
  display: flex;
  gap: var(--gap-small);
  min-width: 0;
}
.tools select {
  min-width: 0;
  flex: 1;
}
button,
select {
  background: var(--well);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  min-height: var(--control);
  padding: 0 6px;
  color: var(--ink);
  font-size: 12px;
}
button:disabled {
  color: var(--ink-quiet);
}
.plain {
  justify-self: start;
}
</style>
