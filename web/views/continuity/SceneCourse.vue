<script setup lang="ts">
// The shots of a scene side by side, in rows that fit, as large as there is room, each row under its measures.
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import { printLine, type Jump, type SceneLine } from '@core/continuity'
import type { ShotSummary } from '@contracts/responses'
import { thumbnailAddress } from '../../api/thumbnail'
import PictureInTurn from '../../components/PictureInTurn.vue'
import CourseLines from './CourseLines.vue'
import { text } from './text'

const props = defineProps<{
  shots: readonly ShotSummary[]
  lines: readonly SceneLine[]
  jumps: readonly Jump[]
  frameOf: (shot: ShotSummary) => number
  chosenId: string | null
  referenceId: string | null
  oddId: string | null
}>()
const emit = defineEmits<{ choose: [id: string]; open: [id: string] }>()

const labels = 76
const leastColumn = 168
/** Of a row beside its pictures: the lines and the names. */
const besidePictures = 170
const box = useTemplateRef('box')
const { width, height } = useElementSize(box)
/** As many stand in a row as have room; rows are as even as can be. */
const perRow = computed(() => {
  const most = Math.max(1, Math.floor((width.value - labels) / leastColumn))
  return Math.ceil(props.shots.length / Math.max(1, Math.ceil(props.shots.length / most)))
})
const column = computed(() => {
  const wide = (width.value - labels) / Math.max(1, perRow.value)
  const high = ((height.value - besidePictures) * 16) / 9
  return Math.max(leastColumn, Math.floor(Math.min(wide, high)))
})
const rows = computed(() =>
  Array.from({ length: Math.ceil(props.shots.length / Math.max(1, perRow.value)) }, (_, r) => {
    const first = r * perRow.value
    return { first, shots: props.shots.slice(first, first + perRow.value) }
  }),
)
const picture = (shot: ShotSummary): string =>
  thumbnailAddress({ ...shot, revisionId: shot.headId, frame: props.frameOf(shot), as: 'graded' })
</script>

<template>
  <div
    ref="box"
    class="course"
    tabindex="-1"
  >
    <div
      v-for="row in rows"
      :key="row.first"
    >
      <CourseLines
        :shots="shots"
        :lines="lines"
        :jumps="jumps"
        :first="row.first"
        :count="row.shots.length"
        :labels="labels"
        :column="column"
      />
      <ol :style="{ marginLeft: `${labels}px`, gridTemplateColumns: `repeat(${perRow}, ${column}px)` }">
        <li
          v-for="(shot, i) in row.shots"
          :key="shot.id"
          :data-shot="shot.name"
        >
          <button
            type="button"
            class="shot"
            :aria-pressed="shot.id === chosenId"
            @click="emit('choose', shot.id)"
            @dblclick="emit('open', shot.id)"
          >
            <PictureInTurn
              :key="picture(shot)"
              :src="picture(shot)"
              alt=""
            />
            <span class="name">
              <span class="figures quiet">{{ row.first + i + 1 }}</span>
              {{ shot.name }}
            </span>
            <span
              v-if="shot.id === referenceId"
              class="mark"
            >
              {{ text.reference }}
            </span>
            <span
              v-else-if="shot.id === oddId"
              class="mark odd"
            >
              ▲ {{ text.odd }}
            </span>
          </button>
        </li>
      </ol>
    </div>
    <table class="visually-hidden">
      <caption>
        {{ text.lines }}
      </caption>
      <thead>
        <tr>
          <th>{{ text.measure }}</th>
          <th
            v-for="shot in shots"
            :key="shot.id"
          >
            {{ shot.name }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="line in lines"
          :key="`${line.id} ${line.of ?? ''}`"
        >
          <th>{{ line.of ? `${line.of}, ${line.name}` : line.name }}</th>
          <td
            v-for="(v, i) in line.values"
            :key="i"
          >
            {{ v === null ? '–' : printLine(line, v) }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.course {
  display: grid;
  gap: var(--gap-wide);
  align-content: start;
  position: relative;
  overflow-y: auto;
  overflow-x: hidden;
  min-height: 0;
}
ol {
  list-style: none;
  padding: 0;
  margin-block: 0;
  display: grid;
}
.shot {
  position: relative;
  display: grid;
  width: 100%;
  padding: 0 2px 0 0;
  gap: var(--gap-hair);
  background: none;
  border: 0;
  text-align: left;
  font-size: 12px;
}
.shot :deep(img) {
  width: 100%;
  aspect-ratio: 16 / 9;
  object-fit: contain;
  background: var(--well);
}
.shot[aria-pressed='true'] :deep(img) {
  outline: 2px solid var(--accent);
  outline-offset: -2px;
}
.shot:focus-visible {
  outline-offset: -3px;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.mark {
  position: absolute;
  left: 4px;
  top: 4px;
  padding: 0 var(--gap-small);
  background: var(--well);
  font-size: var(--text-small);
}
.odd {
  color: var(--warning);
}
</style>
