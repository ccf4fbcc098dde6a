<script setup lang="ts">
// The Show station: the display, how light is brought to it, and what happens to colours it does not have.
import { computed } from 'vue'
import { displays, encodings } from '@core/colour'
import {
  gamutMethods,
  lutTakesSide,
  showMethods,
  showParameters,
  type GamutMethodId,
  type InheritedShow,
  type ShowMethodId,
  type ShowParameterKey,
  type ShowSettings,
  type Side,
} from '@core/grade'
import { showFault } from '@core/lut-bench'
import LutPicker from '../../components/LutPicker.vue'
import LutStrength from '../../components/LutStrength.vue'
import PlainSelect from '../../components/PlainSelect.vue'
import ScaleControl from '../../components/ScaleControl.vue'
import { useLuts } from '../../stores/luts'
import type { RenderResult } from '../../workers/messages'
import { text } from './text'

const props = defineProps<{
  show: ShowSettings
  /** What the shot has otherwise than its scene and project. */
  differing: readonly InheritedShow[]
  working: Side
  accuracy: RenderResult['accuracy']
}>()
const emit = defineEmits<{
  change: [what: string, change: Partial<ShowSettings>]
  parameter: [key: ShowParameterKey, value: number]
  working: [side: Side]
  follow: [key: InheritedShow]
}>()

const displayOptions = displays.map(({ id, name, tip }) => ({ id, name, tip }))
const sides = [
  { id: 'scene', name: text.show.workScene },
  { id: 'display', name: text.show.workDisplay },
]
const used = computed<readonly ShowParameterKey[]>(() => [
  ...(showMethods.find((m) => m.id === props.show.method)?.uses ?? []),
  ...(props.show.method === 'lut' ? [] : (gamutMethods.find((m) => m.id === props.show.gamutMethod)?.uses ?? [])),
])
const lutStore = useLuts()
const takes = [{ id: lutTakesSide, name: text.show.workingLog }, ...encodings.map(({ id, name }) => ({ id, name }))]
/** What the LUT was made for does not go with what it is given. */
const wrong = computed(() => {
  const expects = lutStore.byHash(props.show.lutHash)?.expects
  return props.show.method === 'lut' && expects ? showFault(props.show, expects) : null
})
const exactness = computed(() => {
  const a = props.accuracy
  if (!a) return ''
  return a.evaluated === 'direct' ? text.show.direct(a.measure, a.worst) : text.show.compiled(a.measure, a.worst)
})
</script>

<template>
  <div class="show">
    <div class="choices">
      <div class="inherited">
        <PlainSelect
          :label="text.show.display"
          :tip="text.show.displayTip"
          :options="displayOptions"
          :model-value="show.displayId"
          @update:model-value="emit('change', 'Display', { displayId: $event })"
        />
        <button
          v-if="differing.includes('displayId')"
          type="button"
          class="follow"
          :data-tip="text.show.followTip"
          data-testid="follow-displayId"
          @click="emit('follow', 'displayId')"
        >
          {{ text.show.follow }}
        </button>
      </div>
      <div class="inherited">
        <PlainSelect
          :label="text.show.method"
          :tip="text.show.methodTip"
          :options="showMethods"
          :model-value="show.method"
          @update:model-value="emit('change', 'Show method', { method: $event as ShowMethodId })"
        />
        <button
          v-if="differing.includes('method')"
          type="button"
          class="follow"
          :data-tip="text.show.followTip"
          data-testid="follow-method"
          @click="emit('follow', 'method')"
        >
          {{ text.show.follow }}
        </button>
      </div>
      <LutPicker
        v-if="show.method === 'lut'"
        :hash="show.lutHash"
        :label="text.look.lut"
        :tip="text.show.lutTip"
        :none="text.show.noLut"
        :import-label="text.look.import"
        @choose="emit('change', 'Show LUT', { lutHash: $event })"
      />
      <PlainSelect
        v-else
        :label="text.show.gamut"
        :tip="text.show.gamutTip"
        :options="gamutMethods"
        :model-value="show.gamutMethod"
        @update:model-value="emit('change', 'Gamut', { gamutMethod: $event as GamutMethodId })"
      />
      <PlainSelect
        :label="text.show.working"
        :tip="text.show.workingTip"
        :options="sides"
        :model-value="working"
        @update:model-value="emit('working', $event === 'display' ? 'display' : 'scene')"
      />
      <p
        class="quiet exact"
        data-testid="accuracy"
      >
        {{ exactness }}
      </p>
    </div>
    <div class="numbers">
      <template v-if="show.method === 'lut'">
        <PlainSelect
          :label="text.look.takes"
          :tip="text.look.takesTip"
          :options="takes"
          :model-value="show.lutTakes"
          @update:model-value="emit('change', 'Show LUT made for', { lutTakes: $event })"
        />
        <LutStrength
          :tip="text.show.strengthTip"
          :model-value="show.lutStrength"
          :disabled="show.lutHash === null"
          @update:model-value="emit('change', 'Show LUT strength', { lutStrength: $event })"
        />
        <p
          v-if="wrong"
          class="wrong"
          role="status"
          data-testid="show-fault"
        >
          ▲ {{ wrong }}
        </p>
      </template>
      <ScaleControl
        v-for="key in used"
        :key="key"
        :parameter="showParameters[key]"
        :model-value="show.params[key]"
        :data-control="key"
        @update:model-value="emit('parameter', key, $event)"
      />
    </div>
  </div>
</template>

<style scoped>
.show {
  display: grid;
  grid-template-columns: minmax(0, 320px) minmax(0, 1fr);
  gap: var(--gap-broad);
  align-content: start;
  min-height: 0;
}
.choices,
.numbers {
  display: grid;
  gap: var(--gap-hair);
  align-content: start;
}
.inherited {
  position: relative;
}
/* Beside the label, so that nothing moves when it comes and goes. */
.follow {
  position: absolute;
  top: 4px;
  left: 64px;
  background: none;
  border: 0;
  padding: 0;
  font-size: var(--text-small);
  text-decoration: underline;
  cursor: pointer;
}
.wrong {
  margin: 0;
  color: var(--warning);
  font-size: 12px;
}
.exact {
  margin: 0;
  font-size: var(--text-small);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
