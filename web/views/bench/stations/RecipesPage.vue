<script setup lang="ts">
// Steps under a name, to apply and to keep.
import { computed } from 'vue'
import { unsettledEncodings, usePlacing } from '../../../stores/placing'
import { useView } from '../../../stores/view'
import { useSheetPicture } from '../look/useSheetPicture'
import RecipePictures from '../look/RecipePictures.vue'
import { useBench } from '../session/bench'

const { shot, present, questions } = useBench()
const placing = usePlacing()
const view = useView()
const picture = useSheetPicture((grade) => grade)
const unsettled = computed(() => unsettledEncodings(shot.value?.guess ?? null, present.value?.read.encodingId ?? ''))
</script>

<template>
  <RecipePictures
    v-if="present"
    :grade="present"
    :picture="picture"
    :held="view.still?.name ?? ''"
    @apply="placing.begin($event, unsettled)"
    @take="questions.takeLook"
  />
</template>
