<script setup lang="ts">
// Under the picture: where in the clip we are, stepping, the lead frame, as shot, and the surround.
import { computed } from 'vue'
import type { MediaFacts } from '@contracts/responses'
import HelpTip from '../../components/HelpTip.vue'
import type { Surround } from '../../stores/view'
import { text } from './text'
import { timecode } from './timecode'

const props = defineProps<{ media: MediaFacts; frame: number; leadFrame: number; asShot: boolean; surround: Surround }>()
defineEmits<{ go: [frame: number]; asShot: [on: boolean]; lead: []; surround: [] }>()
const last = computed(() => props.media.frameCount - 1)
</script>

<template>
  <div class="transport">
    <span class="figures time" data-testid="timecode">{{ timecode(frame, media) }}</span>
    <button type="button" aria-label="One frame back" :disabled="frame === 0" @click="$emit('go', frame - 1)">‹</button>
    <div class="line">
      <input type="range" min="0" :max="last" :value="frame" aria-label="Frame" :aria-valuetext="`frame ${frame} of ${media.frameCount}`" @input="$emit('go', Number(($event.target as HTMLInputElement).value))" />
      <span class="lead" :style="{ left: `${(leadFrame / Math.max(1, last)) * 100}%` }" aria-hidden="true" />
    </div>
    <button type="button" aria-label="One frame on" :disabled="frame === last" @click="$emit('go', frame + 1)">›</button>
    <span class="quiet figures frame">{{ frame }} / {{ last }}</span>
    <HelpTip :text="text.setLeadTip"><button type="button" :disabled="frame === leadFrame" @click="$emit('lead')">{{ frame === leadFrame ? text.lead(leadFrame) : text.setLead }}</button></HelpTip>
    <HelpTip :text="text.surroundTip"><button type="button" @click="$emit('surround')">{{ text.surround }}: {{ surround }}</button></HelpTip>
    <HelpTip :text="text.asShotTip"><button type="button" :aria-pressed="asShot" :class="{ on: asShot }" @click="$emit('asShot', !asShot)">{{ text.asShot }}</button></HelpTip>
  </div>
</template>

<style scoped>
.transport { display: flex; align-items: center; gap: var(--gap); height: 36px; white-space: nowrap; }
.time { min-width: 86px; }
.frame { min-width: 5.5em; text-align: right; font-size: var(--text-small); }
.line { position: relative; flex: 1; min-width: 60px; }
.lead { position: absolute; top: 2px; width: 1px; height: 6px; background: var(--accent); pointer-events: none; }
button { background: none; border: var(--line) solid var(--hairline); border-radius: var(--radius); padding: 1px var(--gap); min-height: var(--control); }
button:hover:enabled { border-color: var(--accent); }
button:disabled { color: var(--ink-quiet); }
button.on { background: var(--accent); color: var(--ink-on-accent); border-color: var(--accent); }
input[type='range'] { appearance: none; width: 100%; margin: 0; height: 20px; background: linear-gradient(var(--hairline-strong), var(--hairline-strong)) center / 100% 1px no-repeat; }
input[type='range']::-webkit-slider-thumb { appearance: none; width: 3px; height: 16px; background: var(--accent); border: 0; }
input[type='range']::-moz-range-thumb { width: 3px; height: 16px; background: var(--accent); border: 0; border-radius: 0; }
</style>
