<script setup lang="ts">
// The readings, and the aims that take their place.
import { useAims } from '../../stores/aims'
import AimsPanel from './aims/AimsPanel.vue'
import ReadingsPanel from './readings/ReadingsPanel.vue'
import { useBench } from './session/bench'

const bench = useBench()
const { shot, renderer, marking, readings, standard, trace, pointing, lit, aiming, balancing, go } = bench
const { openStation, neighbour } = bench
const aims = useAims()
</script>

<template>
  <ReadingsPanel
    v-if="shot"
    data-tour="readings"
    :facts="renderer.result.value?.facts ?? null"
    :part-facts="renderer.result.value?.partFacts ?? null"
    :part="marking.drawnPart.value"
    :readings="readings.readings.value"
    :clip="readings.clip.value"
    :fresh="readings.fresh.value"
    :fault="readings.fault.value"
    :standard="standard"
    :shot="shot"
    :traces="trace.traces.value"
    :part-fault="pointing.fault.value"
    :lit="lit.litReading.value"
    :card="pointing.pointed.value.card"
    :aiming="aims.open"
    :aim-count="aims.aims.length"
    :remembered="aims.remembered?.name ?? ''"
    @go="go"
    @area="lit.showReading"
    @waive="pointing.waive"
    @card="pointing.pickCard"
    @no-card="pointing.dropCard"
    @subject="pointing.pickSubject"
    @clear="marking.setPart(null)"
    @aim="aiming.aim"
    @aiming="aiming.show"
    @part-aim="aiming.aimPart"
    @read="openStation('read')"
    @shot="neighbour(1)"
  >
    <template #aims>
      <AimsPanel
        :ready="aiming.ready.value"
        :traced="aiming.traced.value"
        :control-names="aiming.controlNames"
        @balance="balancing.ask"
        @standard="aiming.balance"
        @whole-clip="aiming.wholeClip"
      />
    </template>
  </ReadingsPanel>
</template>
