<script setup lang="ts">
// Recipes on the Bench, as pictures of this shot: one is applied as ordinary steps; what the open grade does becomes a
// new one.
import { storeToRefs } from 'pinia'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { recipeContent, shippedRecipes, stations, type GradeDocument, type Recipe, type StationId } from '@core/grade'
import { recipeFacts } from '@core/lut-bench'
import { checkedRecipe } from '@contracts/recipes'
import { post, request } from '../../../api/client'
import { useAttempt } from '../../../composables/useAttempt'
import { usePlacing } from '../../../stores/placing'
import type { SheetPicture } from '../../../workers/sheet-worker'
import { text } from '../text'
import LookPictures, { type LookEntry } from './LookPictures.vue'

const props = defineProps<{
  grade: GradeDocument
  /** What recipes are shown on. */
  picture: SheetPicture | null
  /** The name of the held picture; empty without one. */ held: string
}>()
const { fault, attempt } = useAttempt()
const emit = defineEmits<{ apply: [recipe: Recipe]; take: [] }>()
const { chosen } = storeToRefs(usePlacing())
const recipes = shallowRef<readonly Recipe[]>([])
const naming = ref(false)
const name = ref('')
const taken = ref<StationId[]>(['shape', 'hue', 'look'])
const offered = (['level', 'shape', 'hue', 'regions', 'look'] as const).map((id) => ({
  id,
  name: stations.find((s) => s.id === id)?.name ?? id,
}))
const content = computed(() => recipeContent(props.grade, taken.value))
const recipe = computed(() => [...shippedRecipes, ...recipes.value].find((r) => r.id === chosen.value))
const entries = computed(() =>
  [...recipes.value, ...shippedRecipes].map(({ id, name: called, note, steps, regions }): LookEntry => ({
    id,
    name: called,
    tip: note,
    item: { kind: 'recipe', content: { steps, regions } },
  })),
)
const apply = (): void => {
  if (recipe.value) emit('apply', recipe.value)
}
const own = computed(() => recipes.value.some((r) => r.id === chosen.value))
/** Its card: when it serves, and what it does to a row of skins. */
const facts = computed(() => recipe.value && recipeFacts(recipe.value))

const load = (): Promise<void> =>
  attempt(async () => {
    recipes.value = await request<readonly Recipe[]>('/recipes')
  })
onMounted(load)
const keep = (): Promise<void> =>
  attempt(async () => {
    const kept = await post<Recipe>('/recipes', checkedRecipe({ name: name.value.trim(), note: '', ...content.value }))
    naming.value = false
    name.value = ''
    await load()
    chosen.value = kept.id
  })
const remove = (id: string): Promise<void> =>
  attempt(async () => {
    await request(`/recipes/${id}`, { method: 'DELETE' })
    chosen.value = ''
    await load()
  })
const toggle = (id: StationId): void => {
  taken.value = taken.value.includes(id) ? taken.value.filter((t) => t !== id) : [...taken.value, id]
}
</script>

<template>
  <div
    class="recipes"
    data-testid="recipes"
  >
    <LookPictures
      :label="text.recipes.title"
      :entries="entries"
      :picture="picture"
      :chosen="chosen"
      @choose="chosen = $event"
      @apply="apply"
    />
    <div class="beside">
      <div
        v-if="!naming"
        class="row"
      >
        <button
          type="button"
          :disabled="!recipe"
          @click="apply"
        >
          {{ text.recipes.apply }}
        </button>
        <button
          type="button"
          :disabled="!own"
          @click="recipe && remove(recipe.id)"
        >
          {{ text.recipes.remove }}
        </button>
        <button
          type="button"
          @click="naming = true"
        >
          {{ text.recipes.make }}
        </button>
        <button
          :data-tip="text.recipes.takeTip"
          type="button"
          :disabled="held === ''"
          data-testid="take-look"
          @click="emit('take')"
        >
          {{ held === '' ? text.recipes.takeNone : text.recipes.take(held) }}
        </button>
      </div>
      <form
        v-else
        class="row"
        @submit.prevent="keep"
      >
        <input
          v-model="name"
          maxlength="60"
          :placeholder="text.recipes.name"
          :aria-label="text.recipes.name"
          autofocus
        />
        <button
          v-for="s in offered"
          :key="s.id"
          type="button"
          :aria-pressed="taken.includes(s.id)"
          @click="toggle(s.id)"
        >
          {{ s.name }}
        </button>
        <button
          type="submit"
          :disabled="name.trim() === '' || content.steps.length === 0"
        >
          {{ text.recipes.keep(content.steps.length) }}
        </button>
        <button
          type="button"
          @click="naming = false"
        >
          {{ text.cancel }}
        </button>
      </form>
      <p
        v-if="recipe && facts && !naming"
        class="card quiet"
        data-testid="recipe-card"
      >
        {{ recipe.note }}
        <span class="figures">
          {{ text.recipes.facts(facts.restraint.toFixed(1), facts.skin.hueDegrees, facts.skin.chromaGain.toFixed(2)) }}
        </span>
        {{ recipe.steps.map((s) => s.name).join(', ') }}
      </p>
      <span
        v-if="fault"
        role="alert"
        class="fault"
      >
        ▲ {{ fault }}
      </span>
    </div>
  </div>
</template>

<style scoped>
.recipes {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: var(--gap-wide);
  height: 100%;
  min-height: 0;
}
.beside {
  display: grid;
  gap: var(--gap);
  align-content: start;
  overflow-y: auto;
}
.row {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  flex-wrap: wrap;
}
button,
input {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: var(--control);
  font-size: 12px;
}
.card {
  margin: 0;
  font-size: 12px;
  line-height: 1.4;
}
input {
  background: var(--well);
  width: 150px;
}
button:hover:enabled {
  border-color: var(--accent);
}
button:disabled {
  color: var(--ink-quiet);
}
[aria-pressed='true'] {
  border-color: var(--accent);
  color: var(--accent);
}
.fault {
  color: var(--warning);
}
</style>
