<script setup lang="ts">
// Files on their way in: being sent, being checked, and what went wrong with them.
import { ElButton } from 'element-plus'
import type { WorkSummary } from '@contracts/responses'
import { text } from './text'
import type { RunningUpload } from './useFootageImport'

defineProps<{ uploads: readonly RunningUpload[]; work: readonly WorkSummary[] }>()
defineEmits<{ resume: [key: number]; cancelUpload: [key: number]; end: [id: string] }>()
const fault = ({ error, hint }: WorkSummary): string => [error, hint].filter(Boolean).join(' ')
</script>

<template>
  <ul
    v-if="uploads.length + work.length"
    class="imports"
    aria-label="Imports"
  >
    <li
      v-for="u in uploads"
      :key="u.key"
    >
      <span class="name">{{ u.name }}</span>
      <progress
        v-if="!u.fault"
        :value="u.share"
        max="1"
        :aria-label="u.name"
      />
      <span
        class="figures quiet say"
        :class="{ fault: u.fault }"
        :role="u.fault ? 'alert' : undefined"
      >
        {{ u.fault ? `▲ ${u.fault}` : text.sent(u.share) }}
      </span>
      <ElButton
        v-if="u.fault"
        size="small"
        @click="$emit('resume', u.key)"
      >
        {{ text.resume }}
      </ElButton>
      <ElButton
        size="small"
        @click="$emit('cancelUpload', u.key)"
      >
        {{ u.fault ? text.dismiss : text.cancel }}
      </ElButton>
    </li>
    <li
      v-for="w in work"
      :key="w.id"
    >
      <span class="name">{{ w.name }}</span>
      <progress
        v-if="w.state !== 'failed'"
        :value="w.total > 0 ? w.done / w.total : undefined"
        max="1"
        :aria-label="w.name"
      />
      <span
        class="figures quiet say"
        :class="{ fault: w.state === 'failed' }"
        :role="w.state === 'failed' ? 'alert' : undefined"
      >
        {{ w.state === 'failed' ? `▲ ${fault(w)}` : text.work(w.stage, w.done, w.total) }}
      </span>
      <ElButton
        size="small"
        @click="$emit('end', w.id)"
      >
        {{ w.state === 'failed' ? text.dismiss : text.cancel }}
      </ElButton>
    </li>
  </ul>
</template>

<style scoped>
.imports {
  list-style: none;
  margin: 0;
  padding: var(--gap-small) var(--gap);
  background: var(--panel);
  display: grid;
  gap: 2px;
  max-height: 168px;
  overflow: auto;
}
li {
  display: flex;
  align-items: center;
  gap: var(--gap);
  min-height: 28px;
}
.name {
  width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.say {
  flex: 1;
  font-size: 12px;
}
.say.fault {
  color: var(--warning);
  font-family: var(--face);
  font-size: var(--text);
  white-space: normal;
}
progress {
  width: 160px;
  height: 4px;
  appearance: none;
  border: 0;
  background: var(--well);
}
progress::-webkit-progress-bar {
  background: var(--well);
}
progress::-webkit-progress-value {
  background: var(--accent);
}
</style>
