<script setup lang="ts">
// One instrument: its name, its number, the trace that the worker painted, and its graticule.
import { ref, watch } from 'vue'
import type { TraceImage } from '@core/index'
import HelpTip from '../../components/HelpTip.vue'
import { putImage } from '../../composables/putImage'
import { text } from './text'

const props = defineProps<{ name: string; tip: string; figure: string; trace: TraceImage | null; square?: boolean; filling: boolean; canFill: boolean }>()
defineEmits<{ fill: [] }>()
const canvas = ref<HTMLCanvasElement | null>(null)
watch([() => props.trace, canvas], ([trace, target]) => { if (trace && target) putImage(target, trace) })
</script>

<template>
  <section class="instrument" :aria-label="name">
    <header>
      <HelpTip :text="tip"><h2 class="caps" tabindex="0">{{ name }}</h2></HelpTip>
      <span class="figures figure" :data-testid="`${name.toLowerCase()}-figure`">{{ figure }}</span>
      <button v-if="canFill" type="button" :aria-pressed="filling" @click="$emit('fill')">{{ filling ? text.unfill : text.fill }}</button>
    </header>
    <div class="well" :class="{ square }">
      <div class="plot">
        <canvas ref="canvas" role="img" :aria-label="`${name}: ${figure}`" :data-testid="`${name.toLowerCase()}-trace`" />
        <slot />
      </div>
    </div>
  </section>
</template>

<style scoped>
.instrument { display: grid; grid-template-rows: 22px 1fr; min-height: 0; min-width: 0; background: var(--well); border: var(--line) solid var(--hairline); }
header { display: flex; align-items: center; gap: var(--gap); padding: 0 var(--gap); }
h2 { color: var(--ink-quiet); flex: 1; }
.figure { font-size: var(--text-small); }
button { background: none; border: 0; border-left: var(--line) solid var(--hairline); padding: 0 0 0 var(--gap); color: var(--ink-quiet); font-size: var(--text-small); min-height: 20px; }
button:hover { color: var(--ink); }
.well { position: relative; min-height: 0; padding: 0 var(--gap) var(--gap-small) 30px; container-type: size; }
.plot { position: relative; width: 100%; height: 100%; }
.well.square { display: grid; place-items: center; padding: var(--gap-small); }
.square .plot { width: min(100cqw, 100cqh); height: min(100cqw, 100cqh); }
canvas { position: absolute; inset: 0; width: 100%; height: 100%; }
</style>
