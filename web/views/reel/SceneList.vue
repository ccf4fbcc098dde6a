<script setup lang="ts">
// The scenes at the left: they filter the reel, and shots are dropped on them.
import { computed, ref, watch } from 'vue'
import type { ProjectDefaults, SceneSummary, ShotSummary } from '@contracts/responses'
import SceneDefaults from './SceneDefaults.vue'
import ScenePictures from './ScenePictures.vue'
import { text } from './text'

/** A scene's id; null for shots in no scene, 'all' for every shot. */
export type SceneChoice = string | null

const props = defineProps<{
  projectId: string
  scenes: readonly SceneSummary[]
  defaults: ProjectDefaults
  shots: readonly ShotSummary[]
  shown: SceneChoice
  canMake: boolean
}>()
const emit = defineEmits<{
  show: [scene: SceneChoice]
  put: [scene: string | null]
  make: [name: string]
  intent: [scene: string, words: string]
  fault: [sentence: string]
  attempt: [work: () => Promise<void>]
}>()
const over = ref<SceneChoice | undefined>(undefined)
const name = ref('')
const open = computed(() => props.scenes.find((s) => s.id === props.shown))
/** What is being written stays while the reel is read again. */
const words = ref('')
watch(
  [() => open.value?.id, () => open.value?.intent],
  () => {
    words.value = open.value?.intent ?? ''
  },
  { immediate: true },
)
const count = (scene: SceneChoice): number =>
  scene === 'all' ? props.shots.length : props.shots.filter((s) => s.sceneId === scene).length

function dropped(scene: SceneChoice): void {
  over.value = undefined
  if (scene !== 'all') emit('put', scene)
}
function make(): void {
  if (name.value.trim()) emit('make', name.value.trim())
  name.value = ''
}
</script>

<template>
  <nav
    class="scenes"
    :aria-label="text.scenes"
  >
    <h2 class="caps">{{ text.scenes }}</h2>
    <button
      v-for="entry in [{ id: 'all', name: text.allScenes }, ...scenes, { id: null, name: text.noScene }]"
      :key="entry.id ?? 'none'"
      type="button"
      :aria-current="shown === entry.id"
      :class="{ here: shown === entry.id, over: over === entry.id }"
      @click="emit('show', entry.id)"
      @dragover.prevent="over = entry.id"
      @dragleave="over = undefined"
      @drop.stop.prevent="dropped(entry.id)"
    >
      <span>{{ entry.name }}</span>
      <span class="figures quiet">{{ count(entry.id) }}</span>
    </button>
    <SceneDefaults
      v-if="shown !== null && (open || shown === 'all')"
      :project-id="projectId"
      :scene-id="open?.id ?? null"
      :defaults="defaults"
      @attempt="emit('attempt', $event)"
    />
    <label
      v-if="open"
      class="intent"
    >
      <span class="quiet">{{ text.intent(open.name) }}</span>
      <textarea
        v-model="words"
        class="field"
        maxlength="400"
        rows="4"
        :placeholder="text.intentHint"
        @change="emit('intent', open.id, words)"
        @keydown.stop
      />
    </label>
    <ScenePictures
      v-if="open"
      :scene="open"
      @fault="emit('fault', $event)"
    />
    <input
      :data-tip="text.newSceneTip"
      v-model="name"
      type="text"
      class="field"
      maxlength="80"
      :placeholder="text.newScene"
      :aria-label="text.newScene"
      :disabled="!canMake"
      @keydown.enter="make"
      @keydown.stop
    />
  </nav>
</template>

<style scoped>
.scenes {
  min-height: 0;
  overflow: hidden auto;
  display: grid;
  align-content: start;
  gap: 1px;
}
h2 {
  color: var(--ink-quiet);
  font-weight: 400;
  padding: 0 var(--gap);
  height: 28px;
  line-height: 28px;
}
.scenes > button {
  display: flex;
  justify-content: space-between;
  gap: var(--gap);
  background: none;
  border: 0;
  border-left: 2px solid transparent;
  padding: 5px var(--gap);
  text-align: left;
  cursor: pointer;
}
.scenes > button span:first-child {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.scenes > button:hover {
  background: var(--veil);
}
.scenes > button.here {
  border-left-color: var(--accent);
  background: var(--veil);
}
.scenes > button.over {
  background: var(--pressed);
  border-left-color: var(--accent);
}
.intent {
  display: grid;
  gap: 2px;
  padding: var(--gap);
  font-size: 11px;
}
textarea {
  padding: 3px var(--gap-small);
  font: inherit;
  resize: vertical;
}
input {
  margin: var(--gap);
}
</style>
