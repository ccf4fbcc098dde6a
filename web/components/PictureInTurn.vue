<script setup lang="ts">
// A picture that the server makes, asked for once it is to be seen and its turn has come.
import { useIntersectionObserver } from '@vueuse/core'
import { shallowRef, useTemplateRef } from 'vue'
import { useTurn } from '../composables/useTurn'

const props = defineProps<{ src: string; alt: string }>()

const element = useTemplateRef('element')
const seen = shallowRef(false)
const { stop } = useIntersectionObserver(
  element,
  ([entry]) => {
    if (!entry?.isIntersecting) return
    seen.value = true
    stop()
  },
  { rootMargin: '100px' },
)
const { address, ended } = useTurn(() => (seen.value ? props.src : null))
/** Nothing is drawn before it has come: no sign of a broken picture while it is asked for again. */
const come = shallowRef(false)
function came(well: boolean): void {
  come.value = well
  ended(well)
}
</script>

<template>
  <img
    ref="element"
    :src="address"
    :alt="alt"
    draggable="false"
    :class="{ waiting: !come }"
    @load="came(true)"
    @error="came(false)"
  />
</template>

<style scoped>
.waiting {
  visibility: hidden;
}
</style>
