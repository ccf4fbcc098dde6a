<script setup lang="ts">
// Cameras: encodings as they are, looked up, measured, and compared on a frame.
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { sentenceOf } from '../../api/client'
import PartsPage from '../../components/PartsPage.vue'
import { useQueriedShot } from '../../composables/useQueriedShot'
import { useEncodings } from '../../stores/encodings'
import ChartPanel from './ChartPanel.vue'
import ComparePanel from './ComparePanel.vue'
import EncodingsPanel from './EncodingsPanel.vue'
import EstimatePanel from './EstimatePanel.vue'
import LookupPanel from './LookupPanel.vue'
import MeasurePanel from './MeasurePanel.vue'
import { text } from './text'

const props = defineProps<{ part: string }>()
const encodingStore = useEncodings()
const route = useRoute()
const router = useRouter()
const fault = ref('')
const ids = ['encodings', 'lookup', 'measure', 'estimate', 'chart', 'compare'] as const
const parts = ids.map((id) => ({ id, name: text.parts[id], tip: text.partTips[id] }))
const here = computed(() => ids.find((p) => p === props.part) ?? 'encodings')
const { shot, frame } = useQueriedShot((sentence) => {
  fault.value = sentence
})

onMounted(
  () =>
    void encodingStore.load().catch((error: unknown) => {
      fault.value = sentenceOf(error)
    }),
)
const choose = (id: string): void => void router.replace({ query: { shot: id } })
const toFrame = (n: number): void => void router.replace({ query: { ...route.query, frame: n } })
</script>

<template>
  <PartsPage
    view="cameras"
    :title="text.title"
    :parts="parts"
    :here="here"
    :shot="shot"
    :fault="fault"
    @close="fault = ''"
  >
    <EncodingsPanel v-if="here === 'encodings'" />
    <LookupPanel v-else-if="here === 'lookup'" />
    <MeasurePanel
      v-else-if="here === 'measure'"
      :shot="shot"
      :frame="frame"
      @choose="choose"
      @frame="toFrame"
    />
    <EstimatePanel
      v-else-if="here === 'estimate'"
      :shot="shot"
      :frame="frame"
      @choose="choose"
      @frame="toFrame"
    />
    <ChartPanel
      v-else-if="here === 'chart'"
      :shot="shot"
      :frame="frame"
      @choose="choose"
    />
    <ComparePanel
      v-else
      :shot="shot"
      :frame="frame"
      @choose="choose"
    />
  </PartsPage>
</template>
