<script setup lang="ts">
// LUTs: what is there, brought in by the file or the folder; each inspected, or all of them seen on one picture.
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue'
import { ElButton } from 'element-plus'
import { useRoute, useRouter } from 'vue-router'
import { sentenceOf } from '../../api/client'
import EmptyState from '../../components/EmptyState.vue'
import PartsPage from '../../components/PartsPage.vue'
import RemovedLine from '../../components/RemovedLine.vue'
import { useAttempt } from '../../composables/useAttempt'
import { useQueriedShot } from '../../composables/useQueriedShot'
import { useRemoval } from '../../composables/useRemoval'
import { useGrade } from '../../stores/grade'
import { useLuts } from '../../stores/luts'
import ContactSheet from './ContactSheet.vue'
import LutList from './LutList.vue'
import LutReport from './LutReport.vue'
import { lutEntry } from './sheet-entries'
import { text } from './text'
import { useContactSheet } from '../../composables/useContactSheet'

const props = defineProps<{ part: string }>()
const lutStore = useLuts()
const grade = useGrade()
const route = useRoute()
const router = useRouter()
const { fault, attempt } = useAttempt()
const removal = useRemoval(lutStore.load)
const ids = ['inspect', 'sheet'] as const
const parts = ids.map((id) => ({ id, name: text.parts[id], tip: text.partTips[id] }))
const here = computed(() => ids.find((p) => p === props.part) ?? 'inspect')
const { shot, frame } = useQueriedShot((sentence) => {
  fault.value = sentence
})
/** The chosen one, or the first. */
const lut = computed(() => lutStore.all.find((l) => l.hash === route.query['lut']) ?? lutStore.all[0] ?? null)
const list = useTemplateRef('list')
const loaded = ref(false)
onMounted(async () => {
  try {
    await lutStore.load()
    loaded.value = true
  } catch (error) {
    fault.value = sentenceOf(error)
  }
})
const sheet = useContactSheet()
// The sheet is the next thing that will be looked at: its picture and its threads are made ready while nothing else is
// done.
watch(
  [shot, () => (grade.shotId === shot.value?.id ? grade.document : null), frame, () => lutStore.all[0]],
  ([open, document, at, first], _, cleanUp) => {
    if (!open || !document) return
    const idle = requestIdleCallback(
      () =>
        sheet.prepare(
          { mediaHash: open.media.hash, frameIndex: at, range: document.read.range, grade: document, skin: null },
          first ? lutEntry(first, document.read).item : null,
        ),
      { timeout: 500 },
    )
    cleanUp(() => cancelIdleCallback(idle))
  },
  { immediate: true },
)
const set = (query: Record<string, string>): void => void router.replace({ query: { ...route.query, ...query } })
</script>

<template>
  <PartsPage
    view="luts"
    :title="text.title"
    :parts="parts"
    :here="here"
    :shot="shot"
    :fault="fault"
    @close="fault = ''"
  >
    <div
      v-if="here === 'inspect'"
      class="bench"
    >
      <LutList
        ref="list"
        :chosen="lut?.hash ?? ''"
        @choose="set({ lut: $event })"
      />
      <div class="chosen">
        <RemovedLine
          v-if="removal.last.value"
          :name="removal.last.value.name"
          @bring-back="attempt(removal.bringBack)"
        />
        <LutReport
          v-if="lut"
          :key="lut.hash"
          :lut="lut"
          :shot="shot"
          @remove="attempt(() => removal.remove(`/luts/${lut?.hash}`, lut?.name ?? ''))"
        />
        <EmptyState
          v-else-if="loaded"
          :title="text.none"
          :hint="text.noneHint"
        >
          <ElButton
            type="primary"
            @click="list?.pickFiles()"
          >
            {{ text.files }}
          </ElButton>
          <ElButton @click="list?.pickFolder()">{{ text.folder }}</ElButton>
        </EmptyState>
      </div>
    </div>
    <ContactSheet
      v-else
      :sheet="sheet"
      :shot="shot"
      :frame="frame"
      @choose="set({ shot: $event })"
      @open="(hash) => router.push({ name: 'luts', params: { part: 'inspect' }, query: { ...route.query, lut: hash } })"
    />
  </PartsPage>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: var(--gap-broad);
  min-height: 0;
}
.chosen {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: var(--gap);
  min-height: 0;
}
.chosen > :only-child {
  grid-row: 1 / -1;
}
</style>
