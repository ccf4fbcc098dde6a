<script setup lang="ts">
// What the file of the shot in hand says, and what the pixels say of its encoding.
import type { ShotSummary } from '@contracts/responses'
import { fileFacts } from './shot-facts'

defineProps<{ shot: ShotSummary }>()
</script>

<template>
  <section
    class="facts"
    :aria-label="`${shot.name}, facts`"
  >
    <dl>
      <div
        v-for="([name, value], i) in fileFacts(shot)"
        :key="i"
      >
        <dt>{{ name }}</dt>
        <dd class="figures">{{ value }}</dd>
      </div>
    </dl>
    <p
      v-if="shot.guess"
      class="quiet"
    >
      {{ shot.guess.sentences.join(' ') }}
    </p>
  </section>
</template>

<style scoped>
.facts {
  background: var(--panel);
  padding: var(--gap-small) var(--gap);
  font-size: 11px;
}
dl {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--gap-broad);
  margin: 0;
}
dl div {
  display: flex;
  gap: var(--gap-small);
}
dt {
  color: var(--ink-quiet);
}
dd {
  margin: 0;
}
p {
  margin: 2px 0 0;
}
</style>
