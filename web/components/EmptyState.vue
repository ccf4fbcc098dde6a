<script setup lang="ts">
// What stands where nothing is yet: what it is for, and the buttons that begin it.
defineProps<{
  /** One short line; left out where the place says it already. */ title?: string
  hint: string
}>()
</script>

<template>
  <section
    class="empty"
    data-testid="empty"
  >
    <p
      v-if="title"
      class="large"
    >
      {{ title }}
    </p>
    <p class="quiet">{{ hint }}</p>
    <div
      v-if="$slots['default']"
      class="ways"
    >
      <slot />
    </div>
  </section>
</template>

<style scoped>
.empty {
  display: grid;
  gap: var(--gap);
  padding: var(--gap-broad);
  align-content: center;
  justify-items: center;
  text-align: center;
  border: var(--line) dashed var(--hairline-strong);
  border-radius: var(--radius);
}
p {
  margin: 0;
  max-width: 68ch;
}
.large {
  font-size: var(--text-large);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap);
  justify-content: center;
}
.ways :deep(.el-button + .el-button) {
  margin-left: 0;
}
</style>
