<script setup lang="ts">
// The Bench: one shot, its picture, its instruments, the Meridian, and the chosen station's controls.
import AppHeader from '../../components/AppHeader.vue'
import { useView } from '../../stores/view'
import BenchFirstReading from './BenchFirstReading.vue'
import BenchNotices from './BenchNotices.vue'
import InstrumentSection from './InstrumentSection.vue'
import KeySheet from './KeySheet.vue'
import LayoutChoice from './layout/LayoutChoice.vue'
import PictureDivider from './layout/PictureDivider.vue'
import { useLayout, usePictureAlone } from './layout/useLayout'
import MeridianSection from './MeridianSection.vue'
import PictureSection from './PictureSection.vue'
import ReadingsSection from './ReadingsSection.vue'
import { provideBench } from './session/bench'
import { useBenchCommands } from './session/useBenchCommands'
import StationPanel from './StationPanel.vue'
import { useTour } from './useTour'

const props = defineProps<{ shotId: string }>()
const bench = provideBench(() => props.shotId)
useBenchCommands(bench)
const { shot, project, document, renderer } = bench
const view = useView()
const layout = useLayout()
usePictureAlone()
useTour(() => renderer.shown.value !== null)
</script>

<template>
  <div
    class="bench"
    :class="{ alone: view.pictureAlone }"
    :style="layout"
  >
    <AppHeader
      v-show="!view.pictureAlone"
      :project="project"
      :shot="shot"
    >
      <LayoutChoice />
    </AppHeader>
    <div class="said">
      <BenchNotices />
      <BenchFirstReading />
    </div>
    <main
      v-if="shot && document"
      class="work"
    >
      <h1 class="visually-hidden">{{ shot.name }}</h1>
      <div class="upper">
        <PictureSection />
        <PictureDivider v-show="!view.pictureAlone" />
        <InstrumentSection v-show="!view.pictureAlone" />
      </div>
      <MeridianSection v-show="!view.pictureAlone" />
      <div
        v-show="!view.pictureAlone"
        class="lower"
      >
        <StationPanel />
        <ReadingsSection />
      </div>
      <KeySheet
        v-if="view.showKeys"
        @close="view.showKeys = false"
      />
    </main>
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: grid;
  grid-template: auto auto 1fr / minmax(0, 1fr);
  overflow: hidden;
  --lower: 206px;
  --beside: 560px;
}
.said {
  display: grid;
}
.work {
  position: relative;
  display: grid;
  grid-template-rows: 1fr var(--meridian) var(--lower);
  min-height: 0;
}
.upper {
  display: grid;
  grid-template-columns: var(--picture) auto minmax(0, 1fr);
  padding: var(--gap-wide) var(--gap-wide) 0;
  min-height: 0;
}
.upper > :last-child {
  margin-bottom: var(--gap);
}
.lower {
  display: grid;
  grid-template-columns: minmax(0, 1.9fr) minmax(280px, 1fr);
  min-height: 0;
  background: var(--panel);
}
.bench.alone {
  grid-template-rows: auto 1fr;
}
.alone .work {
  grid-template-rows: 1fr;
}
.alone .upper {
  grid-template-columns: minmax(0, 1fr);
  padding: 0 var(--gap-small);
}
@media (max-width: 1100px) {
  .bench {
    --beside: 360px;
  }
}
</style>
