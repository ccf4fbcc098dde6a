<script setup lang="ts">
// Estimate: a curve that nobody can name, from what a clip shows of it, with its band of uncertainty.
import { onMounted, ref, watch } from 'vue'
import type { EncodingDefinition } from '@core/colour'
import { setRead, type NumberParameter } from '@core/grade'
import type { ShotDetail } from '@contracts/responses'
import Notice from '../../components/Notice.vue'
import PlainSelect from '../../components/PlainSelect.vue'
import ScaleControl from '../../components/ScaleControl.vue'
import ShotChooser from '../../components/ShotChooser.vue'
import { useEncodings } from '../../stores/encodings'
import { useGrade } from '../../stores/grade'
import EstimateResult from './EstimateResult.vue'
import PatchPicker from './PatchPicker.vue'
import { text } from './text'
import { none, stopsOf, useEstimate } from './useEstimate'

const props = defineProps<{ shot: ShotDetail | null; frame: number }>()
const emit = defineEmits<{ choose: [shotId: string]; frame: [frame: number] }>()
const encodingStore = useEncodings()
const grade = useGrade()
const { patches, ours, known, exposed, byStops, others, estimate, fault, say } = useEstimate(
  () => props.shot,
  () => props.frame,
)
const kept = ref('')
onMounted(() => void encodingStore.load().catch(say))
watch(
  () => props.shot?.id,
  () => {
    kept.value = ''
  },
)
const stopsParameter: NumberParameter = {
  type: 'number',
  label: text.estimate.stops,
  tip: text.estimate.stopsTip,
  unit: 'stops',
  min: -6,
  max: 6,
  scale: [-3, 3],
  default: 1,
  step: 0.1,
  decimals: 2,
  signed: true,
}

async function keep(definition: Omit<EncodingDefinition, 'curve' | 'source'>): Promise<void> {
  const made = estimate.value
  const { shot } = props
  if (!made || !shot) return
  const greyAt = made.entries.reduce(
    (best, e, i) => (Math.abs(stopsOf(e.linear)) < Math.abs(stopsOf(made.entries[best]?.linear ?? 0)) ? i : best),
    0,
  )
  try {
    const own: EncodingDefinition = {
      ...definition,
      source: `estimated from “${shot.name.slice(0, 40)}”, ±${(made.bandStops[greyAt] ?? 0).toFixed(1)} stops at grey`,
      curve: { family: 'table', entries: [...made.entries] },
    }
    await encodingStore.keep(own)
    grade.edit(`Read by ${own.name}`, (g) =>
      setRead(g, { method: 'formula', encodingId: own.id, gamutId: own.gamutId, own }, shot.showDefaults.rendering),
    )
    await grade.commit()
    kept.value = own.name
  } catch (error) {
    say(error)
  }
}
</script>

<template>
  <div class="estimate">
    <section class="source">
      <ShotChooser
        v-if="!shot"
        :hint="text.estimate.choose"
        @choose="emit('choose', $event)"
      />
      <template v-else>
        <PatchPicker
          :shot="shot"
          :frame="frame"
          :how="text.estimate.how"
          @patches="patches = $event"
          @frame="emit('frame', $event)"
        />
        <h2 class="caps">{{ text.estimate.facts }}</h2>
        <dl>
          <dt :data-tip="text.estimate.pointedTip">{{ text.estimate.pointed }}</dt>
          <dd
            class="figures"
            data-testid="pointed"
          >
            {{ patches.length ? text.estimate.patches(patches.length) : text.estimate.noPatches }}
          </dd>
          <dt :data-tip="text.estimate.noiseTip">{{ text.estimate.noise }}</dt>
          <dd
            class="figures"
            data-testid="noise"
          >
            <template v-if="!ours">{{ text.estimate.measuring }}</template>
            <template v-else>
              {{ ours.noise.length ? text.estimate.bands(ours.noise.length) : text.estimate.noNoise }}
            </template>
          </dd>
        </dl>
        <PlainSelect
          :label="text.estimate.known"
          :tip="text.estimate.knownTip"
          :options="others"
          :model-value="known"
          @update:model-value="known = $event"
        />
        <PlainSelect
          :label="text.estimate.exposed"
          :tip="text.estimate.exposedTip"
          :options="others"
          :model-value="exposed"
          @update:model-value="exposed = $event"
        />
        <ScaleControl
          v-if="exposed !== none"
          :parameter="stopsParameter"
          :model-value="byStops"
          data-control="by-stops"
          @update:model-value="byStops = $event"
        />
      </template>
      <Notice
        :text="fault"
        @close="fault = ''"
      />
    </section>
    <EstimateResult
      v-if="shot"
      :estimate="estimate"
      :kept="kept"
      @keep="keep"
    />
  </div>
</template>

<style scoped>
.estimate {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(360px, 1fr);
  gap: var(--gap-broad);
  min-height: 0;
}
.source {
  display: grid;
  gap: var(--gap);
  align-content: start;
  min-height: 0;
  overflow-y: auto;
}
.source :deep(.picture) {
  max-width: 480px;
}
/* Before a shot is chosen its pictures have the room. */
.source:only-child {
  grid-column: 1 / -1;
}
.source > .choice {
  max-width: 480px;
}
h2 {
  font-weight: 400;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px var(--gap);
  margin: 0;
}
dt {
  color: var(--ink-quiet);
}
dd,
p {
  margin: 0;
}
</style>
