<script setup lang="ts">
// Reference pictures of a scene: brought from files or dropped, made small here, taken away again.
import { ref } from 'vue'
import { scenePictureLimits } from '@contracts/index'
import type { SceneSummary } from '@contracts/responses'
import { sentenceOf } from '../../api/client'
import { choosePictures, drawPicture } from '../../composables/pictureFile'
import { useReel } from '../../stores/reel'
import { text } from './text'

const props = defineProps<{ scene: SceneSummary }>()
const emit = defineEmits<{ fault: [sentence: string] }>()
const reelStore = useReel()
const busy = ref(false)
const over = ref(false)
/** Side by side with the picture of the Bench, more would not be seen. */
const longestSide = 640

async function bring(files: readonly File[]): Promise<void> {
  if (files.length === 0 || busy.value) return
  busy.value = true
  try {
    for (const file of files) {
      const canvas = await drawPicture(file, (width, height) => longestSide / Math.max(width, height)).catch(() => {
        throw new Error(text.notAPicture(file.name))
      })
      await reelStore.addScenePicture(props.scene.id, await canvas.convertToBlob({ type: 'image/png' }), file.name)
    }
  } catch (error) {
    emit('fault', sentenceOf(error))
  } finally {
    busy.value = false
  }
}
async function remove(id: string): Promise<void> {
  try {
    await reelStore.removeScenePicture(id)
  } catch (error) {
    emit('fault', sentenceOf(error))
  }
}
function drop(event: DragEvent): void {
  over.value = false
  void bring([...(event.dataTransfer?.files ?? [])])
}
</script>

<template>
  <div
    class="pictures"
    :class="{ over }"
    data-testid="scene-pictures"
    @dragover.stop.prevent="over = true"
    @dragleave="over = false"
    @drop.stop.prevent="drop"
  >
    <figure
      v-for="p in scene.pictures"
      :key="p.id"
    >
      <img
        :src="`/api/scene-pictures/${p.id}`"
        :alt="p.name"
        :title="p.name"
      />
      <button
        type="button"
        :aria-label="text.removePicture(p.name)"
        :data-tip="text.removePicture(p.name)"
        @click="remove(p.id)"
      >
        ×
      </button>
    </figure>
    <button
      v-if="scene.pictures.length < scenePictureLimits.perScene"
      type="button"
      class="add"
      :disabled="busy"
      :data-tip="text.addPictureTip"
      @click="choosePictures(true, (files) => void bring(files))"
    >
      {{ busy ? text.addingPicture : text.addPicture }}
    </button>
  </div>
</template>

<style scoped>
.pictures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 3px;
  padding: 0 var(--gap) var(--gap);
}
.over {
  background: var(--pressed);
}
figure {
  position: relative;
  margin: 0;
}
img {
  display: block;
  width: 100%;
  aspect-ratio: 16 / 9;
  object-fit: cover;
  background: var(--well);
  border: var(--line) solid var(--hairline);
}
figure button {
  position: absolute;
  top: 0;
  right: 0;
  width: 24px;
  height: 24px;
  padding: 0;
  background: var(--panel);
  color: var(--ink);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  cursor: pointer;
  opacity: 0.85;
}
figure button:hover,
figure button:focus-visible {
  opacity: 1;
  border-color: var(--accent);
}
.add {
  grid-column: 1 / -1;
  background: none;
  color: var(--ink);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 2px var(--gap);
  font-size: 11px;
  min-height: 24px;
  cursor: pointer;
}
.add:hover:enabled {
  border-color: var(--accent);
}
</style>
