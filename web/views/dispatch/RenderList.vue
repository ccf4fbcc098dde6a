<script setup lang="ts">
// The renders of a project: how far each is, its file, and the way to cancel or remove it.
import { ElButton } from 'element-plus'
import { thumbnailAddress } from '../../api/thumbnail'
import DownloadLink from '../../components/DownloadLink.vue'
import { ElProgress } from 'element-plus'
import type { RenderSummary } from '@contracts/responses'
import EmptyState from '../../components/EmptyState.vue'
import RemovedLine from '../../components/RemovedLine.vue'
import { text } from './text'
import type { Renders } from './useRenders'

defineProps<{ renders: Renders }>()
const percent = (r: RenderSummary): number => Math.floor((100 * r.framesDone) / Math.max(1, r.framesTotal))
const megabytes = (bytes: number | null): string => (bytes === null ? '' : `${(bytes / 1e6).toFixed(1)} MB`)
/** The lead frame as it was graded when the render was asked for. */
const picture = (r: RenderSummary): string => thumbnailAddress({ ...r, frame: r.leadFrame, as: 'graded' })
const time = (iso: string): string => new Date(iso).toLocaleTimeString('en-GB')
</script>

<template>
  <section>
    <h2 class="caps">{{ text.renders }}</h2>
    <RemovedLine
      v-if="renders.removed.value"
      :name="renders.removed.value.name"
      @bring-back="renders.bringBack"
    />
    <EmptyState
      v-if="renders.list.value.length === 0"
      :hint="text.noRenders"
    >
      <slot name="first" />
    </EmptyState>
    <table v-else>
      <thead>
        <tr class="caps">
          <th>
            <span class="visually-hidden">{{ text.columns.picture }}</span>
          </th>
          <th>{{ text.columns.shot }}</th>
          <th>{{ text.columns.frames }}</th>
          <th>{{ text.columns.made }}</th>
          <th>{{ text.columns.state }}</th>
          <th><span class="visually-hidden">Actions</span></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="r in renders.list.value"
          :key="r.id"
          data-testid="render"
          :data-state="r.state"
        >
          <td class="picture">
            <img
              :src="picture(r)"
              alt=""
              width="112"
              height="63"
              loading="lazy"
            />
          </td>
          <td>{{ r.shotName }}</td>
          <td class="figures">{{ r.framesTotal }}</td>
          <td class="figures">{{ time(r.createdAt) }}</td>
          <td class="progress">
            <ElProgress
              v-if="r.state === 'running'"
              :percentage="percent(r)"
              :stroke-width="8"
              :aria-label="`${r.shotName}: frame ${r.framesDone} of ${r.framesTotal}`"
            />
            <span v-else>
              {{ text.states[r.state] }} {{ r.state === 'done' ? megabytes(r.sizeBytes) : '' }}
              <span
                v-if="r.error"
                role="alert"
              >
                ▲ {{ r.error }}
              </span>
            </span>
          </td>
          <td class="actions">
            <ElButton
              v-if="r.state === 'running' || r.state === 'queued'"
              size="small"
              @click="renders.cancel(r.id)"
            >
              {{ text.cancel }}
            </ElButton>
            <DownloadLink
              v-if="r.state === 'done'"
              small
              :href="`/api/renders/${r.id}/file`"
            >
              {{ text.takeFile }}
            </DownloadLink>
            <ElButton
              v-if="r.state !== 'running' && r.state !== 'queued'"
              size="small"
              :data-tip="text.removeTip"
              :aria-label="text.removeOf(r.shotName)"
              @click="renders.remove(r)"
            >
              {{ text.remove }}
            </ElButton>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: var(--gap);
  align-content: start;
  justify-items: start;
}
h2 {
  color: var(--ink-quiet);
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--ink-quiet);
}
th,
td {
  padding: var(--gap) var(--gap-wide) var(--gap) 0;
  border-bottom: var(--line) solid var(--hairline);
  height: 44px;
}
.progress {
  width: 40%;
}
.progress :deep(.el-progress__text) {
  font-size: 12px !important;
  font-variant-numeric: tabular-nums;
}
.picture {
  width: 124px;
}
img {
  display: block;
  background: var(--well);
  object-fit: contain;
}
.actions {
  text-align: right;
  white-space: nowrap;
}
.actions > * {
  vertical-align: middle;
  margin-left: var(--gap);
}
</style>
