<script setup lang="ts">
// The Look station: LUTs one behind the other, each with its strength and what it is given.
import { computed } from 'vue'
import { stepKindById, type DifferenceReport, type Side, type Step } from '@core/grade'
import { stepFault } from '@core/lut-bench'
import LutStrength from '../../../components/LutStrength.vue'
import LutPicker from '../../../components/LutPicker.vue'
import PlainSelect from '../../../components/PlainSelect.vue'
import type { LutSummary } from '@contracts/responses'
import { useLuts } from '../../../stores/luts'
import { text } from '../text'

const props = defineProps<{ step: Step; steps: readonly Step[]; between: DifferenceReport | null }>()
const emit = defineEmits<{
  choose: [id: string]
  add: []
  remove: []
  takes: [id: string]
  lut: [hash: string | null]
  strength: [value: number]
  side: [side: Side]
  interpolation: [id: string]
}>()

const sides = [
  { id: 'display', name: text.look.display },
  { id: 'scene', name: text.look.scene },
]
const interpolation = stepKindById('lut').parameters['interpolation']
const takesParameter = stepKindById('lut').parameters['takes']
const takes = takesParameter?.type === 'choice' ? takesParameter.options : []
const lutStore = useLuts()
const lutOf = (step: Step): LutSummary | undefined => lutStore.byHash(step.params['lutHash'])
const nameOf = (step: Step): string => lutOf(step)?.name ?? (hashOf(step) === null ? text.look.none : '…')
/** What this LUT was made for does not go with where it stands. */
const wrong = computed(() => {
  const expects = lutOf(props.step)?.expects
  return expects ? stepFault(props.step, expects) : null
})
const betweens = interpolation?.type === 'choice' ? interpolation.options : []
const hashOf = (step: Step): string | null =>
  typeof step.params['lutHash'] === 'string' ? step.params['lutHash'] : null
</script>

<template>
  <div class="look">
    <div
      v-if="steps.length > 1 || hashOf(step) !== null"
      class="luts"
    >
      <button
        v-for="(s, i) in steps"
        :key="s.id"
        type="button"
        :aria-pressed="s.id === step.id"
        @click="emit('choose', s.id)"
      >
        {{ text.look.nth(i + 1, nameOf(s)) }}
      </button>
      <button
        :data-tip="text.look.addTip"
        type="button"
        @click="emit('add')"
      >
        {{ text.look.add }}
      </button>
      <button
        v-if="steps.length > 1"
        type="button"
        @click="emit('remove')"
      >
        {{ text.look.remove }}
      </button>
      <span
        v-if="wrong"
        class="fault"
        role="status"
        data-testid="lut-fault"
      >
        ▲ {{ wrong }}
      </span>
    </div>
    <LutPicker
      :hash="hashOf(step)"
      :label="text.look.lut"
      :tip="text.look.lutTip"
      :none="text.look.none"
      :import-label="text.look.import"
      @choose="emit('lut', $event)"
    />
    <LutStrength
      :tip="text.look.strengthTip"
      :model-value="step.strength"
      :disabled="hashOf(step) === null"
      @update:model-value="emit('strength', $event)"
    />
    <div class="row">
      <PlainSelect
        :label="text.look.side"
        :tip="text.look.sideTip"
        :options="sides"
        :model-value="step.side"
        @update:model-value="emit('side', $event === 'scene' ? 'scene' : 'display')"
      />
      <PlainSelect
        :label="text.look.takes"
        :tip="text.look.takesTip"
        :options="takes"
        :model-value="String(step.params['takes'])"
        @update:model-value="emit('takes', $event)"
      />
      <PlainSelect
        :label="text.look.between"
        tip="Tetrahedral keeps neutrals neutral; trilinear is what some older hardware does."
        :options="betweens"
        :model-value="String(step.params['interpolation'])"
        @update:model-value="emit('interpolation', $event)"
      />
    </div>
    <p
      v-if="between && hashOf(step) !== null"
      class="figures quiet difference"
      data-testid="between"
    >
      {{ text.look.difference(between.measure, between.mean.toFixed(3), between.worst.toFixed(2)) }}
    </p>
  </div>
</template>

<style scoped>
.look {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--gap-small);
  align-content: start;
  overflow-y: auto;
  min-height: 0;
}
.luts {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  flex-wrap: wrap;
  font-size: 12px;
}
.luts button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: var(--control);
  font-size: 12px;
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.luts button[aria-pressed='true'] {
  border-color: var(--accent);
  color: var(--accent);
}
.difference {
  margin: 0;
  font-size: 11px;
}
.fault {
  color: var(--warning);
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--gap-small);
  align-items: center;
}
</style>
