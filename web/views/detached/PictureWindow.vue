<script setup lang="ts">
// The picture in a window of its own, for a second display: it follows the Bench in the other window.
import { useTitle } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { putImage } from '../../composables/putImage'
import { useDetachedReceiver } from '../../composables/useDetached'
import GammaFilter from '../bench/picture/GammaFilter.vue'
import { text } from '../bench/text'

const route = useRoute()
const shown = useDetachedReceiver(String(route.query['bench'] ?? ''), 'picture', () => 'picture')
const canvas = ref<HTMLCanvasElement | null>(null)
watch(
  [shown, canvas] as const,
  ([now, target]) => {
    if (now && target) putImage(target, now.image)
  },
  { flush: 'post' },
)
useTitle(computed(() => [text.detached.picture, shown.value?.shot, 'Pale Meridian'].filter(Boolean).join(' · ')))
/** A double click gives it the whole display. */
const whole = (): void => void document.documentElement.requestFullscreen().catch(() => undefined)
</script>

<template>
  <main
    class="alone"
    @dblclick="whole"
  >
    <h1 class="visually-hidden">{{ text.detached.picture }}</h1>
    <template v-if="shown">
      <GammaFilter :exponent="shown.exponent" />
      <canvas
        ref="canvas"
        role="img"
        :aria-label="shown.label"
        :class="{ seen: shown.exponent !== 1 }"
        :style="{ '--aspect': shown.aspect }"
        data-testid="detached-picture"
      />
    </template>
    <p
      v-else
      class="quiet"
    >
      {{ text.detached.waiting }}
    </p>
  </main>
</template>

<style scoped>
.alone {
  height: 100%;
  display: grid;
  place-items: center;
  background: var(--surround);
  overflow: hidden;
}
canvas {
  width: min(100vw, calc(100vh * var(--aspect)));
  aspect-ratio: var(--aspect);
}
.seen {
  filter: url('#other-gamma');
}
</style>
