<script setup lang="ts">
// The chosen station: its pages, the side its steps stand on, and the page that is open. What there is, is declared by
// stations and step kinds; see stations/pages.ts.
import { computed, ref, watch } from 'vue'
import { setStep, stationOf, stations, type Side } from '@core/grade'
import { useGrade } from '../../stores/grade'
import { usePlacing } from '../../stores/placing'
import { useRegions, type RegionPage } from '../../stores/regions'
import { useView } from '../../stores/view'
import PlacingControls from './PlacingControls.vue'
import { useBench } from './session/bench'
import SideSwitch from './SideSwitch.vue'
import { pagesOf } from './stations/pages'
import ScalesPage from './stations/ScalesPage.vue'
import { useStepEdits } from './stations/useStepEdits'
import { text } from './text'

const { shot, present, renderer } = useBench()
const grade = useGrade()
const placing = usePlacing()
const regions = useRegions()
const view = useView()
const edits = useStepEdits()

const station = computed(() => stations.find((s) => s.id === view.station))
const pages = computed(() => pagesOf(view.station))
const openId = ref('')
watch(
  () => view.station,
  () => {
    openId.value = ''
  },
)
const page = computed(() => pages.value.find((p) => p.id === openId.value) ?? pages.value[0])
/** The pages that are offered: the station's, or those of the open region. */
const tabs = computed(() => {
  if (view.station === 'regions')
    return regions.region && !placing.recipe
      ? Object.entries(text.regions.pages).map(([id, name]) => ({ id, name, open: regions.page === id }))
      : []
  return pages.value.length > 1 ? pages.value.map((p) => ({ ...p, open: p.id === page.value?.id })) : []
})
function openPage(id: string): void {
  if (view.station === 'regions') regions.page = id as RegionPage
  else openId.value = id
}

/** Steps that may stand on either side of Show; those of a look have a switch of their own. */
const movable = computed(() =>
  view.station === 'look' ? [] : (present.value?.steps ?? []).filter((s) => stationOf(s) === view.station),
)
function moveSteps(side: Side): void {
  const ids = movable.value.map((s) => s.id)
  grade.edit(side === 'display' ? 'Moved after Show' : 'Moved before Show', (g) =>
    ids.reduce((moved, id) => setStep(moved, id, { side }), g),
  )
}
/** Corrections go to all shots of a set-up. */
const goesToSetup = computed(() => movable.value.length > 0 || view.station === 'look')
</script>

<template>
  <section
    class="panel"
    data-tour="controls"
    :aria-label="station?.name"
  >
    <h2>
      <span class="caps">{{ station?.name }}</span>
      <span
        v-if="tabs.length"
        class="pages"
        role="group"
        :aria-label="station?.name"
      >
        <button
          v-for="t in tabs"
          :key="t.id"
          type="button"
          :aria-pressed="t.open"
          :data-page="t.id"
          @click="openPage(t.id)"
        >
          {{ t.name }}
        </button>
      </span>
      <SideSwitch
        v-if="movable.length"
        :steps="movable"
        :meridian="renderer.result.value?.meridian ?? null"
        :settled="renderer.settled.value"
        @move="moveSteps"
      />
      <button
        v-if="shot?.setup && goesToSetup && view.station !== 'regions'"
        :data-tip="text.setup.tip"
        type="button"
        class="setup"
        :aria-pressed="!grade.alone"
        data-testid="setup"
        @click="grade.alone = !grade.alone"
      >
        {{ grade.alone ? text.setup.alone(shot.setup.name) : text.setup.all(shot.setup.name, shot.setup.shots) }}
      </button>
    </h2>
    <PlacingControls v-if="placing.recipe" />
    <component
      :is="page.editor.component"
      v-else-if="page?.editor && !page.editor.below && page.scales.length === 0"
      :key="page.id"
    />
    <div
      v-else-if="page && present"
      :key="`${page.id} scales`"
    >
      <component
        :is="page.editor.component"
        v-if="page.editor && !page.editor.below"
      />
      <ScalesPage
        :grade="present"
        :station="view.station"
        :kinds="page.scales"
        :facts="renderer.result.value?.facts ?? null"
        :edits="edits"
      />
      <component
        :is="page.editor.component"
        v-if="page.editor?.below"
      />
    </div>
  </section>
</template>

<style scoped src="./station-panel.css"></style>
