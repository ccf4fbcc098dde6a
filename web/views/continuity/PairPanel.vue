<script setup lang="ts">
// The chosen shot: large, held against the reference, edited in place.
import { ref } from 'vue'
import SegmentedChoice from '../../components/SegmentedChoice.vue'
import type { CompareMode } from '../../stores/view'
import PairEdits from './PairEdits.vue'
import PairStage from './PairStage.vue'
import { text } from './text'
import { nameOfReference, type Reference } from './held'
import type { Pair, Side } from './usePair'

defineProps<{ pair: Pair; chosen: Side; reference: Reference | null }>()
const emit = defineEmits<{ hold: [id: string | undefined]; open: []; split: [] }>()
const mode = ref<CompareMode>('side')
const modes = (['off', 'side', 'wipe', 'blink'] as const).map((value) => ({ value, ...text.modes[value] }))
</script>

<template>
  <section
    class="panel"
    :aria-label="chosen.shot.name"
  >
    <div class="tools">
      <strong>{{ chosen.shot.name }}</strong>
      <template v-if="reference">
        <SegmentedChoice
          v-model="mode"
          :label="text.compare"
          :options="modes"
        />
        <span class="quiet">{{ text.reference }}: {{ nameOfReference(reference) }}</span>
        <button
          type="button"
          class="button"
          @click="emit('hold', undefined)"
        >
          {{ text.clearReference }}
        </button>
      </template>
      <button
        v-else
        type="button"
        class="button"
        :data-tip="text.setReferenceTip"
        @click="emit('hold', chosen.shot.id)"
      >
        {{ text.setReference }}
      </button>
      <span class="space" />
      <button
        type="button"
        class="button"
        :data-tip="text.openTip"
        @click="emit('open')"
      >
        {{ text.open }}
      </button>
    </div>
    <PairStage
      :pair="pair"
      :chosen="chosen"
      :mode="reference ? mode : 'off'"
    />
    <PairEdits
      :pair="pair"
      :chosen="chosen"
      :reference="reference"
      @split="emit('split')"
      @pairing="mode = 'side'"
    />
  </section>
</template>

<style scoped>
.panel {
  min-height: 0;
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) 320px;
  gap: var(--gap-small) var(--gap-wide);
  border-top: var(--line) solid var(--hairline);
  padding-top: var(--gap-small);
}
.tools {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--gap);
}
.space {
  flex: 1;
}
strong {
  font-weight: 500;
}
</style>
