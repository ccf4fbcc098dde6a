<script setup lang="ts">
// Shows the words of whatever carries data-tip, when a pointer rests on it or the keyboard reaches it: a page full of
// tips costs nothing while none is shown. Escape puts them away.
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { ElTooltip } from 'element-plus'
import { onScopeDispose, ref, shallowRef } from 'vue'

const restMs = 450
const checkMs = 300
const id = 'tip'
const anchor = shallowRef<HTMLElement | null>(null)
const words = ref('')
const open = ref(false)
let timer: ReturnType<typeof setTimeout> | undefined
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
  checking.pause()
  anchor.value?.removeAttribute('aria-describedby')
  anchor.value = null
  open.value = false
}
function wait(target: EventTarget | null): void {
  const marked = target instanceof Element ? target.closest<HTMLElement>('[data-tip]') : null
  if (marked === anchor.value) return
  hide()
  if (!marked) return
  anchor.value = marked
  timer = setTimeout(() => {
    if (!marked.isConnected || anchor.value !== marked) return
    words.value = marked.dataset['tip'] ?? ''
    open.value = words.value !== ''
    marked.setAttribute('aria-describedby', id)
    checking.resume()
  }, restMs)
}
useEventListener(document, 'pointerover', (event) => wait(event.target))
useEventListener(document, 'focusin', (event) => {
  if (event.target instanceof Element && event.target.matches(':focus-visible')) wait(event.target)
})
useEventListener(document, 'focusout', hide)
useEventListener(document, 'pointerdown', hide)
useEventListener(document, 'scroll', hide, { capture: true, passive: true })
useEventListener(
  document,
  'keydown',
  (event) => {
    if (event.key === 'Escape') hide()
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
    :enterable="false"
  >
    <template #content>
      <span :id="id">{{ words }}</span>
    </template>
  </ElTooltip>
</template>
