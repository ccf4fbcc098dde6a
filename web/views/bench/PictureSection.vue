<script setup lang="ts">
// The picture with what the scene should feel like above it, and the time line and transport under it.
import { computed } from 'vue'
import { usePlacing } from '../../stores/placing'
import { useView } from '../../stores/view'
import IntentLine from './IntentLine.vue'
import LiveMoments from './moments/LiveMoments.vue'
import PictureStage from './picture/PictureStage.vue'
import { useBench } from './session/bench'
import { nextSurround } from './session/next-choice'
import TimeLine from './TimeLine.vue'
import TransportBar from './TransportBar.vue'

const bench = useBench()
const { shot, renderer, probing, marking, pointing, comparing, playback, trace, asShot, fault } = bench
const placing = usePlacing()
const view = useView()
/** A region lies on the picture. */
const regional = computed(() => !asShot.value && (placing.region !== null || view.station === 'regions'))
const label = computed(() => `${shot.value?.name ?? ''}, frame ${view.frame}${asShot.value ? ', as shot' : ''}`)
</script>

<template>
  <div
    v-if="shot"
    class="picture"
  >
    <IntentLine
      v-if="shot.intent || shot.intentPictures.length"
      class="intent"
      :words="shot.intent"
      :pictures="shot.intentPictures"
      @freeze="comparing.bring"
      @fault="fault = $event"
    />
    <div class="stage">
      <PictureStage
        data-tour="picture"
        :picture="renderer.shown.value?.picture ?? null"
        :surround="view.surround"
        :regional="regional"
        :aspect="bench.aspect.value"
        :fault="renderer.fault.value"
        :settled="renderer.settled.value"
        :label="label"
        :note="bench.note.value"
        :exponent="bench.gamma.value?.exponent ?? 1"
        :frame="renderer.shown.value?.frameIndex ?? null"
        :lit="probing.lit.value"
        :lit-note="probing.litNote.value"
        :part="marking.drawnPart.value"
        :card="pointing.card.value"
        :subjects="pointing.subjects.value"
        :probe="probing.probe.value"
        :overlay="view.overlay"
        :still="view.still"
        :compare="view.compare"
        :wipe="view.wipe"
        :colour-at="bench.questions.colourAt"
        @wipe="view.wipe = $event"
        @part="marking.setPart"
        @point="probing.pointAt"
        @zebra="marking.setZebra"
        @sample="bench.regionQuestions.sample"
      />
      <LiveMoments v-if="view.liveMoments" />
    </div>
    <TimeLine
      :first="shot.firstFrame"
      :count="shot.frameCount"
      :frame="view.frame"
      :lead-frame="shot.leadFrame"
      :in-frame="playback.range.value.first"
      :out-frame="playback.range.value.last"
      :traces="trace.traces.value"
      :moments="trace.moments.value"
      :share="trace.share.value"
      :marks="bench.markedFrames.value"
      :label="`frame ${view.frame - shot.firstFrame} of ${shot.frameCount}`"
      @go="bench.go"
      @grab="bench.scrubbing.value = true"
      @drop="bench.scrubbing.value = false"
    />
    <TransportBar
      :shot="shot"
      :frame="view.frame"
      :as-shot="asShot"
      :surround="view.surround"
      :overlay="view.overlay?.id ?? ''"
      :playing="renderer.playing.value"
      :speed="playback.speed.value"
      :loop="playback.loop.value"
      :counts="renderer.counts.value"
      :moments="trace.moments.value.length"
      :compare="view.compare"
      :held="view.still?.name ?? ''"
      :alone="view.pictureAlone"
      @back="view.pictureAlone = false"
      @compare="comparing.choose"
      @go="bench.go"
      @as-shot="view.asShot = $event"
      @lead="bench.makeLead"
      @surround="view.surround = nextSurround(view.surround)"
      @overlay="marking.setOverlay"
      @play="playback.toggle"
      @loop="playback.toggleLoop"
      @moment="bench.nextMoment"
    />
  </div>
</template>

<style scoped>
.intent {
  grid-row: 1;
}
.picture {
  display: grid;
  grid-template-rows: auto 1fr auto auto;
  min-height: 0;
  min-width: 0;
}
.stage {
  grid-row: 2;
  display: flex;
  gap: var(--gap-small);
  min-height: 0;
  min-width: 0;
}
.stage > :first-child {
  flex: 1;
  min-width: 0;
}
.picture > :nth-last-child(2) {
  grid-row: 3;
}
.picture > :last-child {
  grid-row: 4;
}
</style>
