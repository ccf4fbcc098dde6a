<script setup lang="ts">
// One project: pictures of its scenes, how far it is, and what can be done with it as a whole.
import { nextTick, ref, useTemplateRef } from 'vue'
import { ElButton, ElInput } from 'element-plus'
import type { ProjectSummary } from '@contracts/responses'
import { thumbnailAddress } from '../../api/thumbnail'
import PictureInTurn from '../../components/PictureInTurn.vue'
import { text } from './text'

const props = defineProps<{ project: ProjectSummary }>()
const emit = defineEmits<{ rename: [name: string]; duplicate: []; archive: [archived: boolean]; remove: [] }>()
const naming = ref(false)
const name = ref('')
const field = useTemplateRef('field')

async function begin(): Promise<void> {
  name.value = props.project.name
  naming.value = true
  await nextTick()
  field.value?.select()
}
function give(): void {
  const wanted = name.value.trim()
  if (!wanted) return
  naming.value = false
  if (wanted !== props.project.name) emit('rename', wanted)
}
const day = (iso: string): string =>
  new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })
</script>

<template>
  <li class="project">
    <RouterLink
      class="card"
      :to="{ name: 'reel', params: { projectId: project.id } }"
    >
      <span
        class="stills"
        :data-count="Math.max(1, project.pictures.length)"
      >
        <PictureInTurn
          v-for="picture in project.pictures"
          :key="picture.revisionId"
          :src="thumbnailAddress({ ...picture, as: 'graded' })"
          alt=""
        />
      </span>
      <span class="name">{{ project.name }}</span>
      <span class="quiet figures">
        {{ project.shotCount ? text.finished(project.finishedCount, project.shotCount) : text.shots(0) }} ·
        {{ text.renders(project.renders) }}
      </span>
      <span class="quiet figures">{{ day(project.updatedAt) }}</span>
    </RouterLink>
    <form
      v-if="naming"
      class="acts"
      @submit.prevent="give"
      @keydown.esc.stop="naming = false"
    >
      <ElInput
        ref="field"
        v-model="name"
        size="small"
        :maxlength="80"
        :aria-label="text.renameLabel(project.name)"
      />
      <ElButton
        size="small"
        native-type="submit"
        :disabled="name.trim() === ''"
      >
        {{ text.save }}
      </ElButton>
      <ElButton
        size="small"
        @click="naming = false"
      >
        {{ text.cancel }}
      </ElButton>
    </form>
    <div
      v-else
      class="acts"
    >
      <ElButton
        size="small"
        :aria-label="`${text.rename} ${project.name}`"
        @click="begin"
      >
        {{ text.rename }}
      </ElButton>
      <ElButton
        size="small"
        :title="text.duplicateTip"
        :aria-label="`${text.duplicate} ${project.name}`"
        @click="emit('duplicate')"
      >
        {{ text.duplicate }}
      </ElButton>
      <ElButton
        size="small"
        :title="project.archived ? text.unarchiveTip : text.archiveTip"
        :aria-label="`${project.archived ? text.unarchive : text.archive} ${project.name}`"
        @click="emit('archive', !project.archived)"
      >
        {{ project.archived ? text.unarchive : text.archive }}
      </ElButton>
      <ElButton
        size="small"
        :title="text.removeTip"
        :aria-label="`${text.remove} ${project.name}`"
        @click="emit('remove')"
      >
        {{ text.remove }}
      </ElButton>
    </div>
  </li>
</template>

<style scoped>
.project {
  display: grid;
  gap: var(--gap-small);
  align-content: start;
}
.card {
  display: grid;
  gap: var(--gap-hair);
  text-decoration: none;
}
.stills {
  display: grid;
  gap: var(--gap-hair);
  aspect-ratio: 16 / 9;
  background: var(--well);
  border: var(--line) solid var(--hairline);
  margin-bottom: var(--gap-small);
}
.stills[data-count='2'] {
  grid-template-columns: 1fr 1fr;
}
.stills[data-count='3'],
.stills[data-count='4'] {
  grid-template: 1fr 1fr / 1fr 1fr;
}
.stills[data-count='3'] :deep(img:first-child) {
  grid-row: span 2;
}
.stills :deep(img) {
  width: 100%;
  height: 100%;
  min-height: 0;
  min-width: 0;
  object-fit: cover;
  display: block;
}
.card:hover .stills {
  border-color: var(--accent);
}
.name {
  font-size: var(--text-large);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.acts {
  display: flex;
  gap: var(--gap-small);
}
.acts :deep(.el-button + .el-button) {
  margin-left: 0;
}
</style>
