<script setup lang="ts">
// What acts on the display side, until there are controls of its own.
import { computed } from 'vue'
import { stepKindById } from '@core/grade'
import { useBench } from '../session/bench'
import { text } from '../text'

const { present } = useBench()
const names = computed(() =>
  (present.value?.steps ?? [])
    .filter((s) => s.side === 'display' && s.enabled && !stepKindById(s.kind).isNeutral(s.params))
    .map((s) => s.name),
)
</script>

<template>
  <p class="quiet">{{ names.length ? text.afterShow(names.join(', ')) : text.nothingHere }}</p>
</template>
