<script setup lang="ts">
// A labelled choice from a list.
import { useId } from 'vue'
import { ElOption, ElSelect } from 'element-plus'

defineProps<{
  label: string
  tip: string
  options: readonly { id: string; name: string; tip?: string }[]
  modelValue: string
}>()
defineEmits<{ 'update:modelValue': [id: string] }>()
const id = useId()
</script>

<template>
  <div class="choice">
    <label
      :data-tip="tip"
      :for="id"
    >
      {{ label }}
    </label>
    <ElSelect
      :id="id"
      size="small"
      :model-value="modelValue"
      :aria-label="label"
      @update:model-value="$emit('update:modelValue', String($event))"
    >
      <ElOption
        v-for="o in options"
        :key="o.id"
        :value="o.id"
        :label="o.name"
        :title="o.tip ?? o.name"
      />
    </ElSelect>
  </div>
</template>

<style scoped>
.choice {
  display: grid;
  grid-template-columns: 96px 1fr;
  align-items: center;
  gap: var(--gap);
  min-height: 26px;
}
</style>
