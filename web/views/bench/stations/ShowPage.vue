<script setup lang="ts">
// How scene light becomes the display signal.
import { computed } from 'vue'
import {
  asDefaultsSay,
  firstShowDefaults,
  follows,
  inheritedShow,
  setShow,
  setShowParameter,
  showParameters,
  workOn,
  type InheritedShow,
  type ShowParameterKey,
} from '@core/grade'
import { useGrade } from '../../../stores/grade'
import { useBench } from '../session/bench'
import ShowControls from '../ShowControls.vue'

const { present, renderer, shot } = useBench()
const grade = useGrade()
const setNumber = (key: ShowParameterKey, value: number): void =>
  grade.edit(`${showParameters[key].label} ${value}`, (g) => setShowParameter(g, key, value))
const defaults = computed(() => shot.value?.showDefaults ?? firstShowDefaults)
/** What this shot has otherwise than its scene and project. */
const differing = computed(() =>
  inheritedShow.filter((key) => present.value && !follows(present.value, key, defaults.value)),
)
const follow = (key: InheritedShow): void => grade.edit('As the project', (g) => asDefaultsSay(g, key, defaults.value))
</script>

<template>
  <ShowControls
    v-if="present"
    :show="present.show"
    :differing="differing"
    :working="present.working"
    :accuracy="renderer.result.value?.accuracy ?? null"
    @change="(what, change) => grade.edit(what, (g) => setShow(g, change))"
    @follow="follow"
    @parameter="setNumber"
    @working="grade.edit('Steps act on', (g) => workOn(g, $event))"
  />
</template>
