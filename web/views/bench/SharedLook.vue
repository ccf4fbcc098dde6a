<script setup lang="ts">
// The shared look: which one this shot carries and from where, how much of it, its controls, and taking the shot out of
// it.
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
import { post, request } from '../../api/client'
import ScaleControl from '../../components/ScaleControl.vue'
import { useAttempt } from '../../composables/useAttempt'
import { useGrade } from '../../stores/grade'
import { useLibrary } from '../../stores/library'
import StepControls from './StepControls.vue'
import { text } from './text'

const props = defineProps<{ grade: GradeDocument; shot: ShotDetail }>()
const emit = defineEmits<{ change: [step: Step, key: string, value: number]; hold: []; release: [] }>()
const store = useGrade()
const library = useLibrary()
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
const put = (path: string, body: object): Promise<unknown> =>
  request(path, { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })

/** What was changed on the server comes back into the open shot. */
async function reload(): Promise<void> {
  const found = await library.openShot(props.shot.id)
  store.open(found)
  await load()
}
/** Edits on their way are sent first: they are edits of the look as it was. */
const change = (work: () => Promise<unknown>): Promise<void> =>
  attempt(async () => {
    await store.commit()
    await work()
    await reload()
  })
const placeLook = (sceneId: string | null, lookId: string | null, strength: number): Promise<unknown> =>
  put(`/projects/${props.shot.projectId}/look`, checked(LookPlace, { sceneId, lookId, strength }))
function share(sceneId: string | null): void {
  void change(async () => {
    const recipe = [...shippedRecipes, ...recipes.value].find((r) => r.id === chosen.value)
    const id = recipe
      ? (
          await post<{ id: string }>(
            `/projects/${props.shot.projectId}/looks`,
            checkedLook({ name: freeName(recipe.name), steps: recipe.steps.map(({ regionId: _, ...s }) => s) }),
          )
        ).id
      : chosen.value
    await placeLook(sceneId, id, 1)
    chosen.value = ''
  })
}
function freeName(name: string): string {
  const taken = new Set(looks.value.map((l) => l.name))
  for (let n = 1; ; n++) {
    const next = n === 1 ? name : `${name} ${n}`.slice(0, 60)
    if (!taken.has(next)) return next
  }
}
const setStrength = (strength: number): void =>
  void change(() => placeLook(onScene.value ? props.shot.sceneId : null, look.value?.id ?? null, strength))
const setShot = (strength: number, detached: boolean): void =>
  void change(() => put(`/shots/${props.shot.id}/look`, checked(ShotLook, { strength, detached })))
const takeOff = (): void => void change(() => placeLook(onScene.value ? props.shot.sceneId : null, null, 1))
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
// The hand is let go before the server is asked: one change, not fifty.
const held = ref<{ readonly whole?: number; readonly own?: number }>({})
function letGo(): void {
  const { whole: all, own } = held.value
  held.value = {}
  if (all !== undefined) setStrength(all)
  else if (own !== undefined) setShot(own, false)
}
let timer: ReturnType<typeof setTimeout> | undefined
function move(next: { readonly whole?: number; readonly own?: number }): void {
  held.value = next
  clearTimeout(timer)
  timer = setTimeout(letGo, 500)
}
// Leaving is letting go: what was turned is not lost.
onBeforeUnmount(() => {
  clearTimeout(timer)
  letGo()
})
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
          @click="setShot(look.ownStrength, !look.detached)"
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
        :model-value="held.whole ?? look.strength"
        data-control="look-strength"
        @update:model-value="move({ whole: $event })"
      />
      <ScaleControl
        :parameter="ownScale"
        :model-value="held.own ?? look.ownStrength"
        data-control="look-own-strength"
        @update:model-value="move({ own: $event })"
      />
    </div>
    <StepControls
      v-if="carried.length"
      class="steps"
      columns
      :grade="grade"
      station="look"
      :facts="null"
      @change="(step, key, value) => emit('change', step, key, value)"
      @hold="emit('hold')"
      @release="emit('release')"
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
