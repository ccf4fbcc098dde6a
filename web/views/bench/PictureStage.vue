<script setup lang="ts">
// The picture: a canvas that finished pixels are put on, and the chosen region drawn over it.
import { computed, ref, watch } from 'vue'
import type { Region, TraceImage } from '@core/index'
import { putImage } from '../../composables/putImage'
import type { Surround } from '../../stores/view'
import RegionOverlay from './RegionOverlay.vue'
import { text } from './text'

const props = defineProps<{ picture: TraceImage | null; surround: Surround; region: Region | null; aspect: number; fault: string; label: string; settled: boolean; note: string; frame: number | null }>()
defineEmits<{ shape: [change: Partial<Region['shape']>]; feather: [value: number]; hold: []; release: [] }>()

const canvas = ref<HTMLCanvasElement | null>(null)
watch([() => props.picture, canvas], ([picture, target]) => { if (picture && target) putImage(target, picture) })
const place = computed(() => ({ aspectRatio: String(props.aspect) }))
</script>

<template>
  <div class="stage" :class="surround">
    <div class="frame" :style="place">
      <canvas ref="canvas" role="img" :aria-label="label" data-testid="picture" :data-settled="settled" :data-frame="frame" />
      <p v-if="fault" class="word" role="alert">▲ {{ fault }}</p>
      <p v-else-if="!picture" class="word quiet">{{ text.loading }}</p>
      <p v-if="note" class="note" role="status" data-testid="mapped">{{ note }}</p>
      <RegionOverlay v-if="region && picture" :region="region" :aspect="aspect" @shape="$emit('shape', $event)" @feather="$emit('feather', $event)" @hold="$emit('hold')" @release="$emit('release')" />
    </div>
  </div>
</template>

<style scoped>
.stage { display: grid; place-items: center; min-height: 0; min-width: 0; height: 100%; container-type: size; }
.stage.black { background: var(--surround-black); }
.stage.grey { background: var(--surround-grey); }
.stage.white { background: var(--surround-white); }
.frame { position: relative; width: 100%; max-height: 100%; max-width: calc(100cqh * v-bind('aspect')); }
canvas { display: block; width: 100%; height: 100%; background: var(--well); }
.note { position: absolute; left: var(--gap); bottom: var(--gap); margin: 0; padding: 0 var(--gap-small); background: var(--well); font-size: var(--text-small); pointer-events: none; }
.word { position: absolute; inset: auto 0 45% 0; text-align: center; margin: 0; }
</style>
