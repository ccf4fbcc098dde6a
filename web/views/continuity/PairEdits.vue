<script setup lang="ts">
// What is done to the chosen shot without leaving the scene: exposure, white, contrast, saturation; or what would match
// it to the reference, with the surfaces that both show.
import { computed, ref } from 'vue'
import { ElButton } from 'element-plus'
import { cutTo } from '@core/names'
import { setParameterAt, stepKindById, type Step } from '@core/grade'
import type { ShotProposal } from '@contracts/responses'
import { useGrade } from '../../stores/grade'
import StepControls from '../bench/StepControls.vue'
import { text } from './text'
import { type Reference } from './held'
import PairSwatches from './PairSwatches.vue'
import { css } from './patch-mean'
import type { Pair, Side } from './usePair'

const props = defineProps<{ pair: Pair; chosen: Side; reference: Reference | null }>()
const emit = defineEmits<{ split: []; pairing: [] }>()
const grade = useGrade()
const { document, stateHere, renderer, match, matching, strike } = props.pair
const scales = [
  { station: 'level', kinds: ['exposure', 'white-balance'], keys: ['exposureStops', 'temperatureMired', 'tint'] },
  { station: 'shape', kinds: ['contrast'], keys: ['contrast'] },
  { station: 'hue', kinds: ['saturation'], keys: ['saturation'] },
] as const
function change(step: Step, key: string, value: number): void {
  const parameter = stepKindById(step.kind).parameters[key]
  if (parameter?.type !== 'number') return
  grade.edit(`${parameter.label} ${value}`, (g) =>
    setParameterAt(g, step.id, key, value, props.chosen.frame, parameter),
  )
}

const at = ref(0)
const choices = computed(() => match.value?.choices.filter((c) => c.changes.length > 0) ?? [])
const choice = computed(() => choices.value[at.value] ?? choices.value[0] ?? null)
type Choice = ShotProposal['choices'][number]
function take({ name, sentence, grade: matched }: Choice): void {
  const { reference } = props
  if (reference?.kind !== 'shot') return
  // It was worked out for what is saved: an edit made since then is not overwritten.
  if (match.value?.headId !== grade.revision?.headId || grade.saveState !== 'saved') return void props.pair.compare()
  at.value = 0
  grade.edit(cutTo(`Matched to ${reference.shot.name}`, 400), () => matched, {
    kind: 'matched',
    aims: [cutTo(`${name}: ${sentence}`, 200)],
    from: reference.shot.headId,
  })
}
const shared = computed(() => {
  const surfaces = match.value?.surfaces ?? []
  const used = surfaces.filter((s) => !s.struck)
  const sorted = used.map((s) => s.before).sort((a, b) => a - b)
  return used.length === 0 ? null : { count: used.length, before: sorted[sorted.length >> 1] ?? 0 }
})
</script>

<template>
  <section
    class="edits"
    :aria-label="text.edits"
  >
    <template v-if="stateHere && document">
      <StepControls
        v-for="s in scales"
        :key="s.station"
        :grade="stateHere"
        :station="s.station"
        :kinds="s.kinds"
        :keys="s.keys"
        :facts="renderer.result.value?.facts ?? null"
        @change="change"
      />
    </template>
    <div
      v-if="reference?.kind === 'shot' && !pair.swatches.pairing.value"
      class="match"
      data-testid="pair-match"
    >
      <p
        class="figures"
        role="status"
      >
        <template v-if="matching">{{ text.comparing }}</template>
        <template v-else-if="match && !choice">{{ match.note }}</template>
        <template v-else-if="shared">{{ text.differenceOf(shared.before, shared.count) }}</template>
      </p>
      <ul
        v-if="match?.surfaces?.length"
        class="surfaces"
        :data-tip="text.surfacesTip"
        :aria-label="text.surfaces"
      >
        <li
          v-for="s in match.surfaces"
          :key="s.id"
        >
          <button
            type="button"
            :class="{ struck: s.struck }"
            :aria-label="text.surface(s.before, s.after, s.struck)"
            :data-tip="text.surface(s.before, s.after, s.struck)"
            @click="strike(s.id)"
          >
            <span :style="{ background: css(s.shown.here) }" />
            <span :style="{ background: css(s.shown.before) }" />
          </button>
        </li>
        <li
          v-for="id in pair.struck.value"
          :key="`left out ${id}`"
        >
          <button
            type="button"
            class="struck out"
            :aria-label="text.surface(0, 0, true)"
            @click="strike(id)"
          >
            ×
          </button>
        </li>
      </ul>
      <template v-if="choice && !matching">
        <div
          v-if="choices.length > 1"
          class="choices"
        >
          <button
            v-for="(c, i) in choices"
            :key="c.id"
            type="button"
            class="button"
            :aria-pressed="c === choice"
            @click="at = i"
          >
            {{ c.name }}
          </button>
        </div>
        <div class="choices">
          <ElButton
            size="small"
            type="primary"
            :data-tip="text.matchTip"
            @click="take(choice)"
          >
            {{ text.take }}
          </ElButton>
          <ElButton
            v-if="choices.some((c) => c.id === 'half')"
            size="small"
            :data-tip="text.splitTip"
            @click="emit('split')"
          >
            {{ text.split }}
          </ElButton>
        </div>
        <p>{{ choice.sentence }}</p>
        <p class="figures quiet">{{ choice.changes.join(' · ') }}</p>
      </template>
    </div>
    <PairSwatches
      v-if="reference"
      :pair="pair"
      :reference="reference"
      @pairing="emit('pairing')"
    />
  </section>
</template>

<style scoped>
.edits {
  display: grid;
  gap: var(--gap-small);
  align-content: start;
  min-height: 0;
  overflow: auto;
  font-size: 12px;
}
.edits :deep(.control) {
  grid-template-columns: 84px minmax(60px, 1fr) 52px 96px;
}
.edits :deep(.effect) {
  display: none;
}
.match {
  display: grid;
  gap: var(--gap-small);
  border-top: var(--line) solid var(--hairline);
  padding-top: var(--gap-small);
}
p {
  margin: 0;
}
.surfaces {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  margin: 0;
  padding: 0;
}
.surfaces button {
  display: grid;
  width: 24px;
  height: 28px;
  padding: 0;
  border: var(--line) solid var(--hairline);
  background: none;
}
.surfaces span + span {
  border-top: var(--line) solid var(--well);
}
.surfaces button:hover {
  border-color: var(--accent);
}
.struck {
  opacity: 0.45;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-small);
}
.choices :deep(.el-button + .el-button) {
  margin-left: 0;
}
</style>
