<script setup lang="ts">
// How the code values become light.
import { setRead } from '@core/grade'
import { useGrade } from '../../../stores/grade'
import { useView } from '../../../stores/view'
import ReadControls from '../ReadControls.vue'
import { useBench } from '../session/bench'

const { shot, present } = useBench()
const grade = useGrade()
const view = useView()
</script>

<template>
  <ReadControls
    v-if="shot && present"
    :read="present.read"
    :media="shot.media"
    :shot-id="shot.id"
    :frame="view.frame"
    @change="grade.edit('Read', (g) => setRead(g, $event, shot?.showDefaults.rendering))"
  />
</template>
