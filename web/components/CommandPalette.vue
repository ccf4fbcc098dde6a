<script setup lang="ts">
// Every command, view, shot, recipe and LUT by typing a part of its name.
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useEscape } from '../composables/useEscape'
import { keyOf } from '../commands/key-names'
import { matching, type PaletteEntry } from '../commands/matching'
import { usePalette } from '../stores/palette'

const text = {
  title: 'Commands',
  hint: 'Type a command, view, shot, recipe or LUT',
  none: 'Nothing has these words in its name.',
  count: (n: number): string => (n === 1 ? '1 entry' : `${n} entries`),
} as const
const mostShown = 60

const palette = usePalette()
const entries = shallowRef<readonly PaletteEntry[]>([])
const typed = ref('')
const at = ref(0)
const field = useTemplateRef('field')
const list = useTemplateRef('list')
const found = computed(() => matching(entries.value, typed.value))
const shown = computed(() => found.value.slice(0, mostShown))
let before: Element | null = null

useEventListener(window, 'keydown', (event) => {
  if (keyOf(event) !== 'Ctrl+K') return
  event.preventDefault()
  palette.open = !palette.open
})
watch(
  () => palette.open,
  async (open) => {
    if (!open) {
      if (before instanceof HTMLElement && before.isConnected) before.focus()
      return
    }
    before = document.activeElement
    typed.value = ''
    at.value = 0
    entries.value = []
    await nextTick()
    field.value?.focus()
    const gathered = await palette.gather()
    if (palette.open) entries.value = gathered
  },
)
watch(typed, () => {
  at.value = 0
})
const close = (): void => {
  palette.open = false
}
useEscape(() => palette.open, close)

function run(entry: PaletteEntry | undefined): void {
  if (!entry) return
  close()
  void nextTick(entry.run)
}
function key(event: KeyboardEvent): void {
  const count = shown.value.length
  const steps: Readonly<Record<string, number>> = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 }
  const by = steps[event.key]
  if (by !== undefined && count > 0) {
    const next = at.value + by
    at.value = Math.abs(by) === 1 ? (next + count) % count : Math.min(count - 1, Math.max(0, next))
    void nextTick(() => list.value?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' }))
  } else if (event.key === 'Enter') run(shown.value[at.value])
  else if (event.key === 'Escape' || keyOf(event) === 'Ctrl+K') close()
  // Nothing behind is reached while it is open.
  else if (event.key !== 'Tab') return event.stopPropagation()
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div
    v-if="palette.open"
    class="veil"
    @pointerdown.self="close"
  >
    <section
      class="palette"
      role="dialog"
      aria-modal="true"
      :aria-label="text.title"
      @keydown="key"
    >
      <input
        ref="field"
        v-model="typed"
        type="text"
        role="combobox"
        aria-expanded="true"
        aria-autocomplete="list"
        aria-controls="palette-entries"
        :aria-activedescendant="shown[at] ? `palette-${at}` : undefined"
        :aria-label="text.hint"
        :placeholder="text.hint"
        autocomplete="off"
        spellcheck="false"
      />
      <ul
        id="palette-entries"
        ref="list"
        role="listbox"
        :aria-label="text.title"
      >
        <li
          v-for="(entry, i) in shown"
          :id="`palette-${i}`"
          :key="entry.id"
          role="option"
          :aria-selected="i === at"
          @pointermove="at = i"
          @click="run(entry)"
        >
          <span class="quiet group">{{ entry.group }}</span>
          <span class="name">{{ entry.name }}</span>
          <kbd
            v-if="entry.key"
            class="figures"
          >
            {{ entry.key }}
          </kbd>
        </li>
      </ul>
      <p
        class="quiet small"
        role="status"
      >
        {{ found.length === 0 && entries.length > 0 ? text.none : text.count(found.length) }}
      </p>
    </section>
  </div>
</template>

<style scoped>
.veil {
  position: fixed;
  inset: 0;
  z-index: 60;
  display: grid;
  justify-items: center;
  align-items: start;
  padding-top: 72px;
}
.palette {
  width: min(640px, calc(100vw - 40px));
  max-height: calc(100vh - 144px);
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  background: var(--panel);
  border: var(--line) solid var(--accent);
  border-radius: var(--radius);
  box-shadow: 0 12px 40px rgb(0 0 0 / 45%);
}
input {
  background: var(--well);
  border: 0;
  border-bottom: var(--line) solid var(--hairline);
  padding: var(--gap) var(--gap-wide);
  font-size: var(--text-large);
  color: var(--ink);
}
ul {
  list-style: none;
  margin: 0;
  padding: var(--gap-small) 0;
  overflow-y: auto;
  min-height: 0;
}
li {
  display: grid;
  grid-template-columns: 90px 1fr auto;
  gap: var(--gap);
  align-items: center;
  min-height: 28px;
  padding: 0 var(--gap-wide);
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--well);
  box-shadow: inset 2px 0 0 var(--accent);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
kbd {
  color: var(--accent);
  font-family: var(--face-figures);
}
p {
  margin: 0;
  padding: var(--gap-small) var(--gap-wide);
  border-top: var(--line) solid var(--hairline);
}
</style>
