<script setup lang="ts">
// Shows the words of whatever carries data-tip, when a pointer rests on it or the keyboard reaches it: a page full of
// tips costs nothing while none is shown. Escape puts them away. A word that the glossary explains is linked to: by the
// pointer, which may move onto the tip, or by F1.
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { ElTooltip } from 'element-plus'
import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { termIn } from '../views/glossary/finding'
import { glossaryText } from '../views/glossary/terms'

const restMs = 450
/** How long the pointer may take from what is explained to its tip. */
const wayMs = 400
const checkMs = 300
const router = useRouter()
const id = 'tip'
const anchor = shallowRef<HTMLElement | null>(null)
const words = ref('')
const label = ref('')
const term = computed(() => termIn(label.value, words.value))
const open = ref(false)
let timer: ReturnType<typeof setTimeout> | undefined
let leaving: ReturnType<typeof setTimeout> | undefined
// What is explained may change, or go.
const checking = useIntervalFn(
  () => {
    if (!anchor.value?.isConnected) hide()
    else words.value = anchor.value.dataset['tip'] ?? ''
  },
  checkMs,
  { immediate: false },
)

function hide(): void {
  clearTimeout(timer)
  clearTimeout(leaving)
  checking.pause()
  anchor.value?.removeAttribute('aria-describedby')
  anchor.value = null
  open.value = false
}
function wait(target: EventTarget | null): void {
  const marked = target instanceof Element ? target.closest<HTMLElement>('[data-tip]') : null
  if (marked === anchor.value) {
    clearTimeout(leaving)
    return
  }
  hide()
  if (!marked) return
  anchor.value = marked
  timer = setTimeout(() => {
    if (!marked.isConnected || anchor.value !== marked) return
    words.value = marked.dataset['tip'] ?? ''
    label.value = marked.ariaLabel ?? marked.textContent
    open.value = words.value !== ''
    marked.setAttribute('aria-describedby', id)
    checking.resume()
  }, restMs)
}
const isTip = (target: EventTarget | null): boolean => target instanceof Element && target.closest('.tip-box') !== null
useEventListener(document, 'pointerover', ({ target }) => {
  if (isTip(target)) {
    clearTimeout(leaving)
    return
  }
  const onItself = target instanceof Element && target.closest('[data-tip]') === anchor.value
  if (!open.value || !term.value || onItself) {
    wait(target)
    return
  }
  clearTimeout(leaving)
  leaving = setTimeout(() => wait(target), wayMs)
})
useEventListener(document, 'focusin', (event) => {
  if (event.target instanceof Element && event.target.matches(':focus-visible')) wait(event.target)
})
useEventListener(document, 'focusout', hide)
useEventListener(document, 'pointerdown', ({ target }) => {
  if (!isTip(target)) hide()
})
function explain(): void {
  const { value: found } = term
  hide()
  if (found) void router.push({ name: 'glossary', hash: `#${found.id}` })
}
useEventListener(document, 'scroll', hide, { capture: true, passive: true })
useEventListener(
  document,
  'keydown',
  (event) => {
    if (event.key === 'Escape') hide()
    if (event.key === 'F1' && open.value && term.value) {
      event.preventDefault()
      event.stopPropagation()
      explain()
    }
  },
  { capture: true },
)
onScopeDispose(hide)
</script>

<template>
  <ElTooltip
    :visible="open"
    :virtual-ref="anchor ?? undefined"
    virtual-triggering
    placement="top"
    effect="dark"
    popper-class="tip-box"
  >
    <template #content>
      <span :id="id">{{ words }}</span>
      <RouterLink
        v-if="term"
        class="term"
        :to="{ name: 'glossary', hash: `#${term.id}` }"
        @click="hide"
      >
        {{ glossaryText.of(term.name) }}
      </RouterLink>
    </template>
  </ElTooltip>
</template>

<style scoped>
.term {
  display: block;
  margin-top: 4px;
  min-height: 24px;
  line-height: 24px;
  color: var(--ink-quiet);
  /* The tip itself lets the pointer through to what it covers. */
  pointer-events: auto;
}
.term:hover {
  color: var(--ink);
}
</style>
