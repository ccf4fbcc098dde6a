<script setup lang="ts">
// The chosen station's controls, and what each of them does to the grade.
import { computed } from 'vue'
import { addRegion, displays, removeRegion, setParameter, setRead, setRegion, setShow, setStep, stations, stepKindById, type CurvePoint, type GradeDocument, type Region, type StationId, type Step } from '@core/index'
import type { MediaFacts } from '@contracts/responses'
import PlainSelect from '../../components/PlainSelect.vue'
import { useGrade } from '../../stores/grade'
import { useView } from '../../stores/view'
import type { PictureFacts } from '../../workers/messages'
import LookControls from './LookControls.vue'
import ReadControls from './ReadControls.vue'
import RegionControls from './RegionControls.vue'
import StepControls from './StepControls.vue'
import { text } from './text'
import ToneCurveEditor from './ToneCurveEditor.vue'

const props = defineProps<{ grade: GradeDocument; station: StationId; region: Region | null; media: MediaFacts; facts: PictureFacts | null }>()
const store = useGrade()
const view = useView()

const here = computed(() => stations.find((s) => s.id === props.station))
const curveStep = computed(() => props.grade.steps.find((s) => s.kind === 'tone-curve' && s.regionId === undefined))
const curvePoints = computed(() => (curveStep.value?.params['points'] ?? []) as readonly CurvePoint[])
const lutStep = computed(() => props.grade.steps.find((s) => s.kind === 'lut'))
const side = computed(() => (props.station === 'look' ? lutStep.value?.side === 'scene' : ['read', 'level', 'shape', 'hue', 'regions'].includes(props.station)) ? text.sceneSide : text.displaySide)
const displayOptions = displays.map(({ id, name, tip }) => ({ id, name, tip }))

function changeParameter(step: Step, key: string, value: number | string | null | readonly CurvePoint[]): void {
  const label = stepKindById(step.kind).parameters[key]?.label ?? step.name
  store.edit(typeof value === 'number' ? `${label} ${value}` : label, (g) => setParameter(g, step.id, key, value))
}
function add(): void {
  store.edit('Region added', (g) => {
    const { grade, regionId } = addRegion(g)
    view.regionId = regionId
    return grade
  })
}
function changeRegion(id: string, change: Parameters<typeof setRegion>[2]): void {
  store.edit('Region changed', (g) => setRegion(g, id, change))
}
</script>

<template>
  <section class="panel" :aria-label="here?.name">
    <h2><span class="caps">{{ here?.name }}</span> <span class="quiet">{{ side }}</span></h2>
    <ReadControls v-if="station === 'read'" :read="grade.read" :media="media" @change="store.edit('Read', (g) => setRead(g, $event))" />
    <div v-else-if="station === 'shape'" class="shape">
      <StepControls :grade="grade" station="shape" :facts="facts" @change="changeParameter" @hold="store.hold" @release="store.release" />
      <ToneCurveEditor v-if="curveStep" :points="curvePoints" @change="changeParameter(curveStep, 'points', $event)" @hold="store.hold" @release="store.release" />
    </div>
    <RegionControls
      v-else-if="station === 'regions'" :grade="grade" :region="region" @add="add" @choose="view.regionId = $event" @remove="store.edit('Region removed', (g) => removeRegion(g, $event))"
      @region="changeRegion" @shape="region && changeRegion(region.id, { shape: $event })" @change="changeParameter" @hold="store.hold" @release="store.release"
    />
    <LookControls
      v-else-if="station === 'look' && lutStep" :step="lutStep" @lut="changeParameter(lutStep, 'lutHash', $event)" @strength="store.edit('LUT strength', (g) => setStep(g, lutStep!.id, { strength: $event }))"
      @side="store.edit('LUT place', (g) => setStep(g, lutStep!.id, { side: $event }))" @interpolation="changeParameter(lutStep, 'interpolation', $event)" @hold="store.hold" @release="store.release"
    />
    <div v-else-if="station === 'show'" class="show">
      <PlainSelect :label="text.show.display" :tip="text.show.displayTip" :options="displayOptions" :model-value="grade.show.displayId" @update:model-value="store.edit('Display', (g) => setShow(g, { displayId: $event }))" />
      <p class="quiet">{{ text.show.method }}</p>
    </div>
    <p v-else-if="station === 'finish'" class="quiet">{{ text.nothingHere }}</p>
    <StepControls v-else :grade="grade" :station="station" :facts="facts" @change="changeParameter" @hold="store.hold" @release="store.release" />
  </section>
</template>

<style scoped>
.panel { position: relative; padding: var(--gap) var(--gap-wide); min-height: 0; overflow: hidden; display: grid; grid-template-rows: auto 1fr; }
h2 { font-size: var(--text); font-weight: 400; display: flex; gap: var(--gap-wide); align-items: baseline; margin-bottom: var(--gap-small); }
.shape { display: grid; grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr); gap: var(--gap-broad); min-height: 0; }
.show { max-width: 420px; }
p { margin: var(--gap) 0; }
</style>
