<script setup lang="ts">
// The chosen station's controls, and what each of them does to the grade.
import { computed, ref, watch } from 'vue'
import { addMark, addRegion, addStep, applyRecipe, cdlParameters, removeMark, removeRegion, removeStep, setParameter, setParameterAt, setPath, setRead, setRegion, setShow, setShowParameter, setStep, showParameters, stationOf, stations, stepKindById, workOn, type CdlNumbers, type CurvePoint, type GradeDocument, type NumberParameter, type Region, type ShowParameterKey, type Side, type StationId, type Step } from '@core/index'
import type { MediaFacts, ShotDetail } from '@contracts/responses'
import HelpTip from '../../components/HelpTip.vue'
import { useGrade } from '../../stores/grade'
import { useView } from '../../stores/view'
import type { PictureFacts, RenderResult } from '../../workers/messages'
import AlongBar from './AlongBar.vue'
import LookControls from './LookControls.vue'
import ReadControls from './ReadControls.vue'
import RegionControls from './RegionControls.vue'
import ShowControls from './ShowControls.vue'
import SideSwitch from './SideSwitch.vue'
import StepControls from './StepControls.vue'
import { text } from './text'
import ToneCurveEditor from './ToneCurveEditor.vue'
import ZoneControls from './ZoneControls.vue'

const props = defineProps<{ /** As it is at this frame. */ grade: GradeDocument; /** With what changes along the clip. */ whole: GradeDocument; firstFrame: number; setup: ShotDetail['setup']; station: StationId; region: Region | null; media: MediaFacts; shotId: string; shotName: string; frame: number; facts: PictureFacts | null; result: RenderResult | null; settled: boolean }>()
const emit = defineEmits<{ go: [frame: number] }>()
const store = useGrade()
const view = useView()

/** Stations whose controls do not fit on one page. */
const pages: Readonly<Partial<Record<StationId, readonly { readonly name: string; readonly kinds: readonly string[] }[]>>> = {
  level: [{ name: text.pages.level, kinds: ['exposure', 'white-balance', 'black-offset'] }, { name: text.pages.byTone, kinds: ['balance-by-tone'] }],
  shape: [{ name: text.pages.tone, kinds: ['contrast', 'ends'] }, { name: text.pages.zones, kinds: ['zone'] }],
}
const page = ref(0)
watch(() => props.station, () => { page.value = 0 })
const kinds = computed(() => pages[props.station]?.[page.value]?.kinds)
const here = computed(() => stations.find((s) => s.id === props.station))
const curveStep = computed(() => props.grade.steps.find((s) => s.kind === 'tone-curve' && s.regionId === undefined))
const curvePoints = computed(() => (curveStep.value?.params['points'] ?? []) as readonly CurvePoint[])
const lutStep = computed(() => props.grade.steps.find((s) => s.kind === 'lut'))
const cdlStep = computed(() => props.grade.steps.find((s) => s.kind === 'cdl' && s.regionId === undefined) ?? null)
function takeCdl(cdl: CdlNumbers, from: string): void {
  store.edit(`Decision list ${from}`.slice(0, 200), (g) => addStep(cdlStep.value ? removeStep(g, cdlStep.value.id) : g, 'cdl', 'Slope, offset, power', { ...cdlParameters(cdl) }), { kind: 'cdl' })
}
const exposureStep = computed(() => props.grade.steps.find((s) => s.kind === 'exposure' && s.regionId === undefined))
const exposure = stepKindById('exposure').parameters['exposureStops'] as NumberParameter
const movable = computed(() => (['level', 'shape', 'hue', 'regions'].includes(props.station) ? props.grade.steps.filter((s) => stationOf(s) === props.station) : []))
const afterShow = computed(() => props.grade.steps.filter((s) => s.side === 'display' && s.enabled && !stepKindById(s.kind).isNeutral(s.params)).map((s) => s.name))

function moveSteps(side: Side): void {
  const ids = movable.value.map((s) => s.id)
  store.edit(side === 'display' ? 'Moved after Show' : 'Moved before Show', (g) => ids.reduce((moved, id) => setStep(moved, id, { side }), g))
}
function changeParameter(step: Step, key: string, value: number | string | null | readonly CurvePoint[]): void {
  const label = stepKindById(step.kind).parameters[key]?.label ?? step.name
  const parameter = stepKindById(step.kind).parameters[key]
  if (typeof value === 'number' && parameter?.type === 'number') store.edit(`${label} ${value}`, (g) => setParameterAt(g, step.id, key, value, props.frame, parameter))
  else store.edit(label, (g) => setParameter(g, step.id, key, value))
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
    <h2><span class="caps">{{ here?.name }}</span> <span v-if="pages[station]" class="pages" role="group" :aria-label="here?.name"><button v-for="(p, i) in pages[station]" :key="p.name" type="button" :aria-pressed="page === i" @click="page = i">{{ p.name }}</button></span> <SideSwitch v-if="movable.length" :steps="movable" :meridian="result?.meridian ?? null" :settled="settled" @move="moveSteps" /><HelpTip v-if="setup && station !== 'read' && station !== 'show' && station !== 'regions'" :text="text.setup.tip"><button type="button" class="setup" :aria-pressed="!store.alone" data-testid="setup" @click="store.alone = !store.alone">{{ store.alone ? text.setup.alone(setup.name) : text.setup.all(setup.name, setup.shots) }}</button></HelpTip></h2>
    <ReadControls v-if="station === 'read'" :read="grade.read" :media="media" :shot-id="shotId" :frame="frame" @change="store.edit('Read', (g) => setRead(g, $event))" />
    <ZoneControls
      v-else-if="station === 'shape' && page === 1" :grade="grade" @add="(p) => store.edit(`${p.name} added`, (g) => addStep(g, 'zone', p.name, p.params))" @remove="(id) => store.edit('Zone removed', (g) => removeStep(g, id))"
      @enabled="(id, enabled) => store.edit(enabled ? 'Zone on' : 'Zone off', (g) => setStep(g, id, { enabled }))" @change="changeParameter" @hold="store.hold" @release="store.release"
    />
    <div v-else-if="station === 'shape'" class="shape">
      <StepControls :grade="grade" station="shape" :kinds="kinds" :facts="facts" @change="changeParameter" @hold="store.hold" @release="store.release" />
      <ToneCurveEditor v-if="curveStep" :data-step="curveStep.id" :points="curvePoints" @change="changeParameter(curveStep, 'points', $event)" @hold="store.hold" @release="store.release" />
    </div>
    <RegionControls
      v-else-if="station === 'regions'" :grade="grade" :region="region" @add="add" @choose="view.regionId = $event" @remove="store.edit('Region removed', (g) => removeRegion(g, $event))"
      @region="changeRegion" @shape="region && changeRegion(region.id, { shape: $event })" @change="changeParameter" @hold="store.hold" @release="store.release"
    />
    <LookControls
      v-else-if="station === 'look' && lutStep" :step="lutStep" :cdl="cdlStep" :shot-name="shotName" :grade="grade" @recipe="(steps, name) => store.edit(`Recipe ${name}`, (g) => applyRecipe(g, steps))" @cdl="takeCdl" @no-cdl="store.edit('Decision list removed', (g) => (cdlStep ? removeStep(g, cdlStep.id) : g))" @lut="changeParameter(lutStep, 'lutHash', $event)" @strength="store.edit('LUT strength', (g) => setStep(g, lutStep!.id, { strength: $event }))"
      @side="store.edit('LUT place', (g) => setStep(g, lutStep!.id, { side: $event }))" @interpolation="changeParameter(lutStep, 'interpolation', $event)" @hold="store.hold" @release="store.release"
    />
    <ShowControls
      v-else-if="station === 'show'" :show="grade.show" :working="grade.working" :accuracy="result?.accuracy ?? null" @change="(what, change) => store.edit(what, (g) => setShow(g, change))"
      @parameter="changeShow" @working="store.edit('Steps act on', (g) => workOn(g, $event))" @hold="store.hold" @release="store.release"
    />
    <p v-else-if="station === 'finish'" class="quiet">{{ afterShow.length ? text.afterShow(afterShow.join(', ')) : text.nothingHere }}</p>
    <div v-else>
      <StepControls :grade="grade" :station="station" :kinds="kinds" :facts="facts" @change="changeParameter" @hold="store.hold" @release="store.release" />
      <AlongBar
        v-if="station === 'level' && page === 0 && exposureStep" :grade="whole" :step="exposureStep" parameter-key="exposureStops" :parameter="exposure" :frame="frame" :first-frame="firstFrame"
        @mark="store.edit(text.along.marked(exposure.label, frame - firstFrame), (g) => addMark(g, exposureStep!.id, 'exposureStops', frame))" @unmark="(at) => store.edit(text.along.unmarked(exposure.label, at - firstFrame), (g) => removeMark(g, exposureStep!.id, 'exposureStops', at))"
        @path="(path) => store.edit(text.along.way(exposure.label), (g) => setPath(g, exposureStep!.id, 'exposureStops', path))" @go="emit('go', $event)"
      />
    </div>
  </section>
</template>

<style scoped>
/* Its place is given by the Bench: what changes inside moves nothing outside. */
.panel { contain: size layout style; position: relative; padding: var(--gap) var(--gap-wide); min-height: 0; overflow: hidden; display: grid; grid-template-rows: auto 1fr; }
h2 { font-size: var(--text); font-weight: 400; display: flex; gap: var(--gap-wide); align-items: baseline; margin-bottom: var(--gap-small); }
.pages { display: flex; gap: 2px; }
.pages button { background: none; border: 0; border-bottom: var(--line) solid transparent; padding: 0 6px; min-height: 24px; color: var(--ink-quiet); }
.pages [aria-pressed='true'] { color: var(--ink); border-bottom-color: var(--accent); }
.setup { margin-left: auto; background: none; border: var(--line) solid var(--hairline); border-radius: var(--radius); padding: 0 8px; min-height: 24px; font-size: 12px; }
.setup[aria-pressed='true'] { border-color: var(--accent); }
.shape { display: grid; grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr); gap: var(--gap-broad); min-height: 0; }
p { margin: var(--gap) 0; }
</style>
