<script setup lang="ts">
// Projects: open one, make one.
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { ElButton } from 'element-plus'
import { ElInput } from 'element-plus'
import type { ProjectSummary } from '@contracts/responses'
import PictureInTurn from '../../components/PictureInTurn.vue'
import { sentenceOf } from '../../api/client'
import { thumbnailAddress } from '../../api/thumbnail'
import AppHeader from '../../components/AppHeader.vue'
import Notice from '../../components/Notice.vue'
import RemovedLine from '../../components/RemovedLine.vue'
import { useAttempt } from '../../composables/useAttempt'
import { useRemoval } from '../../composables/useRemoval'
import { useProjects } from '../../stores/projects'
import { text } from './text'

const projectStore = useProjects()
const router = useRouter()
const name = ref('')
const { fault, attempt } = useAttempt()
const loaded = ref(false)
const removal = useRemoval(projectStore.load)

onMounted(async () => {
  try {
    await projectStore.load()
    loaded.value = true
  } catch (error) {
    fault.value = sentenceOf(error)
  }
})

async function make(): Promise<void> {
  try {
    const id = await projectStore.create(name.value.trim())
    await router.push({ name: 'reel', params: { projectId: id } })
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}

const remove = ({ id, name }: ProjectSummary): Promise<void> => attempt(() => removal.remove(`/projects/${id}`, name))
const bringBack = (): Promise<void> => attempt(removal.bringBack)

const day = (iso: string): string =>
  new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })
</script>

<template>
  <AppHeader />
  <main class="projects">
    <h1>{{ text.title }}</h1>
    <Notice
      :text="fault"
      @close="fault = ''"
    />
    <RemovedLine
      v-if="removal.last.value"
      :name="removal.last.value.name"
      @bring-back="bringBack"
    />
    <p
      v-if="loaded && projectStore.all.length === 0"
      class="quiet"
    >
      {{ text.none }}
    </p>
    <ul class="list">
      <li
        v-for="project in projectStore.all"
        :key="project.id"
      >
        <RouterLink
          class="card"
          :to="{ name: 'reel', params: { projectId: project.id } }"
        >
          <span class="still">
            <PictureInTurn
              v-if="project.cover"
              :src="thumbnailAddress({ ...project.cover, as: 'graded' })"
              alt=""
              width="256"
              height="144"
            />
          </span>
          <span class="name">{{ project.name }}</span>
          <span class="quiet figures">{{ text.shots(project.shotCount) }} · {{ day(project.updatedAt) }}</span>
        </RouterLink>
        <ElButton
          class="remove"
          size="small"
          :title="text.removeTip"
          :aria-label="`${text.remove} ${project.name}`"
          @click="remove(project)"
        >
          {{ text.remove }}
        </ElButton>
      </li>
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
    </form>
  </main>
</template>

<style scoped>
.projects {
  padding: var(--gap-broad);
  display: grid;
  gap: var(--gap-broad);
  max-width: 1400px;
}
h1 {
  font-size: var(--text-title);
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, 258px);
  gap: var(--gap-broad);
}
.card {
  display: grid;
  gap: var(--gap-small);
  text-decoration: none;
}
.still {
  display: block;
  width: 258px;
  height: 146px;
  background: var(--well);
  border: var(--line) solid var(--hairline);
}
.still img {
  display: block;
  width: 100%;
  height: 100%;
  object-fit: cover;
}
.list li {
  display: grid;
  gap: var(--gap-small);
}
.remove {
  justify-self: start;
}
.card:hover .still {
  border-color: var(--accent);
}
.name {
  font-size: var(--text-large);
}
.new {
  display: grid;
  grid-template-columns: auto 280px auto;
  gap: var(--gap);
  align-items: center;
  justify-content: start;
  border-top: var(--line) solid var(--hairline);
  padding-top: var(--gap-broad);
}
</style>
