<script setup lang="ts">
// Steps under a name, to apply and to keep.
import { computed } from 'vue'
import { unsettledEncodings, usePlacing } from '../../../stores/placing'
import { useView } from '../../../stores/view'
import RecipeBar from '../RecipeBar.vue'
import { useBench } from '../session/bench'

const { shot, present, questions } = useBench()
const placing = usePlacing()
const view = useView()
const unsettled = computed(() => unsettledEncodings(shot.value?.guess ?? null, present.value?.read.encodingId ?? ''))
</script>

<template>
  <RecipeBar
    v-if="present"
    :grade="present"
    :held="view.still?.name ?? ''"
    @apply="placing.begin($event, unsettled)"
    @take="questions.takeLook"
  />
</template>
