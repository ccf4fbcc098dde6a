<script setup lang="ts">
// Chart: what a chart of 24 patches says of this camera in this light.
import { cutTo } from '@core/names'
import { computed, ref, shallowRef, watch } from 'vue'
import { ElButton, ElInput } from 'element-plus'
import { balancedByChart, matchedByChart, matrixStep, type ChartReading, type Corners } from '@core/cards'
import type { GradeDocument, Recipe } from '@core/grade'
import { checkedRecipe } from '@contracts/recipes'
import type { ShotDetail } from '@contracts/responses'
import { post, sentenceOf } from '../../api/client'
import Notice from '../../components/Notice.vue'
import ShotChooser from '../../components/ShotChooser.vue'
import { useCameraWorker } from '../../composables/useCameraWorker'
import { useGrade } from '../../stores/grade'
import { Overtaken } from '../../workers/calls'
import ChartPicker from './ChartPicker.vue'
import ChartResult from './ChartResult.vue'
import { text } from './text'

const props = defineProps<{ shot: ShotDetail | null; frame: number }>()
const emit = defineEmits<{ choose: [shotId: string] }>()
const worker = useCameraWorker()
const grade = useGrade()
const middle: Corners = [
  { x: 0.35, y: 0.3 },
  { x: 0.65, y: 0.3 },
  { x: 0.65, y: 0.66 },
  { x: 0.35, y: 0.66 },
]
const corners = shallowRef<Corners>(middle)
const reading = shallowRef<ChartReading | null>(null)
const fault = ref('')
const done = ref('')
const name = ref('')
const trimmed = computed(() => cutTo(name.value.trim(), 60))
/** The reading of the file matters; what the grade does after it does not. */
const read = computed(() => grade.document?.read)

watch(
  [() => props.shot?.id, () => props.frame, corners, read] as const,
  async () => {
    const { shot, frame } = props
    const { document } = grade
    if (!shot || !document) return
    try {
      const { hash: mediaHash, range } = shot.media
      const asked = { mediaHash, frameIndex: frame, range, grade: document, corners: corners.value }
      reading.value = await worker.latest('chart', asked)
      fault.value = ''
    } catch (error) {
      if (error instanceof Overtaken) return
      reading.value = null
      fault.value = sentenceOf(error)
    }
  },
  { immediate: true },
)
watch([() => props.shot?.id, corners], () => {
  done.value = ''
})

async function put(summary: string, said: string, change: (g: GradeDocument) => GradeDocument): Promise<void> {
  grade.edit(summary, change)
  await grade.commit()
  done.value = said
}
const balance = (of: ChartReading): Promise<void> =>
  put('Exposure and white by the chart', text.chart.done.balance, (g) => balancedByChart(g, of))
const match = (of: ChartReading): Promise<void> =>
  put('Camera matrix by the chart', text.chart.done.match, (g) => matchedByChart(g, of))
async function keep(of: ChartReading): Promise<void> {
  try {
    const step = matrixStep(of, trimmed.value)
    await post<Recipe>('/recipes', checkedRecipe({ name: trimmed.value, note: '', steps: [step], regions: [] }))
    done.value = text.chart.done.keep(trimmed.value)
    name.value = ''
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}
</script>

<template>
  <div class="chart">
    <section class="source">
      <ShotChooser
        v-if="!shot"
        :hint="text.chart.choose"
        @choose="emit('choose', $event)"
      />
      <ChartPicker
        v-else
        v-model:corners="corners"
        :shot="shot"
        :frame="frame"
      />
      <Notice
        :text="fault"
        @close="fault = ''"
      />
    </section>
    <section
      v-if="shot && reading"
      class="result"
    >
      <ChartResult :reading="reading" />
      <div class="acts">
        <ElButton
          size="small"
          :title="text.chart.balanceTip"
          @click="balance(reading)"
        >
          {{ text.chart.balance }}
        </ElButton>
        <ElButton
          size="small"
          :title="text.chart.matchTip"
          @click="match(reading)"
        >
          {{ text.chart.match }}
        </ElButton>
      </div>
      <form
        class="acts"
        @submit.prevent="trimmed && keep(reading)"
      >
        <ElInput
          v-model="name"
          size="small"
          maxlength="60"
          :placeholder="text.chart.name"
          :aria-label="text.chart.name"
        />
        <ElButton
          size="small"
          native-type="submit"
          :title="text.chart.keepTip"
          :disabled="!trimmed"
        >
          {{ text.chart.keep }}
        </ElButton>
      </form>
      <p
        role="status"
        class="quiet"
      >
        {{ done }}
      </p>
    </section>
    <p
      v-else-if="shot && !fault"
      class="quiet"
    >
      {{ text.chart.measuring }}
    </p>
  </div>
</template>

<style scoped>
.chart {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(360px, 1fr);
  gap: var(--gap-broad);
  min-height: 0;
}
.source,
.result {
  display: grid;
  gap: var(--gap);
  align-content: start;
  min-height: 0;
  overflow-y: auto;
}
/* Before a shot is chosen its pictures have the room. */
.source:only-child {
  grid-column: 1 / -1;
}
.acts {
  display: flex;
  gap: var(--gap);
}
.acts :deep(.el-button + .el-button) {
  margin-left: 0;
}
p {
  margin: 0;
  min-height: 1.4em;
}
</style>
