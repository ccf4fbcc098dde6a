<script setup lang="ts">
// Under the time line: where in the clip we are, playing, stepping, the looped range, the lead frame, as shot, and the
// surround.
import { ChevronLeft, ChevronRight, Pause, Play } from '@lucide/vue'
import { computed } from 'vue'
import { timecodeAt } from '@core/footage'
import type { OverlayId } from '@core/instruments'
import type { ShotSummary } from '@contracts/responses'
import type { CompareMode, Surround } from '../../stores/view'
import type { PlayCounts } from '../../workers/player'
import { text } from './text'
import TransportChoices from './TransportChoices.vue'
import type { CompareChoice } from './useComparing'

const props = defineProps<{
  shot: Pick<ShotSummary, 'media' | 'firstFrame' | 'frameCount' | 'leadFrame' | 'proxy'>
  frame: number
  asShot: boolean
  surround: Surround
  overlay: OverlayId | ''
  playing: boolean
  speed: number
  loop: boolean
  counts: PlayCounts | null
  moments: number
  compare: CompareMode
  held: string
  /** The picture has the whole screen. */
  alone: boolean
}>()
defineEmits<{
  back: []
  go: [frame: number]
  asShot: [on: boolean]
  lead: []
  surround: []
  overlay: [id: OverlayId | '']
  play: []
  loop: []
  moment: []
  compare: [choice: CompareChoice]
}>()
const last = computed(() => props.shot.firstFrame + props.shot.frameCount - 1)
const here = computed(() => props.frame - props.shot.firstFrame)
const playTip = computed(() => (props.shot.proxy ? text.playTip : text.noProxy))
</script>

<template>
  <div class="transport">
    <span class="time">
      <span
        class="alone figures"
        data-testid="timecode"
      >
        {{ timecodeAt(frame, shot.media, shot.media.startTimecode) }}
      </span>
    </span>
    <button
      :data-tip="playTip"
      type="button"
      class="play"
      :aria-label="playing ? text.pause : text.play"
      :aria-pressed="playing"
      :disabled="!shot.proxy"
      data-testid="play"
      @click="$emit('play')"
    >
      <component
        :is="playing ? Pause : Play"
        class="icon"
        aria-hidden="true"
      />
    </button>
    <button
      type="button"
      :aria-label="text.back"
      :disabled="frame === shot.firstFrame"
      @click="$emit('go', frame - 1)"
    >
      <ChevronLeft
        class="icon"
        aria-hidden="true"
      />
    </button>
    <button
      type="button"
      :aria-label="text.on"
      :disabled="frame === last"
      @click="$emit('go', frame + 1)"
    >
      <ChevronRight
        class="icon"
        aria-hidden="true"
      />
    </button>
    <span
      class="quiet figures frame"
      :style="{ width: `${String(shot.frameCount - 1).length * 2 + 3.5}ch` }"
    >
      <span
        class="alone"
        data-testid="frame"
      >
        {{ here }} / {{ shot.frameCount - 1 }}
      </span>
    </span>
    <button
      :data-tip="text.loopTip"
      type="button"
      :aria-pressed="loop"
      :class="{ on: loop }"
      @click="$emit('loop')"
    >
      {{ text.loop }}
    </button>
    <button
      :data-tip="text.momentTip"
      type="button"
      :disabled="moments === 0"
      :aria-label="text.moments(moments)"
      class="figures"
      @click="$emit('moment')"
    >
      ▽ {{ moments }}
    </button>
    <span class="quiet figures state">
      <span
        class="alone"
        role="status"
        data-testid="played"
      >
        {{
          counts && playing
            ? text.played(speed, counts.shown, counts.dropped)
            : counts
              ? text.ran(counts.shown, counts.dropped)
              : ''
        }}
      </span>
    </span>
    <button
      v-if="!playing"
      :data-tip="text.setLeadTip"
      type="button"
      :aria-label="frame === shot.leadFrame ? text.isLead : text.setLead"
      :disabled="frame === shot.leadFrame"
      @click="$emit('lead')"
    >
      {{ text.lead }}
    </button>
    <TransportChoices
      :overlay="overlay"
      :compare="compare"
      :held="held"
      @overlay="$emit('overlay', $event)"
      @compare="$emit('compare', $event)"
    />
    <button
      :data-tip="text.surroundTip"
      type="button"
      @click="$emit('surround')"
    >
      {{ surround }}
    </button>
    <button
      :data-tip="text.asShotTip"
      type="button"
      :aria-pressed="asShot"
      :class="{ on: asShot }"
      @click="$emit('asShot', !asShot)"
    >
      {{ text.asShot }}
    </button>
    <button
      v-if="alone"
      type="button"
      @click="$emit('back')"
    >
      {{ text.fromFullScreen }}
    </button>
  </div>
</template>

<style scoped>
.transport {
  display: flex;
  align-items: center;
  gap: 2px;
  min-height: 34px;
  flex-wrap: wrap;
  white-space: nowrap;
  font-size: 12px;
}
/* What changes with every frame is laid out by itself: a box within the bar's own, of a size that is given. */
.time,
.frame,
.state {
  position: relative;
  height: 34px;
  line-height: 34px;
}
.transport > button {
  display: inline-flex;
  align-items: center;
}
.alone {
  position: absolute;
  inset: 0;
  contain: strict;
  overflow: hidden;
  text-overflow: ellipsis;
}
.time {
  flex: none;
  width: 80px;
  font-size: 11px;
}
.frame {
  flex: none;
  text-align: right;
  font-size: var(--text-small);
  margin-right: 4px;
}
.state {
  flex: 1;
  min-width: 0;
  font-size: var(--text-small);
}
button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 1px 4px;
  min-width: 24px;
  flex-shrink: 0;
  min-height: var(--control);
}
button:hover:enabled {
  border-color: var(--accent);
}
button:disabled {
  color: var(--ink-quiet);
}
button.on {
  background: var(--accent);
  color: var(--ink-on-accent);
  border-color: var(--accent);
}
</style>
