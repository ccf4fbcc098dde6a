<script setup lang="ts">
// The Meridian under the picture.
import { computed } from 'vue'
import { useView } from '../../stores/view'
import MeridianStrip from './meridian/MeridianStrip.vue'
import { useBench } from './session/bench'

const { renderer, viewing, asShot, marking, lit, openStation } = useBench()
const view = useView()
const part = computed(() => (viewing.value.follow ? (renderer.result.value?.partMeridian ?? null) : null))
</script>

<template>
  <MeridianStrip
    data-tour="meridian"
    :meridian="renderer.result.value?.meridian ?? null"
    :part="part"
    :station="view.station"
    :as-shot="asShot"
    :strengths="marking.strengths.value"
    :bypassed="view.bypassed"
    :losses-of="marking.losses.value"
    :folded="view.layout.meridian === 'folded'"
    @open="openStation"
    @bypass="marking.bypass"
    @strength="marking.setStrength"
    @losses="lit.showLosses"
  />
</template>
