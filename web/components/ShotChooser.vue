<script setup lang="ts">
// Chooses a shot of a project to look at, where none is open.
import { computed, onMounted, ref, watch } from 'vue'
import { sentenceOf } from '../api/client'
import Notice from './Notice.vue'
import PlainSelect from './PlainSelect.vue'
import { useProjects } from '../stores/projects'
import { useReel } from '../stores/reel'

defineProps<{ hint: string }>()
const emit = defineEmits<{ choose: [shotId: string] }>()
const projectStore = useProjects()
const reelStore = useReel()
const projectId = ref('')
const fault = ref('')
const projects = computed(() => projectStore.all.filter((p) => p.shotCount > 0).map(({ id, name }) => ({ id, name })))
const shots = computed(() =>
  reelStore.current?.project.id === projectId.value
    ? reelStore.current.shots.map(({ id, name }) => ({ id, name }))
    : [],
)
onMounted(async () => {
  try {
    await projectStore.load()
    projectId.value = projects.value[0]?.id ?? ''
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
    <p class="quiet">{{ hint }}</p>
    <PlainSelect
      v-if="projects.length > 1"
      label="Project"
      tip="The project whose shots are listed."
      :options="projects"
      :model-value="projectId"
      @update:model-value="projectId = $event"
    />
    <PlainSelect
      label="Shot"
      tip="The shot whose frame is looked at."
      :options="shots"
      model-value=""
      @update:model-value="emit('choose', $event)"
    />
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
  max-width: 420px;
}
p {
  margin: 0;
}
</style>
