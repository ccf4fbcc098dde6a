<script setup lang="ts">
// The layout of the Bench: who has the room, how high the Meridian stands, the whole screen, a window for the picture.
import { ElPopover } from 'element-plus'
import { ref } from 'vue'
import { useEscape } from '../../../composables/useEscape'
import type { BenchLayout } from '../../../stores/kept-settings'
import { useView } from '../../../stores/view'
import { useBench } from '../session/bench'
import { arranged } from './arranged'
import { layoutText as words } from './layout-text'

const view = useView()
const { detach } = useBench()
const open = ref(false)
const close = (): void => {
  open.value = false
}
useEscape(() => open.value, close)
const arrange = (arrangement: BenchLayout['arrangement']): void => {
  view.layout = arranged(view.layout, arrangement)
}
function alone(): void {
  close()
  view.pictureAlone = true
}
function inWindow(): void {
  close()
  detach('picture')
}
</script>

<template>
  <ElPopover
    v-model:visible="open"
    trigger="click"
    :width="330"
    placement="bottom-end"
    :show-arrow="false"
    :persistent="false"
  >
    <template #reference>
      <button
        type="button"
        :data-tip="words.openTip"
        data-testid="layout"
      >
        {{ words.open }}
      </button>
    </template>
    <div
      class="panel"
      role="group"
      :aria-label="words.open"
    >
      <span>{{ words.room }}</span>
      <div
        class="segments"
        role="group"
        :aria-label="words.room"
      >
        <button
          v-for="a in words.arrangements"
          :key="a.id"
          type="button"
          :data-tip="a.tip"
          :aria-pressed="view.layout.arrangement === a.id"
          @click="arrange(a.id)"
        >
          <svg
            viewBox="0 0 36 20"
            aria-hidden="true"
          >
            <rect
              x="0.5"
              y="0.5"
              :width="{ balanced: 18, picture: 25, instruments: 10 }[a.id]"
              height="19"
              class="picture"
            />
            <rect
              v-for="(y, i) in [0.5, 10.5]"
              :key="i"
              :x="{ balanced: 20.5, picture: 27.5, instruments: 12.5 }[a.id]"
              :y="y"
              :width="{ balanced: 15, picture: 8, instruments: 23 }[a.id]"
              height="9"
              class="instrument"
            />
          </svg>
          {{ a.name }}
        </button>
      </div>
      <span>{{ words.meridian }}</span>
      <div
        class="segments"
        role="group"
        :aria-label="words.meridian"
      >
        <button
          v-for="h in words.meridianHeights"
          :key="h.id"
          type="button"
          :data-tip="h.tip"
          :aria-pressed="view.layout.meridian === h.id"
          @click="view.layout = { ...view.layout, meridian: h.id }"
        >
          {{ h.name }}
        </button>
      </div>
      <div class="more">
        <button
          type="button"
          :data-tip="words.momentsTip"
          :aria-pressed="view.liveMoments"
          @click="view.liveMoments = !view.liveMoments"
        >
          {{ words.moments }}
        </button>
        <button
          type="button"
          :data-tip="words.aloneTip"
          @click="alone"
        >
          {{ words.alone }}
        </button>
        <button
          type="button"
          :data-tip="words.windowTip"
          @click="inWindow"
        >
          {{ words.window }}
        </button>
      </div>
    </div>
  </ElPopover>
</template>

<style scoped>
.panel {
  display: grid;
  grid-template-columns: auto auto;
  align-items: center;
  gap: var(--gap) var(--gap-wide);
}
.segments {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
}
.segments button {
  border: var(--line) solid var(--hairline-strong);
  border-radius: 0;
  padding: var(--gap-small) var(--gap);
  min-height: var(--control);
}
.segments button + button {
  border-left: 0;
}
.segments button[aria-pressed='true'] {
  background: var(--accent);
  color: var(--ink-on-accent);
}
svg {
  display: block;
  width: 54px;
  height: 30px;
  margin: 2px auto var(--gap-small);
  fill: none;
  stroke: currentColor;
}
.picture {
  fill: currentColor;
  fill-opacity: 0.55;
}
.more {
  grid-column: 1 / -1;
  display: flex;
  gap: var(--gap);
  border-top: var(--line) solid var(--hairline);
  padding-top: var(--gap);
}
.more button {
  border: var(--line) solid var(--hairline-strong);
  border-radius: var(--radius);
  min-height: var(--control);
  padding: 0 var(--gap);
}
button {
  background: none;
  border: var(--line) solid transparent;
  border-radius: var(--radius);
  padding: var(--gap-hair) var(--gap);
}
button:hover {
  border-color: var(--accent);
}
</style>
