<script setup lang="ts">
// What was removed last, and the way back.
import { ElButton } from 'element-plus'

defineProps<{ name: string }>()
const emit = defineEmits<{ bringBack: [] }>()
const text = {
  removed: (name: string): string => `“${name}” was removed; it is kept for a week.`,
  bringBack: 'Restore',
} as const
</script>

<template>
  <p
    class="removed"
    role="status"
  >
    {{ text.removed(name) }}
    <ElButton
      size="small"
      @click="emit('bringBack')"
    >
      {{ text.bringBack }}
    </ElButton>
  </p>
</template>

<style scoped>
.removed {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap);
  align-items: center;
}
</style>
