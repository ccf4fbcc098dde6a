<script setup lang="ts">
// The instruments beside the picture.
import { computed } from 'vue'
import InstrumentColumn from './instruments/InstrumentColumn.vue'
import { useBench } from './session/bench'

const { document, renderer, probing, shotsOfReel, asShot, skins, aiming, toggleReference, detach, setVisible } =
  useBench()
const shots = computed(() => shotsOfReel.value.map(({ id, name }) => ({ id, name })))
</script>

<template>
  <InstrumentColumn
    v-if="document"
    data-tour="instruments"
    :result="renderer.result.value"
    :display-id="document.show.displayId"
    :probe="probing.probe.value"
    :playing="renderer.playing.value"
    :shots="shots"
    :as-shot="asShot"
    :skins="skins"
    @aim="aiming.aimHandle"
    @skin="aiming.aim"
    @point="probing.lightPlace"
    @reference="toggleReference"
    @detach="detach"
    @visible="setVisible"
  />
</template>
