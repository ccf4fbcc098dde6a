<script setup lang="ts">
// The chosen station's controls, and what each of them does to the grade.
import { computed } from 'vue'
import { addRegion, removeRegion, setParameter, setRead, setRegion, setShow, setShowParameter, setStep, showParameters, stationOf, stations, stepKindById, workOn, type CurvePoint, type GradeDocument, type Region, type ShowParameterKey, type Side, type StationId, type Step } from '@core/index'
import type { MediaFacts } from '@contracts/responses'
import { useGrade } from '../../stores/grade'
import { useView } from '../../stores/view'
import type { PictureFacts, RenderResult } from '../../workers/messages'
import LookControls from './LookControls.vue'
import ReadControls from './ReadControls.vue'
import RegionControls from './RegionControls.vue'
import ShowControls from './ShowControls.vue'
import SideSwitch from './SideSwitch.vue'
import StepControls from './StepControls.vue'
import { text } from './text'
import ToneCurveEditor from './ToneCurveEditor.vue'

const props = defineProps<{ grade: GradeDocument; station: StationId; region: Region | null; media: MediaFacts; shotId: string; frame: number; facts: PictureFacts | null; result: RenderResult | null; settled: boolean }>()
const store = useGrade()
const view = useView()

const here = computed(() => stations.find((s) => s.id === props.station))
const curveStep = computed(() => props.grade.steps.find((s) => s.kind === 'tone-curve' && s.regionId === undefined))
const curvePoints = computed(() => (curveStep.value?.params['points'] ?? []) as readonly CurvePoint[])
const lutStep = computed(() => props.grade.steps.find((s) => s.kind === 'lut'))
const movable = computed(() => (['level', 'shape', 'hue', 'regions'].includes(props.station) ? props.grade.steps.filter((s) => stationOf(s) === props.station) : []))
const afterShow = computed(() => props.grade.steps.filter((s) => s.side === 'display' && s.enabled && !stepKindById(s.kind).isNeutral(s.params)).map((s) => s.name))

function moveSteps(side: Side): void {
  const ids = movable.value.map((s) => s.id)
  store.edit(side === 'display' ? 'Moved after Show' : 'Moved before Show', (g) => ids.reduce((moved, id) => setStep(moved, id, { side }), g))
}
function changeParameter(step: Step, key: string, value: number | string | null | readonly CurvePoint[]): void {
  const label = stepKindById(step.kind).parameters[key]?.label ?? step.name
  store.edit(typeof value === 'number' ? `${label} ${value}` : label, (g) => setParameter(g, step.id, key, value))
}
function changeShow(key: ShowParameterKey, value: number): void {
  store.edit(`${showParameters[key].label} ${value}`, (g) => setShowParameter(g, key, value))
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
    <h2><span class="caps">{{ here?.name }}</span> <SideSwitch v-if="movable.length" :steps="movable" :meridian="result?.meridian ?? null" :settled="settled" @move="moveSteps" /></h2>
    <ReadControls v-if="station === 'read'" :read="grade.read" :media="media" :shot-id="shotId" :frame="frame" @change="store.edit('Read', (g) => setRead(g, $event))" />
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
    <ShowControls
      v-else-if="station === 'show'" :show="grade.show" :working="grade.working" :accuracy="result?.accuracy ?? null" @change="(what, change) => store.edit(what, (g) => setShow(g, change))"
      @parameter="changeShow" @working="store.edit('Steps act on', (g) => workOn(g, $event))" @hold="store.hold" @release="store.release"
    />
    <p v-else-if="station === 'finish'" class="quiet">{{ afterShow.length ? text.afterShow(afterShow.join(', ')) : text.nothingHere }}</p>
    <StepControls v-else :grade="grade" :station="station" :facts="facts" @change="changeParameter" @hold="store.hold" @release="store.release" />
  </section>
</template>

<style scoped>
.panel { position: relative; padding: var(--gap) var(--gap-wide); min-height: 0; overflow: hidden; display: grid; grid-template-rows: auto 1fr; }
h2 { font-size: var(--text); font-weight: 400; display: flex; gap: var(--gap-wide); align-items: baseline; margin-bottom: var(--gap-small); }
.shape { display: grid; grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr); gap: var(--gap-broad); min-height: 0; }
p { margin: var(--gap) 0; }
</style>
