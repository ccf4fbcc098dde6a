<script setup lang="ts">
// Chooses a shot of a project to look at, where none is open.
import { computed, onMounted, ref, watch } from 'vue'
import { sentenceOf } from '../api/client'
import Notice from './Notice.vue'
import PlainSelect from './PlainSelect.vue'
import { useLibrary } from '../stores/library'

defineProps<{ hint: string }>()
const emit = defineEmits<{ choose: [shotId: string] }>()
const library = useLibrary()
const projectId = ref('')
const fault = ref('')
const projects = computed(() => library.projects.filter((p) => p.shotCount > 0).map(({ id, name }) => ({ id, name })))
const shots = computed(() =>
  library.reel?.project.id === projectId.value ? library.reel.shots.map(({ id, name }) => ({ id, name })) : [],
)
onMounted(async () => {
  try {
    await library.loadProjects()
    projectId.value = projects.value[0]?.id ?? ''
  } catch (error) {
    fault.value = sentenceOf(error)
  }
})
watch(projectId, (id) => {
  if (id)
    library.loadReel(id).catch((error: unknown) => {
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
