<script setup lang="ts">
// Looks to choose from, each as a small picture of this shot: a list to walk through by the arrow keys.
import { refDebounced } from '@vueuse/core'
import { computed, useTemplateRef, watch } from 'vue'
import { arrowStep } from '../../../composables/arrowStep'
import { putImage } from '../../../composables/putImage'
import { useContactSheet } from '../../../composables/useContactSheet'
import type { SheetItem, SheetPicture } from '../../../workers/sheet-worker'

export interface LookEntry {
  readonly id: string
  readonly name: string
  readonly tip: string
  readonly item: SheetItem
}
const props = defineProps<{
  label: string
  entries: readonly LookEntry[]
  picture: SheetPicture | null
  chosen: string
}>()
const emit = defineEmits<{ choose: [id: string]; apply: [] }>()

const sheet = useContactSheet()
/** A hand that moves something else is waited for. */
const settleMs = 350
const wanted = computed(() => (props.picture ? JSON.stringify([props.picture, props.entries.map((e) => e.item)]) : ''))
const settled = refDebounced(wanted, settleMs)
watch(
  settled,
  () => {
    if (props.picture)
      sheet.run(
        props.picture,
        props.entries.map((e) => e.item),
        1,
      )
  },
  { immediate: true },
)

const canvases = useTemplateRef<HTMLCanvasElement[]>('canvases')
watch(
  [sheet.seen, () => canvases.value?.length] as const,
  ([seen]) => {
    canvases.value?.forEach((canvas, i) => {
      const made = seen.get(i)
      if (made && !('fault' in made)) putImage(canvas, made.image)
    })
  },
  { flush: 'post' },
)
const faultOf = (i: number): string => {
  const made = sheet.seen.value.get(i)
  return made && 'fault' in made ? made.fault : ''
}

const list = useTemplateRef<HTMLElement>('list')
const at = computed(() =>
  Math.max(
    0,
    props.entries.findIndex((e) => e.id === props.chosen),
  ),
)
/** Pictures that stand side by side. */
function columns(): number {
  const tops = [...(list.value?.children ?? [])].map((child) => (child as HTMLElement).offsetTop)
  return Math.max(1, tops.filter((top) => top === tops[0]).length)
}
function walk(event: KeyboardEvent): void {
  if (event.key === 'Enter') {
    event.stopPropagation()
    return emit('apply')
  }
  const { dx, dy } = arrowStep(event)
  if (dx === 0 && dy === 0) return
  event.preventDefault()
  event.stopPropagation()
  const to = at.value + dx + dy * columns()
  const next = props.entries[to]
  if (!next) return
  emit('choose', next.id)
  ;(list.value?.children[to] as HTMLElement | undefined)?.focus()
}
</script>

<template>
  <div
    ref="list"
    class="looks"
    role="listbox"
    :aria-label="label"
    @keydown="walk"
  >
    <div
      v-for="(entry, i) in entries"
      :key="entry.id"
      role="option"
      class="look"
      :aria-label="entry.name"
      :aria-selected="entry.id === chosen"
      :tabindex="i === at ? 0 : -1"
      :data-tip="faultOf(i) || entry.tip"
      :data-seen="sheet.seen.value.has(i)"
      @click="emit('choose', entry.id)"
      @dblclick="emit('apply')"
    >
      <canvas
        ref="canvases"
        width="192"
        height="108"
        aria-hidden="true"
      />
      <span class="name">{{ faultOf(i) ? '▲ ' : '' }}{{ entry.name }}</span>
    </div>
  </div>
</template>

<style scoped>
.looks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
  gap: var(--gap);
  align-content: start;
  overflow-y: auto;
  min-height: 0;
  padding: 2px;
}
.look {
  display: grid;
  gap: 2px;
  min-width: 0;
  cursor: pointer;
}
canvas {
  display: block;
  width: 100%;
  height: auto;
  background: var(--well);
}
.name {
  font-size: var(--text-small);
  color: var(--ink-quiet);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.look:hover .name,
[aria-selected='true'] .name {
  color: var(--ink);
}
[aria-selected='true'] canvas {
  outline: 2px solid var(--accent);
}
</style>
