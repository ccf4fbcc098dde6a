<script setup lang="ts">
// Estimate: a curve that nobody can name, from what a clip shows of it, with its band of uncertainty.
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { encodingById, encodingFromDefinition, middleGrey, type EncodingDefinition } from '@core/colour'
import { setRead, type NumberParameter } from '@core/grade'
import { matchedTones, type CurveEstimate, type Fact, type Patch } from '@core/measure'
import type { ShotDetail, ShotSummary } from '@contracts/responses'
import { sentenceOf } from '../../api/client'
import Notice from '../../components/Notice.vue'
import PlainSelect from '../../components/PlainSelect.vue'
import ScaleControl from '../../components/ScaleControl.vue'
import ShotChooser from '../../components/ShotChooser.vue'
import { useCameraWorker } from '../../composables/useCameraWorker'
import { useEncodings } from '../../stores/encodings'
import { useGrade } from '../../stores/grade'
import { useReel } from '../../stores/reel'
import type { ClipTones, CodedClip } from '../../workers/camera-worker'
import { Overtaken } from '../../workers/calls'
import EstimateResult from './EstimateResult.vue'
import PatchPicker from './PatchPicker.vue'
import { text } from './text'

const props = defineProps<{ shot: ShotDetail | null; frame: number }>()
const emit = defineEmits<{ choose: [shotId: string]; frame: [frame: number] }>()
const worker = useCameraWorker()
const encodingStore = useEncodings()
const reelStore = useReel()
const grade = useGrade()

const patches = shallowRef<readonly Patch[]>([])
const ours = shallowRef<ClipTones | null>(null)
/** The choice of no other shot. */
const none = 'none'
const known = ref(none)
const exposed = ref(none)
const byStops = ref(1)
const knownTones = shallowRef<readonly number[]>([])
const exposedTones = shallowRef<readonly number[]>([])
const estimate = shallowRef<CurveEstimate | null>(null)
const fault = ref('')
const kept = ref('')
const others = computed(() => [
  { id: none, name: text.estimate.none },
  ...(reelStore.current?.shots ?? []).filter((s) => s.id !== props.shot?.id).map(({ id, name }) => ({ id, name })),
])
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

const clipOf = ({ media }: ShotSummary, frameIndex: number): CodedClip => ({
  mediaHash: media.hash,
  frameIndex,
  range: media.range,
  width: media.width,
  height: media.height,
  frameCount: media.frameCount,
})
const saying = (error: unknown): void => {
  if (!(error instanceof Overtaken)) fault.value = sentenceOf(error)
}
onMounted(() => void encodingStore.load().catch(saying))
watch(
  [() => props.shot?.id, () => props.frame],
  async ([id], before) => {
    const { shot } = props
    if (id !== before[0]) {
      known.value = exposed.value = none
      kept.value = ''
      ours.value = null
    }
    if (!shot) return
    try {
      if (reelStore.current?.project.id !== shot.projectId) await reelStore.load(shot.projectId)
      const tones = await worker.ask('tones', clipOf(shot, props.frame))
      if (props.shot?.id === id) ours.value = tones
    } catch (error) {
      saying(error)
    }
  },
  { immediate: true },
)
const other = (id: string): ShotSummary | undefined => reelStore.current?.shots.find((s) => s.id === id)
async function tonesOfShot(id: string): Promise<readonly number[]> {
  const shot = other(id)
  return shot ? (await worker.ask('tones', clipOf(shot, shot.leadFrame))).tones : []
}
watch(known, async (id) => {
  knownTones.value = []
  const tones = await tonesOfShot(id).catch((error: unknown) => (saying(error), []))
  if (known.value === id) knownTones.value = tones
})
watch(exposed, async (id) => {
  exposedTones.value = []
  const tones = await tonesOfShot(id).catch((error: unknown) => (saying(error), []))
  if (exposed.value === id) exposedTones.value = tones
})

/** How sure facts are, in stops: a patch that was drawn over; a scene seen by another camera; one surface twice. */
const unsure = { patch: 0.1, known: 0.3, exposed: 0.12 } as const
const stopsOf = (light: number): number => Math.log2(Math.max(light, 1e-5) / middleGrey)
const facts = computed<readonly Fact[]>(() => {
  const tones = ours.value?.tones ?? []
  const read = other(known.value)?.read
  const { decode } = read?.own ? encodingFromDefinition(read.own).curve : encodingById(read?.encodingId ?? 'srgb').curve
  return [
    ...patches.value
      .filter((p) => p.linear > 0)
      .map(({ code, linear }): Fact => ({ kind: 'tone', code, stops: stopsOf(linear), unsure: unsure.patch })),
    ...(knownTones.value.length === tones.length ? matchedTones(tones, knownTones.value) : []).map(
      ({ ours: code, theirs }): Fact => ({ kind: 'tone', code, stops: stopsOf(decode(theirs)), unsure: unsure.known }),
    ),
    ...(exposedTones.value.length === tones.length ? matchedTones(tones, exposedTones.value) : []).map(
      ({ ours: from, theirs: to }): Fact => ({
        kind: 'apart',
        from,
        to,
        stops: byStops.value,
        unsure: unsure.exposed,
      }),
    ),
  ]
})
watch([facts, ours], async () => {
  const tones = ours.value
  if (!tones) {
    estimate.value = null
    return
  }
  try {
    estimate.value = await worker.ask('estimate', { facts: facts.value, noise: tones.noise })
  } catch (error) {
    saying(error)
  }
})

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
      setRead(g, { method: 'formula', encodingId: own.id, gamutId: own.gamutId, own }),
    )
    await grade.commit()
    kept.value = own.name
  } catch (error) {
    saying(error)
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
