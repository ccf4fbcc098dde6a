<script setup lang="ts">
// What the open shot was written in, where it is asked.
import { computed } from 'vue'
import type { ShotChanges } from '@contracts/requests'
import { sentenceOf } from '../../api/client'
import { isAsked } from '../../components/first-reading/asked'
import FirstReading from '../../components/first-reading/FirstReading.vue'
import { useGrade } from '../../stores/grade'
import { useOpenShot } from '../../stores/open-shot'
import { useReel } from '../../stores/reel'
import { useBench } from './session/bench'

const { shot, document, fault } = useBench()
const grade = useGrade()
const reel = useReel()
const openShot = useOpenShot()
/** The document is newer than what the server last said of the shot. */
const asked = computed(() => shot.value && document.value && isAsked({ ...shot.value, read: document.value.read }))

async function settle(change: Omit<ShotChanges, 'shotIds'>, ids: readonly string[]): Promise<void> {
  const id = shot.value?.id
  if (id === undefined) return
  try {
    await grade.commit()
    await reel.changeShots({ shotIds: [...ids], ...change })
    await openShot.reopen(id)
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}
</script>

<template>
  <FirstReading
    v-if="shot && asked"
    :shot="shot"
    :like-it="shot.askedLikeIt"
    @settle="settle"
  />
</template>
