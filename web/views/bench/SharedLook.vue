<!-- Long: one page with one subject: who shares the look, and how strongly. -->

<script setup lang="ts">
// The shared look: which one this shot carries and from where, how much of it, its controls, and taking the shot out of
// it.
import { cutTo } from '@core/names'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { ElButton } from 'element-plus'
import {
  sharedSteps,
  shippedRecipes,
  type GradeDocument,
  type NumberParameter,
  type Recipe,
  type Step,
} from '@core/grade'
import { checked } from '@contracts/check'
import { checkedLook, LookPlace, ShotLook } from '@contracts/recipes'
import type { LookSummary, ShotDetail } from '@contracts/responses'
import { post, put, request } from '../../api/client'
import ScaleControl from '../../components/ScaleControl.vue'
import { useAttempt } from '../../composables/useAttempt'
import { useGrade } from '../../stores/grade'
import { useOpenShot } from '../../stores/open-shot'
import StepControls from './StepControls.vue'
import { text } from './text'

const props = defineProps<{ grade: GradeDocument; shot: ShotDetail }>()
const emit = defineEmits<{ change: [step: Step, key: string, value: number] }>()
const store = useGrade()
const openShot = useOpenShot()
const { fault, attempt } = useAttempt()
const { shared: words } = text
const looks = shallowRef<readonly LookSummary[]>([])
const recipes = shallowRef<readonly Recipe[]>([])
const chosen = ref('')
const load = (): Promise<void> =>
  attempt(async () => {
    ;[looks.value, recipes.value] = await Promise.all([
      request<readonly LookSummary[]>(`/projects/${props.shot.projectId}/looks`),
      request<readonly Recipe[]>('/recipes'),
    ])
  })
watch(
  () => props.shot.id,
  () => void load(),
  { immediate: true },
)
const look = computed(() => props.shot.look)
const onScene = computed(() => look.value?.from === 'scene')
const usage = computed(() => {
  const found = looks.value.find((l) => l.id === look.value?.id)
  return found ? words.usage(found.wholeProject, found.scenes) : ''
})
/** Edits on their way are sent first: they are edits of the look as it was. What the server made of it comes back. */
const change = (shot: ShotDetail, work: () => Promise<unknown>): Promise<void> =>
  attempt(async () => {
    await store.commit()
    await work()
    await openShot.reopen(shot.id)
    if (props.shot.id === shot.id) await load()
  })
const placeLook = (shot: ShotDetail, sceneId: string | null, lookId: string | null, strength: number) =>
  put(`/projects/${shot.projectId}/look`, checked(LookPlace, { sceneId, lookId, strength }))
/** The look of a recipe, made where it is not one yet; else the chosen look itself. */
async function lookToShare(shot: ShotDetail): Promise<string> {
  const recipe = [...shippedRecipes, ...recipes.value].find((r) => r.id === chosen.value)
  if (!recipe) return chosen.value
  const body = checkedLook({ name: freeName(recipe.name), steps: recipe.steps.map(({ regionId: _, ...s }) => s) })
  return (await post<{ id: string }>(`/projects/${shot.projectId}/looks`, body)).id
}
function share(sceneId: string | null): void {
  const { shot } = props
  void change(shot, async () => {
    await placeLook(shot, sceneId, await lookToShare(shot), 1)
    chosen.value = ''
  })
}
function freeName(name: string): string {
  const taken = new Set(looks.value.map((l) => l.name))
  for (let n = 1; ; n++) {
    const next = n === 1 ? name : cutTo(`${name} ${n}`, 60)
    if (!taken.has(next)) return next
  }
}
const sceneOf = (shot: ShotDetail): string | null => (shot.look?.from === 'scene' ? shot.sceneId : null)
const setStrength = (shot: ShotDetail, strength: number): void =>
  void change(shot, () => placeLook(shot, sceneOf(shot), shot.look?.id ?? null, strength))
const setShot = (shot: ShotDetail, strength: number, detached: boolean): void =>
  void change(shot, () => put(`/shots/${shot.id}/look`, checked(ShotLook, { strength, detached })))
const takeOff = (): void => {
  const { shot } = props
  void change(shot, () => placeLook(shot, sceneOf(shot), null, 1))
}
const scale = (label: string, tip: string): NumberParameter => ({
  type: 'number',
  label,
  tip,
  unit: '%',
  min: 0,
  max: 1,
  default: 1,
  step: 0.01,
  decimals: 0,
  shownFactor: 100,
})
const whole = computed(() => scale(onScene.value ? words.sceneStrength : words.projectStrength, words.strengthTip))
const ownScale = scale(words.shotStrength, words.shotTip)
// The server is asked once the hand rests: one change, not fifty. It is a change of the shot it was made on.
interface Turned {
  readonly shot: ShotDetail
  readonly whole?: number
  readonly own?: number
}
const turned = shallowRef<Turned | null>(null)
let timer: ReturnType<typeof setTimeout> | undefined
function turn(next: Omit<Turned, 'shot'>): void {
  turned.value = { shot: props.shot, ...next }
  clearTimeout(timer)
  timer = setTimeout(settle, 500)
}
function settle(): void {
  clearTimeout(timer)
  const { value: now } = turned
  turned.value = null
  if (now?.whole !== undefined) setStrength(now.shot, now.whole)
  else if (now?.own !== undefined) setShot(now.shot, now.own, false)
}
// Leaving, for another shot or another page, loses nothing of what was turned.
watch(() => props.shot.id, settle, { flush: 'sync' })
onBeforeUnmount(settle)
const carried = computed(() => sharedSteps(props.grade))
</script>

<template>
  <div
    class="shared"
    data-testid="shared-look"
  >
    <div class="bar">
      <template v-if="look">
        <strong>{{ look.name }}</strong>
        {{ ' ' }}
        <span class="quiet">{{ usage }}</span>
        <ElButton
          :data-tip="look.detached ? words.backTip : words.outTip"
          size="small"
          @click="setShot(shot, look.ownStrength, !look.detached)"
        >
          {{ look.detached ? words.back : words.out }}
        </ElButton>
        <ElButton
          size="small"
          @click="takeOff"
        >
          {{ onScene ? words.offScene : words.offProject }}
        </ElButton>
      </template>
      <span
        v-else
        class="quiet"
      >
        {{ words.none }}
      </span>
    </div>
    <div class="bar">
      <select
        :data-tip="words.chooseTip"
        v-model="chosen"
        :aria-label="words.choose"
      >
        <option value="">{{ words.choose }}</option>
        <optgroup
          v-if="looks.length"
          :label="words.looks"
        >
          <option
            v-for="l in looks"
            :key="l.id"
            :value="l.id"
          >
            {{ l.name }}
          </option>
        </optgroup>
        <optgroup :label="words.recipes">
          <option
            v-for="r in [...recipes, ...shippedRecipes]"
            :key="r.id"
            :value="r.id"
          >
            {{ r.name }}
          </option>
        </optgroup>
      </select>
      <button
        v-if="shot.sceneId"
        type="button"
        :disabled="chosen === ''"
        @click="share(shot.sceneId)"
      >
        {{ words.toScene(shot.scene ?? '') }}
      </button>
      <button
        type="button"
        :disabled="chosen === ''"
        @click="share(null)"
      >
        {{ words.toProject }}
      </button>
    </div>
    <p
      v-if="fault"
      role="alert"
      class="fault"
    >
      ▲ {{ fault }}
    </p>
    <div
      v-if="look && !look.detached"
      class="strengths"
    >
      <ScaleControl
        :parameter="whole"
        :model-value="turned?.whole ?? look.strength"
        data-control="look-strength"
        @update:model-value="turn({ whole: $event })"
      />
      <ScaleControl
        :parameter="ownScale"
        :model-value="turned?.own ?? look.ownStrength"
        data-control="look-own-strength"
        @update:model-value="turn({ own: $event })"
      />
    </div>
    <StepControls
      v-if="carried.length"
      class="steps"
      :columns="2"
      :grade="grade"
      station="look"
      :facts="null"
      @change="(step, key, value) => emit('change', step, key, value)"
    />
  </div>
</template>

<style scoped>
.shared {
  display: grid;
  gap: var(--gap-small);
  align-content: start;
  grid-template-rows: auto auto auto auto 1fr;
  min-height: 0;
  height: 100%;
}
.bar {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  flex-wrap: wrap;
  font-size: 12px;
}
.bar > button,
select {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: var(--control);
  font-size: 12px;
}
select option,
select optgroup {
  background: var(--panel);
  color: var(--ink);
}
button:disabled {
  color: var(--ink-quiet);
}
.strengths {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  column-gap: var(--gap-broad);
}
.strengths :deep(.effect) {
  display: none;
}
.steps {
  grid-row: 5;
  overflow: auto;
  min-height: 0;
}
.fault {
  color: var(--warning);
  margin: 0;
}
</style>
