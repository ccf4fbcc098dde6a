<script setup lang="ts">
// One piece of the footage that will be a shot: its first, middle and last frame, its name, its ends.
import { computed } from 'vue'
import { ElButton } from 'element-plus'
import type { ShotDetail } from '@contracts/responses'
import PictureInTurn from '../../components/PictureInTurn.vue'
import type { Piece } from './pieces'
import { cutText as text } from './cut-text'
import { thumbnailOf } from './thumbnail'

const props = defineProps<{
  shot: ShotDetail
  piece: Piece
  index: number
  /** Of the whole file. */ frames: number
  last: boolean
  /** There is no other piece. */ only: boolean
}>()
const emit = defineEmits<{
  rename: [name: string]
  trim: [end: 'first' | 'last', frame: number]
  join: []
  leave: []
}>()
const ends = computed((): readonly number[] => {
  const { first, count } = props.piece
  return [first, first + Math.floor(count / 2), first + count - 1]
})
</script>

<template>
  <li data-testid="piece">
    <span class="figures quiet number">{{ index + 1 }}</span>
    <PictureInTurn
      v-for="(frame, k) in ends"
      :key="k"
      :src="thumbnailOf(shot, 'graded', frame)"
      :alt="`frame ${frame}`"
      width="112"
      height="63"
    />
    <input
      class="field name"
      :value="piece.name"
      :aria-label="text.nameOf(index + 1)"
      maxlength="200"
      @input="emit('rename', ($event.target as HTMLInputElement).value)"
    />
    <label>
      {{ text.first }}
      <input
        type="number"
        class="field figures"
        :value="piece.first"
        :min="0"
        :max="piece.first + piece.count - 1"
        :aria-label="`${text.first} ${index + 1}`"
        @change="emit('trim', 'first', Math.round(Number(($event.target as HTMLInputElement).value)))"
      />
    </label>
    <label>
      {{ text.last }}
      <input
        type="number"
        class="field figures"
        :value="piece.first + piece.count - 1"
        :min="piece.first"
        :max="frames - 1"
        :aria-label="`${text.last} ${index + 1}`"
        @change="emit('trim', 'last', Math.round(Number(($event.target as HTMLInputElement).value)))"
      />
    </label>
    <span class="figures quiet length">{{ text.length(piece.count) }}</span>
    <span class="transition">{{ piece.transition > 0 ? text.dissolve(piece.transition) : '' }}</span>
    <ElButton
      size="small"
      :disabled="last"
      @click="emit('join')"
    >
      {{ text.join }}
    </ElButton>
    <ElButton
      size="small"
      :disabled="only"
      @click="emit('leave')"
    >
      {{ text.leave }}
    </ElButton>
  </li>
</template>

<style scoped>
li {
  display: flex;
  align-items: center;
  gap: var(--gap);
  min-height: 73px;
  border-bottom: var(--line) solid var(--hairline);
}
li :deep(.el-button + .el-button) {
  margin-left: 0;
}
img {
  display: block;
  object-fit: contain;
  background: var(--well);
}
.number {
  width: 2em;
  text-align: right;
}
.name {
  flex: 1;
  min-width: 120px;
}
.length {
  width: 8em;
}
.transition {
  width: 10em;
  color: var(--accent);
}
label {
  display: flex;
  align-items: center;
  gap: var(--gap-small);
}
input[type='number'] {
  width: 76px;
}
</style>
