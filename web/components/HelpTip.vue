<script setup lang="ts">
// A one-line explanation of a term, on hover and on focus.
import { ElTooltip } from 'element-plus'

defineProps<{ text: string }>()
</script>

<template>
  <ElTooltip :content="text" placement="top" :show-after="450" :hide-after="0" effect="dark" :enterable="false">
    <slot />
  </ElTooltip>
</template>
