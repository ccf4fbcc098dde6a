<script setup lang="ts">
// How the code values become light.
import { computed } from 'vue'
import { setRead } from '@core/grade'
import { useGrade } from '../../../stores/grade'
import { useView } from '../../../stores/view'
import ReadControls from '../ReadControls.vue'
import { useBench } from '../session/bench'

const { shot, present } = useBench()
const grade = useGrade()
const view = useView()
/** The brightest light of the clip may have been found after the shot opened. */
const light = computed(() => (shot.value?.guess ? { brightestSignal: shot.value.guess.codeCeiling } : {}))
</script>

<template>
  <ReadControls
    v-if="shot && present"
    :read="present.read"
    :media="shot.media"
    :shot-id="shot.id"
    :frame="view.frame"
    @change="grade.edit('Read', (g) => setRead(g, { ...light, ...$event }, shot?.showDefaults.rendering))"
  />
</template>
