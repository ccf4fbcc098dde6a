<script setup lang="ts">
// Which scene is looked at, by which frame of each shot, and whether it moves.
import { Flag, Play, Repeat2, Square } from '@lucide/vue'
import { ElButton } from 'element-plus'
import { refThrottled } from '@vueuse/core'
import { toRef } from 'vue'
import PlainSelect from '../../components/PlainSelect.vue'
import SegmentedChoice from '../../components/SegmentedChoice.vue'
import { text } from './text'
import { frameChoices, type Continuity } from './useContinuity'
import type { ScenePlay } from './useScenePlay'

const props = defineProps<{ scene: Continuity; motion: ScenePlay }>()
const emit = defineEmits<{ play: []; note: []; firstPass: [] }>()
/** Told a few times a second: words that change with every picture would have the page laid out for each. */
const counts = refThrottled(
  toRef(() => props.motion.counts.value),
  500,
)
const frames = frameChoices.map((value) => ({ value, ...text.frames[value] }))
</script>

<template>
  <div class="bar">
    <h1>{{ text.title }}</h1>
    <PlainSelect
      class="scene"
      :label="text.scene"
      :tip="text.sceneTip"
      :options="scene.scenes.value"
      :model-value="scene.scene.value"
      @update:model-value="scene.set({ scene: $event, shot: undefined, ref: undefined })"
    />
    <SegmentedChoice
      :model-value="scene.at.value"
      :label="text.at"
      :options="frames"
      @update:model-value="scene.set({ at: $event ?? undefined })"
    />
    <span class="space" />
    <template v-if="motion.playing.value">
      <span
        class="figures quiet"
        data-testid="scene-played"
        :data-place="motion.place.value"
        :data-begins="motion.begins.value.join()"
      >
        {{ text.playing(motion.now.value?.shot.name ?? '', counts.shown, counts.dropped) }}
      </span>
      <ElButton
        :icon="Flag"
        :data-tip="text.notes.noteTip"
        @click="emit('note')"
      >
        {{ text.notes.note }}
      </ElButton>
      <ElButton
        :icon="Square"
        @click="motion.stop"
      >
        {{ text.stop }}
      </ElButton>
    </template>
    <template v-else>
      <ElButton
        :data-tip="text.firstPassTip"
        :disabled="scene.shots.value.length < 2"
        @click="emit('firstPass')"
      >
        {{ text.firstPass }}
      </ElButton>
      <ElButton
        :icon="Repeat2"
        :data-tip="text.playCutTip"
        :disabled="!scene.chosen.value || scene.shots.value[0]?.id === scene.chosen.value.id"
        @click="motion.playCut(scene.chosen.value?.id)"
      >
        {{ text.playCut }}
      </ElButton>
      <ElButton
        :icon="Play"
        :data-tip="text.playTip"
        :disabled="scene.shots.value.length === 0"
        @click="emit('play')"
      >
        {{ text.play }}
      </ElButton>
    </template>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--gap);
}
.bar :deep(.el-button + .el-button) {
  margin-left: 0;
}
h1 {
  font-size: var(--text-title);
  margin-right: var(--gap);
}
.scene {
  grid-template-columns: auto 190px;
}
.space {
  flex: 1;
}
</style>
