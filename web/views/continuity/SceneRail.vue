<script setup lang="ts">
// Beside the scene: what jumps and which set-ups come again, the shelf of stills, the notes on moments.
import { ref } from 'vue'
import SegmentedChoice from '../../components/SegmentedChoice.vue'
import { addressOfStill, type Reference } from './held'
import JumpList from './JumpList.vue'
import MomentNotes from './MomentNotes.vue'
import SetupOffers from './SetupOffers.vue'
import StillShelf from './StillShelf.vue'
import { text } from './text'
import type { Continuity } from './useContinuity'
import type { Side } from './usePair'
import type { Shelf } from './useShelf'

defineProps<{ scene: Continuity; shelf: Shelf; chosen: Side | null; held: Reference | null }>()
const emit = defineEmits<{ cut: [at: number] }>()
type Tab = keyof typeof text.tabs
const tab = ref<Tab>('jumps')
const tabs = (Object.keys(text.tabs) as Tab[]).map((value) => ({ value, name: text.tabs[value] }))
</script>

<template>
  <div class="rail">
    <SegmentedChoice
      v-model="tab"
      :label="text.rail"
      :options="tabs"
      fill
    />
    <div
      v-if="tab === 'jumps'"
      class="told"
    >
      <SetupOffers
        :groups="scene.setups.value"
        :shots="scene.shots.value"
        @link="scene.link"
      />
      <JumpList
        :jumps="scene.jumps.value"
        :odd="scene.odd.value"
        :shots="scene.shots.value"
        :measured="scene.measured.value"
        @cut="emit('cut', $event)"
        @choose="scene.choose(scene.shots.value[$event]?.id)"
      />
    </div>
    <StillShelf
      v-else-if="tab === 'shelf'"
      :chosen="chosen"
      :held-id="held?.kind === 'still' ? held.still.id : null"
      :attempt="scene.attempt"
      @hold="scene.hold(addressOfStill($event.id))"
      @carry="shelf.carry"
      @keep="shelf.keep"
    />
    <MomentNotes
      v-else
      :shots="scene.shots.value"
      @remove="shelf.removeNote"
    />
  </div>
</template>

<style scoped>
.rail {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: var(--gap);
  min-height: 0;
}
.told {
  display: flex;
  flex-direction: column;
  gap: var(--gap);
  min-height: 0;
  overflow: auto;
}
</style>
