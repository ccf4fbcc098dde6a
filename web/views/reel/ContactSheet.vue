<script setup lang="ts">
// The shots as pictures, a sheet of them.
import { useElementSize, useVirtualList } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { encodingOf } from '@core/grade'
import type { ShotSummary } from '@contracts/responses'
import { standingOf, warningsOf } from './shot-facts'
import { text } from './text'
import { thumbnailOf } from './thumbnail'
import type { Standing } from '../../composables/useStandings'

const props = defineProps<{
  shots: readonly ShotSummary[]
  standings: ReadonlyMap<string, Standing>
  chosen: ReadonlySet<string>
  cursor: string | null
}>()
const emit = defineEmits<{
  press: [id: string, event: MouseEvent]
  open: [shot: ShotSummary]
  drag: [id: string, event: DragEvent]
  dropBefore: [id: string]
  columns: [count: number]
}>()

const gap = 20
const wordsHeight = 58
const box = ref<HTMLElement | null>(null)
const { width } = useElementSize(box)
const columns = computed(() => Math.max(1, Math.floor(width.value / 224)))
watch(columns, (count) => emit('columns', count), { immediate: true })
const rows = computed(() =>
  Array.from({ length: Math.ceil(props.shots.length / columns.value) }, (_, i) =>
    props.shots.slice(i * columns.value, (i + 1) * columns.value),
  ),
)
/** Pictures of 16:9 as wide as their column, and two lines of words. */
const pictureHeight = computed(() => Math.round(((width.value / columns.value - gap) * 9) / 16))
const rowHeight = computed(() => pictureHeight.value + wordsHeight)
const { list, containerProps, wrapperProps, scrollTo } = useVirtualList(rows, {
  itemHeight: () => rowHeight.value,
  overscan: 3,
})
watch(
  () => props.cursor,
  (id) => {
    const at = Math.floor(props.shots.findIndex((s) => s.id === id) / columns.value)
    const place = containerProps.ref.value
    if (
      at >= 0 &&
      place &&
      (at * rowHeight.value < place.scrollTop || (at + 1) * rowHeight.value > place.scrollTop + place.clientHeight)
    )
      scrollTo(at)
  },
)
const hovered = ref<string | null>(null)
</script>

<template>
  <div
    ref="box"
    class="sheet"
  >
    <div
      v-bind="containerProps"
      class="rows"
      tabindex="-1"
    >
      <div
        v-bind="wrapperProps"
        role="listbox"
        aria-multiselectable="true"
        :aria-label="text.sheet"
      >
        <div
          v-for="{ data: row, index } in list"
          :key="index"
          class="row"
          :style="{ gridTemplateColumns: `repeat(${columns}, 1fr)`, height: `${rowHeight}px` }"
        >
          <div
            v-for="shot in row"
            :key="shot.id"
            class="tile"
            :class="{ chosen: chosen.has(shot.id), here: cursor === shot.id }"
            role="option"
            :aria-selected="chosen.has(shot.id)"
            :data-shot="shot.name"
            draggable="true"
            @click="emit('press', shot.id, $event)"
            @dblclick="emit('open', shot)"
            @dragstart="emit('drag', shot.id, $event)"
            @dragover.prevent
            @drop.stop.prevent="emit('dropBefore', shot.id)"
            @pointerenter="hovered = shot.id"
            @pointerleave="hovered = null"
          >
            <img
              :src="thumbnailOf(shot, hovered === shot.id ? 'shot' : 'graded')"
              :alt="shot.name"
              :style="{ height: `${pictureHeight}px` }"
              loading="lazy"
              draggable="false"
            />
            <span class="name">
              {{ shot.name }}
              <span
                v-if="warningsOf(shot).length"
                class="warning"
                :title="warningsOf(shot).join('; ')"
              >
                ▲
              </span>
            </span>
            <span class="quiet small">
              {{ encodingOf(shot.read).name }} · {{ text.states[shot.state] }} ·
              <span
                :class="{ warning: standingOf(standings.get(shot.id)).off }"
                :title="standingOf(standings.get(shot.id)).full"
              >
                {{ standingOf(standings.get(shot.id)).words }}
              </span>
            </span>
          </div>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.sheet {
  min-height: 0;
  min-width: 0;
  display: grid;
}
.row {
  display: grid;
  gap: var(--gap-wide);
}
.tile {
  display: grid;
  grid-template-rows: auto auto auto;
  align-content: start;
  padding: var(--gap-small);
  min-width: 0;
}
.tile:hover {
  background: var(--veil);
}
.tile.chosen {
  background: var(--pressed);
}
.tile.here {
  box-shadow: inset 0 -2px 0 var(--accent);
}
img {
  width: 100%;
  object-fit: contain;
  background: var(--well);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.small {
  font-size: 11px;
}
.warning {
  color: var(--warning);
}
</style>
