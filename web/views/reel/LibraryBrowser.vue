<script setup lang="ts">
// The server's media folder: files there are linked into the project without copying.
import { ref, watch } from 'vue'
import { ElButton } from 'element-plus'
import type { FolderEntry } from '@contracts/responses'
import { request, sentenceOf } from '../../api/client'
import Notice from '../../components/Notice.vue'
import { text } from './text'

defineProps<{
  /** The chosen shot, where its original is linked: it may lie elsewhere now. */
  moved: { readonly name: string; readonly pictures: boolean } | null
}>()
defineEmits<{ link: [path: string, pictures: boolean]; again: [path: string]; close: [] }>()
const path = ref('')
const fault = ref('')
const entries = ref<readonly FolderEntry[]>([])
watch(
  path,
  async (now) => {
    try {
      entries.value = await request<readonly FolderEntry[]>(`/library?path=${encodeURIComponent(now)}`)
      fault.value = ''
    } catch (error) {
      fault.value = sentenceOf(error)
    }
  },
  { immediate: true },
)
const up = (): void => {
  path.value = path.value.split('/').slice(0, -1).join('/')
}
const size = (bytes: number): string =>
  bytes >= 1e9 ? `${(bytes / 1e9).toFixed(1)} GB` : `${(bytes / 1e6).toFixed(1)} MB`
</script>

<template>
  <section
    class="library"
    aria-label="Media folder"
  >
    <header>
      <ElButton
        v-if="path"
        size="small"
        @click="up"
      >
        Up
      </ElButton>
      <span class="figures">/{{ path }}</span>
      <span class="quiet">Files here are linked, not copied.</span>
      <ElButton
        size="small"
        @click="$emit('close')"
      >
        Close
      </ElButton>
    </header>
    <Notice
      :text="fault"
      @close="fault = ''"
    />
    <ul>
      <li
        v-for="e in entries"
        :key="e.path"
      >
        <button
          v-if="e.kind === 'folder'"
          type="button"
          class="name"
          @click="path = e.path"
        >
          {{ e.name }}/
        </button>
        <span
          v-else
          class="name"
        >
          {{ e.name }}{{ e.kind === 'pictures' ? '/ (numbered pictures)' : '' }}
        </span>
        <span class="figures quiet">{{ e.kind === 'file' ? size(e.sizeBytes) : '' }}</span>
        <ElButton
          v-if="e.kind !== 'folder'"
          size="small"
          @click="$emit('link', e.path, e.kind === 'pictures')"
        >
          Link
        </ElButton>
        <ElButton
          v-if="moved && e.kind !== 'folder' && moved.pictures === (e.kind === 'pictures')"
          size="small"
          :title="text.againTip"
          @click="$emit('again', e.path)"
        >
          {{ text.again(moved.name) }}
        </ElButton>
        <ElButton
          v-if="e.kind === 'pictures'"
          size="small"
          @click="path = e.path"
        >
          Open
        </ElButton>
      </li>
      <li
        v-if="entries.length === 0 && !fault"
        class="quiet"
      >
        Nothing lies here.
      </li>
    </ul>
  </section>
</template>

<style scoped>
.library {
  background: var(--panel);
  border: var(--line) solid var(--hairline);
  padding: var(--gap);
  max-height: 260px;
  overflow: auto;
}
header {
  display: flex;
  align-items: center;
  gap: var(--gap);
}
header .quiet {
  flex: 1;
}
ul {
  list-style: none;
  margin: var(--gap) 0 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  gap: var(--gap);
  min-height: 28px;
}
.name {
  flex: 1;
  text-align: left;
  background: none;
  border: 0;
  padding: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
button.name:hover {
  text-decoration: underline;
  cursor: pointer;
}
</style>
