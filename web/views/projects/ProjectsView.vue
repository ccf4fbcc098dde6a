<script setup lang="ts">
// Projects: open one, begin one by a name or by footage, and what is done with one as a whole.
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import { ElButton, ElInput } from 'element-plus'
import { cutTo } from '@core/names'
import type { ProjectSummary } from '@contracts/responses'
import EmptyState from '../../components/EmptyState.vue'
import AppHeader from '../../components/AppHeader.vue'
import Notice from '../../components/Notice.vue'
import RemovedLine from '../../components/RemovedLine.vue'
import { useAttempt } from '../../composables/useAttempt'
import { useRemoval } from '../../composables/useRemoval'
import { useBroughtFiles } from '../../stores/brought-files'
import { useProjects } from '../../stores/projects'
import { filesOfDrop } from '../reel/useFootageImport'
import ProjectCard from './ProjectCard.vue'
import { text } from './text'

const projectStore = useProjects()
const brought = useBroughtFiles()
const router = useRouter()
const { fault, attempt } = useAttempt()
const removal = useRemoval(projectStore.load)
const picker = useTemplateRef('picker')
const name = ref('')
const loaded = ref(false)
const over = ref(false)
const archive = ref(false)
const present = computed(() => projectStore.all.filter((p) => !p.archived))
const archived = computed(() => projectStore.all.filter((p) => p.archived))
/** Archived ones stand after the others, while they are asked for. */
const shown = computed(() => [...present.value, ...(archive.value ? archived.value : [])])

onMounted(() =>
  attempt(async () => {
    await projectStore.load()
    loaded.value = true
  }),
)

const open = (id: string, query: Record<string, string> = {}): Promise<unknown> =>
  router.push({ name: 'reel', params: { projectId: id }, query })
const make = (): Promise<void> => attempt(async () => void (await open(await projectStore.create(name.value.trim()))))
/** Footage begins a project, named after the first file. */
async function begin(files: readonly File[]): Promise<void> {
  const [first] = files
  if (!first) return
  await attempt(async () => {
    const id = await projectStore.create(cutTo(text.begun(first.name), 80))
    brought.leave(id, files)
    await open(id)
  })
}
const fromFolder = (): Promise<void> =>
  attempt(async () => void (await open(await projectStore.create(text.newLabel), { from: 'media-folder' })))
async function dropped(event: DragEvent): Promise<void> {
  over.value = false
  if (event.dataTransfer?.types.includes('Files')) await begin(await filesOfDrop(event.dataTransfer))
}
function picked(event: Event): void {
  void begin([...((event.target as HTMLInputElement).files ?? [])])
}
const remove = ({ id, name: of }: ProjectSummary): Promise<void> => attempt(() => removal.remove(`/projects/${id}`, of))
const bringBack = (): Promise<void> => attempt(removal.bringBack)
</script>

<template>
  <div
    class="page"
    :class="{ over }"
    @dragover.prevent="over = $event.dataTransfer?.types.includes('Files') ?? false"
    @dragleave.self="over = false"
    @drop.prevent="dropped"
  >
    <AppHeader />
    <main class="projects">
      <div class="top">
        <h1>{{ text.title }}</h1>
        <span class="quiet">{{ text.drop }}</span>
        <ElButton @click="fromFolder">{{ text.fromFolder }}</ElButton>
        <ElButton @click="picker?.click()">{{ text.choose }}</ElButton>
        <input
          ref="picker"
          class="visually-hidden"
          type="file"
          multiple
          tabindex="-1"
          :aria-label="text.files"
          @change="picked"
        />
      </div>
      <Notice
        :text="fault"
        @close="fault = ''"
      />
      <RemovedLine
        v-if="removal.last.value"
        :name="removal.last.value.name"
        @bring-back="bringBack"
      />
      <EmptyState
        v-if="loaded && projectStore.all.length === 0"
        class="begin"
        :title="text.none"
        :hint="`${text.noneHint} ${text.demoHint}`"
      />
      <ul class="list">
        <ProjectCard
          v-for="project in shown"
          :key="project.id"
          :project="project"
          @rename="(to) => attempt(() => projectStore.change(project.id, { name: to }))"
          @duplicate="attempt(() => projectStore.duplicate(project.id))"
          @archive="(to) => attempt(() => projectStore.change(project.id, { archived: to }))"
          @remove="remove(project)"
        />
      </ul>
      <form
        class="new"
        @submit.prevent="make"
      >
        <label for="new-project">{{ text.newLabel }}</label>
        <ElInput
          id="new-project"
          v-model="name"
          :maxlength="80"
          :placeholder="text.newPlaceholder"
        />
        <ElButton
          native-type="submit"
          :disabled="name.trim() === ''"
        >
          {{ text.make }}
        </ElButton>
        <ElButton
          v-if="archived.length"
          :title="text.archivedTip"
          :aria-expanded="archive"
          @click="archive = !archive"
        >
          {{ text.archived(archived.length) }}
        </ElButton>
      </form>
    </main>
  </div>
</template>

<style scoped>
.page {
  min-height: 100%;
}
.page.over {
  box-shadow: inset 0 0 0 2px var(--accent);
}
.projects {
  padding: var(--gap-broad);
  display: grid;
  gap: var(--gap-broad);
}
.top {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap);
  align-items: center;
}
.top .quiet {
  flex: 1;
}
.top :deep(.el-button + .el-button) {
  margin-left: 0;
}
h1 {
  font-size: var(--text-title);
  margin: 0 var(--gap-broad) 0 0;
}
.begin {
  padding: 48px var(--gap-broad);
  background: var(--panel);
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(360px, 600px));
  gap: var(--gap-broad);
}
.list:empty {
  display: none;
}
.new {
  display: grid;
  grid-template-columns: auto 280px auto auto;
  gap: var(--gap);
  align-items: center;
  justify-content: start;
  border-top: var(--line) solid var(--hairline);
  padding-top: var(--gap-broad);
}
.new :deep(.el-button + .el-button) {
  margin-left: 0;
}
</style>
