<script setup lang="ts">
// The chosen station's controls, and what each of them does to the grade.
import { computed, ref, watch } from 'vue'
import {
  addMark,
  addStep,
  cdlParameters,
  removeMark,
  removeStep,
  setParameter,
  setParameterAt,
  setPath,
  setRead,
  setShow,
  setShowParameter,
  setStep,
  showParameters,
  stationOf,
  stations,
  stepKindById,
  workOn,
  type CdlNumbers,
  type CurvePoint,
  type DifferenceReport,
  type GradeDocument,
  ownLook,
  type NumberParameter,
  type RegionStartId,
  type ShowParameterKey,
  type Side,
  type StationId,
  type Step,
} from '@core/grade'
import type { MediaFacts, ShotDetail } from '@contracts/responses'
import { useGrade } from '../../stores/grade'
import { unsettledEncodings, usePlacing } from '../../stores/placing'
import { useView } from '../../stores/view'
import type { PictureFacts, RenderResult } from '../../workers/messages'
import AlongBar from './AlongBar.vue'
import ColourCurves from './curves/ColourCurves.vue'
import QuickColours from './curves/QuickColours.vue'
import ToneCurves from './curves/ToneCurves.vue'
import CdlControls from './CdlControls.vue'
import CleanColours from './curves/CleanColours.vue'
import LookControls from './LookControls.vue'
import PlacingControls from './PlacingControls.vue'
import ReadControls from './ReadControls.vue'
import RecipeBar from './RecipeBar.vue'
import { useRegions, type RegionPage } from '../../stores/regions'
import RegionControls from './regions/RegionControls.vue'
import SharedLook from './SharedLook.vue'
import ShowControls from './ShowControls.vue'
import SideSwitch from './SideSwitch.vue'
import StepControls from './StepControls.vue'
import { text } from './text'
import ZoneControls from './ZoneControls.vue'

const props = defineProps<{
  /** As it is at this frame. */ grade: GradeDocument
  /** With what changes along the clip. */ whole: GradeDocument
  firstFrame: number
  shot: ShotDetail
  setup: ShotDetail['setup']
  guess: ShotDetail['guess']
  station: StationId
  media: MediaFacts
  shotId: string
  shotName: string
  frame: number
  facts: PictureFacts | null
  result: RenderResult | null
  settled: boolean
  /** The noise reading of the shadows, in % of the signal; null until it is measured. */ noise: number | null
  /** What the other way between the chosen LUT's entries would change. */ between: DifferenceReport | null
}>()
const emit = defineEmits<{
  go: [frame: number]
  lut: [stepId: string]
  take: []
  start: [id: RegionStartId]
  bring: [shotId: string, regionId: string]
}>()
const store = useGrade()
const placing = usePlacing()
const regions = useRegions()
const view = useView()

/** Stations whose controls do not fit on one page. */
const pages: Readonly<
  Partial<Record<StationId, readonly { readonly name: string; readonly kinds: readonly string[] }[]>>
> = {
  level: [
    { name: text.pages.level, kinds: ['exposure', 'white-balance', 'black-offset'] },
    { name: text.pages.byTone, kinds: ['balance-by-tone'] },
  ],
  shape: [
    { name: text.pages.tone, kinds: ['contrast', 'ends'] },
    { name: text.pages.zones, kinds: ['zone'] },
    { name: text.pages.curve, kinds: [] },
    { name: text.pages.detail, kinds: ['local-contrast'] },
  ],
  hue: [
    { name: text.pages.hue, kinds: ['saturation', 'colour-curves'] },
    { name: text.pages.colours, kinds: [] },
    { name: text.pages.six, kinds: [] },
  ],
  look: [
    { name: text.pages.luts, kinds: [] },
    { name: text.pages.recipes, kinds: [] },
    { name: text.pages.cdl, kinds: [] },
    { name: text.pages.shared, kinds: [] },
  ],
}
const page = ref(0)
const regionPages = Object.entries(text.regions.pages) as [RegionPage, string][]
const unsettled = computed(() => unsettledEncodings(props.guess, props.grade.read.encodingId))
watch(
  () => props.station,
  () => {
    page.value = 0
  },
)
const kinds = computed(() => pages[props.station]?.[page.value]?.kinds)
const here = computed(() => stations.find((s) => s.id === props.station))
const curveStep = computed(() =>
  props.grade.steps.find((s) => s.kind === 'tone-curve' && s.regionId === undefined && s.lookId === undefined),
)
const colourStep = computed(() =>
  props.grade.steps.find((s) => s.kind === 'colour-curves' && s.regionId === undefined && s.lookId === undefined),
)
const lutSteps = computed(() =>
  props.grade.steps.filter((s) => s.kind === 'lut' && (s.lookId === undefined || s.lookId === ownLook)),
)
const lutId = ref<string | null>(null)
const lutStep = computed(() => lutSteps.value.find((s) => s.id === lutId.value) ?? lutSteps.value[0])
function addLut(): void {
  store.edit('LUT added', (g) => {
    const added = addStep(g, 'lut', 'LUT', {})
    const fresh = added.steps.at(-1)
    lutId.value = fresh?.id ?? null
    return fresh ? setStep(added, fresh.id, { side: 'display' }) : added
  })
}
const cdlStep = computed(
  () => props.grade.steps.find((s) => s.kind === 'cdl' && s.regionId === undefined && s.lookId === undefined) ?? null,
)
function takeCdl(cdl: CdlNumbers, from: string): void {
  store.edit(
    `Decision list ${from}`.slice(0, 200),
    (g) =>
      addStep(cdlStep.value ? removeStep(g, cdlStep.value.id) : g, 'cdl', 'Slope, offset, power', {
        ...cdlParameters(cdl),
      }),
    { kind: 'cdl' },
  )
}
watch([lutStep, () => props.station], ([step, station]) => emit('lut', station === 'look' && step ? step.id : ''), {
  immediate: true,
})
const exposureStep = computed(() =>
  props.grade.steps.find((s) => s.kind === 'exposure' && s.regionId === undefined && s.lookId === undefined),
)
const exposure = stepKindById('exposure').parameters['exposureStops'] as NumberParameter
const movable = computed(() =>
  ['level', 'shape', 'hue', 'regions'].includes(props.station)
    ? props.grade.steps.filter((s) => stationOf(s) === props.station)
    : [],
)
const afterShow = computed(() =>
  props.grade.steps
    .filter((s) => s.side === 'display' && s.enabled && !stepKindById(s.kind).isNeutral(s.params))
    .map((s) => s.name),
)

function moveSteps(side: Side): void {
  const ids = movable.value.map((s) => s.id)
  store.edit(side === 'display' ? 'Moved after Show' : 'Moved before Show', (g) =>
    ids.reduce((moved, id) => setStep(moved, id, { side }), g),
  )
}
function changeParameter(step: Step, key: string, value: number | string | null | readonly CurvePoint[]): void {
  const label = stepKindById(step.kind).parameters[key]?.label ?? step.name
  const parameter = stepKindById(step.kind).parameters[key]
  if (typeof value === 'number' && parameter?.type === 'number')
    store.edit(`${label} ${value}`, (g) => setParameterAt(g, step.id, key, value, props.frame, parameter))
  else store.edit(label, (g) => setParameter(g, step.id, key, value))
}
function changeShow(key: ShowParameterKey, value: number): void {
  store.edit(`${showParameters[key].label} ${value}`, (g) => setShowParameter(g, key, value))
}
</script>

<template>
  <section
    class="panel"
    :aria-label="here?.name"
  >
    <h2>
      <span class="caps">{{ here?.name }}</span>
      <span
        v-if="pages[station]"
        class="pages"
        role="group"
        :aria-label="here?.name"
      >
        <button
          v-for="(p, i) in pages[station]"
          :key="p.name"
          type="button"
          :aria-pressed="page === i"
          @click="page = i"
        >
          {{ p.name }}
        </button>
      </span>
      <span
        v-else-if="station === 'regions' && regions.region && !placing.recipe"
        class="pages"
        role="group"
        :aria-label="here?.name"
      >
        <button
          v-for="[id, name] in regionPages"
          :key="id"
          type="button"
          :aria-pressed="regions.page === id"
          :data-page="id"
          @click="regions.page = id"
        >
          {{ name }}
        </button>
      </span>
      <SideSwitch
        v-if="movable.length"
        :steps="movable"
        :meridian="result?.meridian ?? null"
        :settled="settled"
        @move="moveSteps"
      />
      <button
        v-if="setup && station !== 'read' && station !== 'show' && station !== 'regions'"
        :data-tip="text.setup.tip"
        type="button"
        class="setup"
        :aria-pressed="!store.alone"
        data-testid="setup"
        @click="store.alone = !store.alone"
      >
        {{ store.alone ? text.setup.alone(setup.name) : text.setup.all(setup.name, setup.shots) }}
      </button>
    </h2>
    <PlacingControls v-if="placing.recipe" />
    <ReadControls
      v-else-if="station === 'read'"
      :read="grade.read"
      :media="media"
      :shot-id="shotId"
      :frame="frame"
      @change="store.edit('Read', (g) => setRead(g, $event))"
    />
    <ZoneControls
      v-else-if="station === 'shape' && page === 1"
      :grade="grade"
      @add="(p) => store.edit(`${p.name} added`, (g) => addStep(g, 'zone', p.name, p.params))"
      @remove="(id) => store.edit('Zone removed', (g) => removeStep(g, id))"
      @enabled="(id, enabled) => store.edit(enabled ? 'Zone on' : 'Zone off', (g) => setStep(g, id, { enabled }))"
      @change="changeParameter"
    />
    <ToneCurves
      v-else-if="station === 'shape' && page === 2 && curveStep"
      :step="curveStep"
      @change="(key, value) => changeParameter(curveStep!, key, value)"
    />
    <ColourCurves
      v-else-if="station === 'hue' && page === 1 && colourStep"
      :step="colourStep"
      @change="(key, value) => changeParameter(colourStep!, key, value)"
    />
    <QuickColours
      v-else-if="station === 'hue' && page === 2 && colourStep"
      :step="colourStep"
      @change="(key, value) => changeParameter(colourStep!, key, value)"
    />
    <RegionControls
      v-else-if="station === 'regions'"
      :grade="grade"
      :whole="whole"
      :first-frame="firstFrame"
      @change="changeParameter"
      @go="emit('go', $event)"
      @start="emit('start', $event)"
      @bring="(shotId, regionId) => emit('bring', shotId, regionId)"
    />
    <RecipeBar
      v-else-if="station === 'look' && page === 1"
      :grade="grade"
      :held="view.still?.name ?? ''"
      @apply="placing.begin($event, unsettled)"
      @take="emit('take')"
    />
    <CdlControls
      v-else-if="station === 'look' && page === 2"
      :cdl="cdlStep"
      :shot-name="shotName"
      @cdl="takeCdl"
      @no-cdl="store.edit('Decision list removed', (g) => (cdlStep ? removeStep(g, cdlStep.id) : g))"
    />
    <SharedLook
      v-else-if="station === 'look' && page === 3"
      :grade="grade"
      :shot="shot"
      @change="changeParameter"
    />
    <LookControls
      v-else-if="station === 'look' && lutStep"
      :step="lutStep"
      :steps="lutSteps"
      :between="between"
      @choose="lutId = $event"
      @add="addLut"
      @remove="store.edit('LUT removed', (g) => removeStep(g, lutStep!.id))"
      @takes="changeParameter(lutStep, 'takes', $event)"
      @lut="changeParameter(lutStep, 'lutHash', $event)"
      @strength="store.edit('LUT strength', (g) => setStep(g, lutStep!.id, { strength: $event }))"
      @side="store.edit('LUT place', (g) => setStep(g, lutStep!.id, { side: $event }))"
      @interpolation="changeParameter(lutStep, 'interpolation', $event)"
    />
    <ShowControls
      v-else-if="station === 'show'"
      :show="grade.show"
      :working="grade.working"
      :accuracy="result?.accuracy ?? null"
      @change="(what, change) => store.edit(what, (g) => setShow(g, change))"
      @parameter="changeShow"
      @working="store.edit('Steps act on', (g) => workOn(g, $event))"
    />
    <p
      v-else-if="station === 'finish'"
      class="quiet"
    >
      {{ afterShow.length ? text.afterShow(afterShow.join(', ')) : text.nothingHere }}
    </p>
    <div v-else>
      <StepControls
        :grade="grade"
        :station="station"
        :kinds="kinds"
        :facts="facts"
        @change="changeParameter"
      />
      <AlongBar
        v-if="station === 'level' && page === 0 && exposureStep"
        :grade="whole"
        :step="exposureStep"
        parameter-key="exposureStops"
        :parameter="exposure"
        :frame="frame"
        :first-frame="firstFrame"
        @mark="
          store.edit(text.along.marked(exposure.label, frame - firstFrame), (g) =>
            addMark(g, exposureStep!.id, 'exposureStops', frame),
          )
        "
        @unmark="
          (at) =>
            store.edit(text.along.unmarked(exposure.label, at - firstFrame), (g) =>
              removeMark(g, exposureStep!.id, 'exposureStops', at),
            )
        "
        @path="
          (path) =>
            store.edit(text.along.way(exposure.label), (g) => setPath(g, exposureStep!.id, 'exposureStops', path))
        "
        @go="emit('go', $event)"
      />
      <CleanColours
        v-if="station === 'hue' && colourStep"
        :step="colourStep"
        :noise="noise"
        @change="(key, value) => changeParameter(colourStep!, key, value)"
      />
    </div>
  </section>
</template>

<style scoped>
/* Its place is given by the Bench: what changes inside moves nothing outside. */
.panel {
  contain: size layout style;
  will-change: transform;
  position: relative;
  padding: var(--gap) var(--gap-wide);
  min-height: 0;
  overflow: hidden;
  display: grid;
  grid-template-rows: auto 1fr;
}
h2 {
  font-size: var(--text);
  font-weight: 400;
  display: flex;
  gap: var(--gap-wide);
  align-items: baseline;
  margin-bottom: var(--gap-small);
}
.pages {
  display: flex;
  gap: 2px;
}
.pages button {
  background: none;
  border: 0;
  border-bottom: var(--line) solid transparent;
  padding: 0 6px;
  min-height: 24px;
  color: var(--ink-quiet);
}
.pages [aria-pressed='true'] {
  color: var(--ink);
  border-bottom-color: var(--accent);
}
.setup {
  margin-left: auto;
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: 24px;
  font-size: 12px;
}
.setup[aria-pressed='true'] {
  border-color: var(--accent);
}
p {
  margin: var(--gap) 0;
}
</style>
