<script setup lang="ts">
// How scene light becomes the display signal.
import { setShow, setShowParameter, showParameters, workOn, type ShowParameterKey } from '@core/grade'
import { useGrade } from '../../../stores/grade'
import { useBench } from '../session/bench'
import ShowControls from '../ShowControls.vue'

const { present, renderer } = useBench()
const grade = useGrade()
const setNumber = (key: ShowParameterKey, value: number): void =>
  grade.edit(`${showParameters[key].label} ${value}`, (g) => setShowParameter(g, key, value))
</script>

<template>
  <ShowControls
    v-if="present"
    :show="present.show"
    :working="present.working"
    :accuracy="renderer.result.value?.accuracy ?? null"
    @change="(what, change) => grade.edit(what, (g) => setShow(g, change))"
    @parameter="setNumber"
    @working="grade.edit('Steps act on', (g) => workOn(g, $event))"
  />
</template>
