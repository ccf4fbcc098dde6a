<script setup lang="ts">
// Dispatch: what can be taken away from a shot: a still, a LUT, the rendered clip.
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { ElButton } from 'element-plus'
import { ElProgress } from 'element-plus'
import type { RenderSummary } from '@contracts/responses'
import { displayById } from '@core/colour'
import { sentenceOf } from '../../api/client'
import { thumbnailAddress } from '../../api/thumbnail'
import AppHeader from '../../components/AppHeader.vue'
import Notice from '../../components/Notice.vue'
import { useGrade } from '../../stores/grade'
import { useOpenShot } from '../../stores/open-shot'
import { useView } from '../../stores/view'
import EditListExport from './EditListExport.vue'
import LutExport from './LutExport.vue'
import { text } from './text'
import { useRenders } from './useRenders'

const props = defineProps<{ shotId: string }>()
const openShot = useOpenShot()
const grade = useGrade()
const view = useView()
const route = useRoute()
const fault = ref('')

const shot = computed(() => (openShot.shot?.id === props.shotId ? openShot.shot : null))
const display = computed(() => displayById(grade.document?.show.displayId ?? 'bt709-2.4'))
const projectId = computed(() => shot.value?.projectId)
const renders = useRenders(projectId)

watch(
  () => props.shotId,
  async (id) => {
    try {
      const found = await openShot.open(id)
      if (!found) return
      const wanted = Number(route.query['frame'])
      view.frame = Number.isInteger(wanted) && wanted >= 0 && wanted < found.media.frameCount ? wanted : found.leadFrame
    } catch (error) {
      fault.value = sentenceOf(error)
    }
  },
  { immediate: true },
)

const revisionId = computed(() => grade.revision?.headId ?? '')
/** The frame that was looked at last, where it is one of this shot. */
const frame = computed(() => {
  const { firstFrame = 0, frameCount = 0, leadFrame = 0 } = shot.value ?? {}
  return view.frame >= firstFrame && view.frame < firstFrame + frameCount ? view.frame : leadFrame
})
const stillAddress = computed(() => `/api/revisions/${revisionId.value}/still.png?frame=${frame.value}`)
const thumbnail = computed(() =>
  shot.value && revisionId.value
    ? thumbnailAddress({ ...shot.value, revisionId: revisionId.value, frame: frame.value, as: 'graded' })
    : undefined,
)
const percent = (r: RenderSummary): number => Math.floor((100 * r.framesDone) / Math.max(1, r.framesTotal))
const megabytes = (bytes: number | null): string => (bytes === null ? '' : `${(bytes / 1e6).toFixed(1)} MB`)
const time = (iso: string): string => new Date(iso).toLocaleTimeString('en-GB')
</script>

<template>
  <AppHeader
    :project="shot ? { id: shot.projectId, name: shot.projectName } : undefined"
    :shot="shot"
  />
  <main
    v-if="shot"
    class="dispatch"
  >
    <Notice
      :text="fault || renders.fault.value"
      @close="fault = ''"
    />
    <div class="take">
      <section>
        <h2 class="caps">{{ text.still }}</h2>
        <img
          v-if="thumbnail"
          :src="thumbnail"
          :alt="`${shot.name}, frame ${frame}, as graded`"
          width="384"
          height="216"
        />
        <p class="quiet">{{ text.stillNote(frame, shot.media.width, shot.media.height) }}</p>
        <a
          class="button"
          :href="stillAddress"
          download
        >
          {{ text.takeStill }}
        </a>
      </section>
      <LutExport
        :revision-id="revisionId"
        :frame="frame"
      />
      <section>
        <h2 class="caps">{{ text.clip }}</h2>
        <p>
          {{
            text.clipNote(
              shot.media.frameCount,
              shot.media.width,
              shot.media.height,
              display.name,
              display.range === 'high' ? 10 : 8,
            )
          }}
        </p>
        <ElButton
          type="primary"
          :disabled="!revisionId"
          @click="renders.start(revisionId)"
        >
          {{ text.render }}
        </ElButton>
        <EditListExport :project-id="shot.projectId" />
      </section>
    </div>
    <section>
      <h2 class="caps">{{ text.renders }}</h2>
      <p
        v-if="renders.list.value.length === 0"
        class="quiet"
      >
        {{ text.noRenders }}
      </p>
      <table v-else>
        <thead>
          <tr class="caps">
            <th>{{ text.columns.shot }}</th>
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
            <td>{{ r.shotName }}</td>
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
            <td>
              <ElButton
                v-if="r.state === 'running' || r.state === 'queued'"
                size="small"
                @click="renders.cancel(r.id)"
              >
                {{ text.cancel }}
              </ElButton>
              <a
                v-if="r.state === 'done'"
                class="button"
                :href="`/api/renders/${r.id}/file`"
                download
              >
                {{ text.takeFile }}
              </a>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </main>
</template>

<style scoped>
.dispatch {
  padding: var(--gap-broad);
  display: grid;
  gap: var(--gap-broad);
}
.take {
  display: grid;
  grid-template-columns: 384px 1fr 1fr;
  gap: calc(var(--gap-broad) * 2);
}
section {
  display: grid;
  gap: var(--gap);
  align-content: start;
  justify-items: start;
}
h2 {
  color: var(--ink-quiet);
}
img {
  display: block;
  background: var(--well);
  object-fit: contain;
}
p {
  margin: 0;
}
.button {
  display: inline-block;
  border: var(--line) solid var(--hairline-strong);
  border-radius: var(--radius);
  padding: 4px var(--gap-wide);
  text-decoration: none;
}
.button:hover {
  border-color: var(--accent);
  background: var(--pressed);
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
  width: 46%;
}
</style>
