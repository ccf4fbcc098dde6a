<script setup lang="ts">
// The instruments at the right of the picture: three places, each holding any instrument; one of them can fill the
// column, and any can have a window.
import { useMediaQuery } from '@vueuse/core'
import { computed, watch } from 'vue'
import type { Aim } from '@core/aims'
import type { InstrumentId, Probe } from '@core/instruments'
import { useView } from '../../../stores/view'
import type { RenderResult } from '../../../workers/messages'
import { figuresOf } from '../figures'
import { text } from '../text'
import { handlesOf, type LevelHandle } from '../aims/handles'
import type { SkinHandle } from '../aims/useSkinHandles'
import InstrumentChoice from './InstrumentChoice.vue'
import InstrumentPanel from './InstrumentPanel.vue'
import InstrumentTools from './InstrumentTools.vue'
import { onSceneSide, stationName } from './scale-lines'

const props = defineProps<{
  result: RenderResult | null
  displayId: string
  probe: Probe | null
  playing: boolean
  shots: readonly { readonly id: string; readonly name: string }[]
  asShot: boolean
  skins: readonly SkinHandle[]
}>()
const emit = defineEmits<{
  skin: [aim: Aim]
  aim: [id: LevelHandle['id'], value: number]
  point: [at: { readonly id: InstrumentId; readonly x: number; readonly y: number } | null]
  reference: [of: 'this' | string | null]
  detach: [id: InstrumentId]
  visible: [ids: readonly InstrumentId[]]
}>()
const view = useView()
const narrow = useMediaQuery('(max-width: 1100px)')
const alone = computed<InstrumentId | null>(() => view.filling ?? (narrow.value ? (view.slots[0] ?? 'waveform') : null))
const shown = computed(() => (alone.value ? [alone.value] : view.slots))
watch(shown, (ids) => emit('visible', ids), { immediate: true })
const figures = computed(() => figuresOf(props.result?.partFacts ?? props.result?.facts ?? null))
/** What the instruments look at, when it is not the picture. */
const looking = computed(() =>
  view.tap === 'finish' ? '' : text.options.after(stationName(view.tap), onSceneSide(view.tap)),
)

/** A whole picture can be aimed at; a part of it, footage as shot or another station's signal cannot. */
const aimable = computed(() =>
  view.tap === 'finish' && !props.playing && !props.asShot && view.part === null ? (props.result?.facts ?? null) : null,
)

/** Puts an instrument in a place; what was there goes where it came from. */
function put(place: number, id: InstrumentId): void {
  const before = view.slots[place]
  view.slots = view.slots.map((there, i) => {
    if (i === place) return id
    if (there === id && before) return before
    return there
  })
  if (view.filling) view.filling = id
}
</script>

<template>
  <div
    class="column"
    :class="{ alone: alone !== null }"
  >
    <InstrumentPanel
      v-for="(id, place) in shown"
      :id="id"
      :key="alone ? 'alone' : place"
      :class="`place-${place}`"
      :figure="view.tap === 'finish' ? figures[id] : looking"
      :trace="result?.traces[id] ?? null"
      :settings="view.instruments"
      :graticules="view.graticules"
      :display-id="displayId"
      :tap="view.tap"
      :probe="probe"
      :playing="playing"
      :handles="handlesOf(id, aimable, view.instruments.parade)"
      :skins="aimable ? skins : []"
      @skin="emit('skin', $event)"
      @aim="(h, value) => emit('aim', h, value)"
      @point="emit('point', $event && { id, ...$event })"
    >
      <template #name>
        <InstrumentChoice
          :id="id"
          @choose="put(alone ? Math.max(0, view.slots.indexOf(id)) : place, $event)"
        />
      </template>
      <template #tools>
        <InstrumentTools
          :id="id"
          :narrow="narrow"
          :shots="shots"
          @reference="emit('reference', $event)"
          @detach="emit('detach', id)"
        />
      </template>
    </InstrumentPanel>
  </div>
</template>

<style scoped>
.column {
  contain: size layout style;
  display: grid;
  grid-template: 1fr 1.08fr / 1.25fr 1fr;
  grid-template-areas: 'a a' 'b c';
  gap: var(--gap);
  min-height: 0;
  min-width: 0;
}
.column.alone {
  display: flex;
  flex-direction: column;
}
.alone > section {
  flex: 1;
}
.place-0 {
  grid-area: a;
}
.place-1 {
  grid-area: b;
}
.place-2 {
  grid-area: c;
}
</style>
