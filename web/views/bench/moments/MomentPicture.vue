<script setup lang="ts">
// One small picture on a canvas.
import { useTemplateRef, watch } from 'vue'
import type { TraceImage } from '@core/instruments'
import { putImage } from '../../../composables/putImage'

const props = defineProps<{ image: TraceImage | null; aspect: number }>()
const canvas = useTemplateRef('canvas')
watch(
  () => [props.image, canvas.value] as const,
  ([image, to]) => {
    if (image && to) putImage(to, image)
  },
)
</script>

<template>
  <canvas
    ref="canvas"
    :style="{ aspectRatio: aspect }"
    aria-hidden="true"
  />
</template>

<style scoped>
canvas {
  width: 100%;
  display: block;
  background: var(--well);
}
</style>
