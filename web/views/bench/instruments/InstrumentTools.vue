<script setup lang="ts">
// An instrument's settings and whether it fills the column. Apart from the traces, so that a move of the hand does not
// draw it again.
import { ElPopover } from 'element-plus'
import { ref } from 'vue'
import type { StationId } from '@core/grade'
import type { InstrumentId } from '@core/instruments'
import { useEscape } from '../../../composables/useEscape'
import { useView } from '../../../stores/view'
import { text } from '../text'
import InstrumentOptions from './InstrumentOptions.vue'

const props = defineProps<{
  id: InstrumentId
  narrow: boolean
  shots: readonly { readonly id: string; readonly name: string }[]
}>()
const emit = defineEmits<{ reference: [of: 'this' | string | null]; detach: [] }>()
const open = ref(false)
useEscape(
  () => open.value,
  () => {
    open.value = false
  },
)
const view = useView()
const toggle = (): void => {
  view.filling = view.filling === props.id ? null : props.id
}
</script>

<template>
  <span class="tools">
    <ElPopover
      v-model:visible="open"
      trigger="click"
      :width="380"
      placement="bottom-end"
      :show-arrow="false"
      :persistent="false"
    >
      <template #reference>
        <button
          type="button"
          :aria-label="text.setInstrument(text.instruments[id])"
        >
          {{ text.set }}
        </button>
      </template>
      <InstrumentOptions
        :id="id"
        :settings="view.instruments"
        :graticules="view.graticules"
        :tap="view.tap"
        :reference="view.reference"
        :shots="shots"
        @settings="view.instruments = { ...view.instruments, ...$event }"
        @graticules="view.graticules = { ...view.graticules, ...$event }"
        @tap="
          (s: StationId) => {
            view.tap = s
          }
        "
        @reference="emit('reference', $event)"
        @detach="emit('detach')"
      />
    </ElPopover>
    <button
      v-if="!narrow"
      type="button"
      :aria-pressed="view.filling === id"
      @click="toggle"
    >
      {{ view.filling === id ? text.unfill : text.fill }}
    </button>
  </span>
</template>

<style scoped>
.tools {
  display: flex;
  flex: none;
}
button {
  background: none;
  border: 0;
  border-left: var(--line) solid var(--hairline);
  padding: 0 var(--gap-small);
  color: var(--ink-quiet);
  font-size: var(--text-small);
  min-height: 20px;
  min-width: 24px;
}
button:hover {
  color: var(--ink);
}
</style>
