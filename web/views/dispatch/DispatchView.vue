<script setup lang="ts">
// Dispatch: what can be taken away from a shot: a still, a LUT, the rendered clip.
import { Clapperboard } from '@lucide/vue'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { ElButton } from 'element-plus'
import { displayById } from '@core/colour'
import { sentenceOf } from '../../api/client'
import { thumbnailAddress } from '../../api/thumbnail'
import AppHeader from '../../components/AppHeader.vue'
import Notice from '../../components/Notice.vue'
import DownloadLink from '../../components/DownloadLink.vue'
import { useGrade } from '../../stores/grade'
import { useOpenShot } from '../../stores/open-shot'
import { useView } from '../../stores/view'
import EditListExport from './EditListExport.vue'
import LutExport from './LutExport.vue'
import RenderList from './RenderList.vue'
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
    <h1 class="visually-hidden">{{ text.title(shot.name) }}</h1>
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
        />
        <p class="quiet">{{ text.stillNote(frame, shot.media.width, shot.media.height) }}</p>
        <DownloadLink :href="stillAddress">
          {{ text.takeStill }}
        </DownloadLink>
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
          :icon="Clapperboard"
          :disabled="!revisionId"
          @click="renders.start(revisionId)"
        >
          {{ text.render }}
        </ElButton>
        <EditListExport :project-id="shot.projectId" />
      </section>
    </div>
    <RenderList :renders="renders">
      <template #first>
        <ElButton
          :icon="Clapperboard"
          :disabled="!revisionId"
          @click="renders.start(revisionId)"
        >
          {{ text.renderThis(shot.name) }}
        </ElButton>
      </template>
    </RenderList>
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
  grid-template-columns: minmax(320px, 5fr) minmax(0, 4fr) minmax(0, 4fr);
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
  width: 100%;
  aspect-ratio: 16 / 9;
  background: var(--well);
  object-fit: contain;
}
p {
  margin: 0;
}
</style>
