<script setup lang="ts">
// The whole footage as a strip with its pieces, and the two frames between which it would be split.
import { computed, ref } from 'vue'
import { ElButton } from 'element-plus'
import { timecodeAt } from '@core/footage'
import type { ShotDetail } from '@contracts/responses'
import type { Piece } from './pieces'
import { cutText as text } from './cut-text'
import { thumbnailOf } from './thumbnail'

const props = defineProps<{
  shot: ShotDetail
  pieces: readonly Piece[]
  /** The first frame of the later piece, if it is split here. */ at: number
}>()
const emit = defineEmits<{ at: [frame: number]; split: [] }>()
const strip = ref<HTMLElement | null>(null)
const last = computed(() => props.shot.firstFrame + props.shot.frameCount - 1)

function place(event: PointerEvent): void {
  const box = strip.value?.getBoundingClientRect()
  if (!box) return
  const { firstFrame, frameCount } = props.shot
  emit('at', firstFrame + Math.floor(((event.clientX - box.left) / box.width) * frameCount))
}
const left = (frame: number): string =>
  `${(((frame - props.shot.firstFrame) / Math.max(1, props.shot.frameCount)) * 100).toFixed(3)}%`
</script>

<template>
  <div class="line">
    <div
      ref="strip"
      class="strip"
      @pointerdown="place"
      @pointermove="$event.buttons === 1 && place($event)"
    >
      <span
        v-for="(p, i) in pieces"
        :key="i"
        class="piece"
        :class="{ soft: p.transition > 0, odd: i % 2 }"
        :style="{ left: left(p.first), width: `calc(${left(p.first + p.count)} - ${left(p.first)})` }"
        :title="p.name"
      />
      <span
        class="here"
        :style="{ left: left(at) }"
      />
    </div>
    <div class="split">
      <img
        :src="thumbnailOf(shot, 'graded', Math.max(shot.firstFrame, at - 1))"
        alt="the frame before"
        width="160"
        height="90"
      />
      <img
        :src="thumbnailOf(shot, 'graded', at)"
        alt="the first frame of the later shot"
        width="160"
        height="90"
      />
      <label>
        {{ text.frame }}
        <input
          type="number"
          class="figures"
          :value="at"
          :min="shot.firstFrame"
          :max="last"
          :aria-label="text.frame"
          @input="emit('at', Number(($event.target as HTMLInputElement).value))"
        />
      </label>
      <span class="figures quiet">{{ timecodeAt(at, shot.media, shot.media.startTimecode) }}</span>
      <ElButton
        :data-tip="text.splitTip"
        size="small"
        @click="emit('split')"
      >
        {{ text.split }}
      </ElButton>
    </div>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  gap: var(--gap);
}
.strip {
  position: relative;
  height: 40px;
  background: var(--well);
  cursor: crosshair;
  touch-action: none;
}
.piece {
  position: absolute;
  top: 4px;
  bottom: 4px;
  background: var(--raised);
  border-left: 2px solid var(--ink-quiet);
  pointer-events: none;
}
.piece.odd {
  background: var(--pressed);
}
.piece.soft {
  border-left: 4px double var(--accent);
}
.here {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 1px;
  background: var(--accent);
  pointer-events: none;
}
.split {
  display: flex;
  align-items: center;
  gap: var(--gap);
}
label {
  display: flex;
  align-items: center;
  gap: var(--gap-small);
}
img {
  display: block;
  object-fit: contain;
  background: var(--well);
}
input[type='number'] {
  background: var(--well);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 2px var(--gap-small);
  min-height: var(--control);
}
input[type='number'] {
  width: 76px;
}
</style>
