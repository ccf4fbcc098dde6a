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
</script>

<template>
  <img
    ref="element"
    :src="address"
    :alt="alt"
    draggable="false"
    @load="ended(true)"
    @error="ended(false)"
  />
</template>
