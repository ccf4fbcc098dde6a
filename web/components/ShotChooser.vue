<script setup lang="ts">
// Chooses a shot of a project to look at, where none is open: by its picture.
import { computed, onMounted, ref, watch } from 'vue'
import { sentenceOf } from '../api/client'
import { thumbnailAddress } from '../api/thumbnail'
import EmptyState from './EmptyState.vue'
import Notice from './Notice.vue'
import PictureInTurn from './PictureInTurn.vue'
import PlainSelect from './PlainSelect.vue'
import { useProjects } from '../stores/projects'
import { useReel } from '../stores/reel'

defineProps<{ hint: string }>()
const emit = defineEmits<{ choose: [shotId: string] }>()
const projectStore = useProjects()
const reelStore = useReel()
const projectId = ref('')
const fault = ref('')
const looked = ref(false)
const projects = computed(() => projectStore.all.filter((p) => p.shotCount > 0).map(({ id, name }) => ({ id, name })))
const shots = computed(() =>
  reelStore.current?.project.id === projectId.value
    ? reelStore.current.shots.map((shot) => ({
        id: shot.id,
        name: shot.name,
        picture: thumbnailAddress({ ...shot, revisionId: shot.headId, frame: shot.leadFrame, as: 'graded' }),
      }))
    : [],
)
onMounted(async () => {
  try {
    await projectStore.load()
    projectId.value = projects.value[0]?.id ?? ''
    looked.value = true
  } catch (error) {
    fault.value = sentenceOf(error)
  }
})
watch(projectId, (id) => {
  if (id)
    reelStore.load(id).catch((error: unknown) => {
      fault.value = sentenceOf(error)
    })
})
</script>

<template>
  <div class="chooser">
    <EmptyState
      v-if="looked && projects.length === 0"
      title="No shot yet"
      :hint="hint"
    >
      <RouterLink
        class="button"
        :to="{ name: 'projects' }"
      >
        Add footage to a project
      </RouterLink>
    </EmptyState>
    <p
      v-else
      class="quiet"
    >
      {{ hint }}
    </p>
    <PlainSelect
      v-if="projects.length > 1"
      label="Project"
      tip="The project whose shots are listed."
      :options="projects"
      :model-value="projectId"
      @update:model-value="projectId = $event"
    />
    <ul aria-label="Shots">
      <li
        v-for="shot in shots"
        :key="shot.id"
      >
        <button
          type="button"
          @click="emit('choose', shot.id)"
        >
          <span class="picture">
            <PictureInTurn
              :src="shot.picture"
              alt=""
            />
          </span>
          {{ shot.name }}
        </button>
      </li>
    </ul>
    <Notice
      :text="fault"
      @close="fault = ''"
    />
  </div>
</template>

<style scoped>
.chooser {
  display: grid;
  gap: var(--gap);
  align-content: start;
}
p {
  margin: 0;
}
.chooser > .choice {
  max-width: 420px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(148px, 200px));
  gap: var(--gap-wide) var(--gap);
}
button {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 2px;
  width: 100%;
  padding: 0;
  background: none;
  border: 0;
  color: var(--ink-quiet);
  text-align: left;
  cursor: pointer;
}
button:hover,
button:focus-visible {
  color: var(--ink);
}
/* Holds its place before the picture has come. */
.picture {
  aspect-ratio: 16 / 9;
  background: var(--well);
}
.picture img {
  display: block;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
</style>
