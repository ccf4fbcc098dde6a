<script setup lang="ts">
// The frame of the application: one view at a time.
import { useEventListener } from '@vueuse/core'
import { provide } from 'vue'
import CommandPalette from './components/CommandPalette.vue'
import TipLayer from './components/TipLayer.vue'
import { gestureHostKey } from './composables/useGesture'
import { useGrade } from './stores/grade'

const grade = useGrade()
provide(gestureHostKey, grade)
useEventListener(window, 'pagehide', () => grade.flushOnLeave())
useEventListener(window, 'beforeunload', (e) => {
  if (grade.saveState === 'retrying' || grade.saveState === 'conflict' || grade.saveState === 'refused')
    e.preventDefault()
})
</script>

<template>
  <RouterView />
  <TipLayer />
  <CommandPalette />
</template>
