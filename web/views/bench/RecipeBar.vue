<script setup lang="ts">
// Recipes on the Bench: one is applied as ordinary steps; what the open grade does becomes a new one.
import { computed, onMounted, ref, shallowRef } from 'vue'
import { recipeSteps, stations, type GradeDocument, type Recipe, type RecipeStep, type StationId } from '@core/index'
import { checked } from '@contracts/check'
import { NewRecipe } from '@contracts/recipes'
import { post, request } from '../../api/client'
import HelpTip from '../../components/HelpTip.vue'
import { useAttempt } from '../../composables/useAttempt'
import { text } from './text'

const props = defineProps<{ grade: GradeDocument }>()
const { fault, attempt } = useAttempt()
const emit = defineEmits<{ apply: [steps: readonly RecipeStep[], name: string] }>()
const recipes = shallowRef<readonly Recipe[]>([]), chosen = ref('')
const naming = ref(false), name = ref(''), taken = ref<StationId[]>(['shape', 'hue', 'look'])
const offered = (['level', 'shape', 'hue', 'look'] as const).map((id) => ({ id, name: stations.find((s) => s.id === id)!.name }))
const steps = computed(() => recipeSteps(props.grade, taken.value))
const recipe = computed(() => recipes.value.find((r) => r.id === chosen.value))

const load = (): Promise<void> => attempt(async () => { recipes.value = await request<readonly Recipe[]>('/recipes') })
onMounted(load)
const keep = (): Promise<void> => attempt(async () => {
  const kept = await post<Recipe>('/recipes', checked(NewRecipe, { name: name.value.trim(), note: '', steps: [...steps.value] }))
  naming.value = false
  name.value = ''
  await load()
  chosen.value = kept.id
})
const remove = (id: string): Promise<void> => attempt(async () => { await request(`/recipes/${id}`, { method: 'DELETE' }); chosen.value = ''; await load() })
const toggle = (id: StationId): void => { taken.value = taken.value.includes(id) ? taken.value.filter((t) => t !== id) : [...taken.value, id] }
</script>

<template>
  <div class="recipes" data-testid="recipes">
    <template v-if="!naming">
      <HelpTip :text="text.recipes.tip"><select v-model="chosen" :aria-label="text.recipes.title"><option value="">{{ recipes.length ? text.recipes.title : text.recipes.none }}</option><option v-for="r in recipes" :key="r.id" :value="r.id" :title="r.steps.map((s) => s.name).join(', ')">{{ r.name }}</option></select></HelpTip>
      <button type="button" :disabled="!recipe" @click="recipe && emit('apply', recipe.steps, recipe.name)">{{ text.recipes.apply }}</button>
      <button type="button" :disabled="!recipe" @click="recipe && remove(recipe.id)">{{ text.recipes.remove }}</button>
      <button type="button" @click="naming = true">{{ text.recipes.make }}</button>
    </template>
    <form v-else @submit.prevent="keep">
      <input v-model="name" maxlength="60" :placeholder="text.recipes.name" :aria-label="text.recipes.name" autofocus>
      <button v-for="s in offered" :key="s.id" type="button" :aria-pressed="taken.includes(s.id)" @click="toggle(s.id)">{{ s.name }}</button>
      <button type="submit" :disabled="name.trim() === '' || steps.length === 0">{{ text.recipes.keep(steps.length) }}</button>
      <button type="button" @click="naming = false">{{ text.cancel }}</button>
    </form>
    <span v-if="fault" role="alert" class="fault">▲ {{ fault }}</span>
  </div>
</template>

<style scoped>
.recipes, form { display: flex; gap: var(--gap-small); align-items: center; flex-wrap: wrap; font-size: 12px; }
button, select, input { background: none; border: var(--line) solid var(--hairline); border-radius: var(--radius); padding: 0 8px; min-height: var(--control); font-size: 12px; }
select option { background: var(--panel); color: var(--ink); }
input { background: var(--well); width: 150px; }
button:hover:enabled { border-color: var(--accent); }
button:disabled { color: var(--ink-quiet); }
[aria-pressed='true'] { border-color: var(--accent); color: var(--accent); }
.fault { color: var(--warning); }
</style>
