<script setup lang="ts">
// What a recipe asks of this shot before it is kept: where its regions sit, and how the footage is read where that is
// not settled.
import { computed } from 'vue'
import { ElButton } from 'element-plus'
import { encodingById } from '@core/colour'
import PlainSelect from '../../components/PlainSelect.vue'
import { usePlacing } from '../../stores/placing'
import { useRegions } from '../../stores/regions'
import ShapeNumbers from './regions/ShapeNumbers.vue'
import { text } from './text'

const placing = usePlacing()
const { placing: words } = text
const regions = useRegions()
const readings = computed(() => placing.encodings.map((id) => ({ id, name: encodingById(id).name })))
</script>

<template>
  <div
    v-if="placing.recipe"
    class="placing"
    data-testid="placing"
  >
    <p>
      <strong>{{ placing.recipe.name }}</strong>
      {{ words.ask(placing.regions.length, placing.encodings.length > 0) }}
    </p>
    <p
      v-if="placing.recipe.note"
      class="quiet note"
    >
      {{ placing.recipe.note }}
    </p>
    <div class="bar">
      <button
        v-for="(r, i) in placing.regions"
        :key="r.id"
        :data-tip="words.regionTip"
        type="button"
        :aria-pressed="i === placing.index"
        @click="placing.index = i"
      >
        {{ r.name }}
      </button>
      <PlainSelect
        v-if="readings.length"
        class="reading"
        :label="words.readAs"
        :tip="words.readTip"
        :options="readings"
        :model-value="placing.encodingId ?? readings[0]?.id ?? ''"
        @update:model-value="placing.encodingId = $event"
      />
      <span class="ends">
        <ElButton
          size="small"
          @click="placing.keep"
        >
          {{ words.keep }}
        </ElButton>
        {{ ' ' }}
        <ElButton
          size="small"
          @click="placing.leave"
        >
          {{ words.leave }}
        </ElButton>
      </span>
    </div>
    <div
      v-if="placing.region && regions.handled"
      class="numbers"
    >
      <ShapeNumbers
        :shape="regions.handled.source.shape"
        :inner="regions.handled.source.inner"
        :outer="regions.handled.source.outer"
        :drawable="false"
        prefix="place-"
        @shape="placing.setShape"
        @softness="placing.setSoftness"
      />
    </div>
  </div>
</template>

<style scoped>
.note {
  font-size: 12px;
  max-width: 760px;
  max-height: 92px;
  overflow: auto;
}
.placing {
  display: grid;
  gap: var(--gap-small);
  align-content: start;
}
p {
  margin: 0;
}
.bar {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  flex-wrap: wrap;
}
.bar button[aria-pressed] {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 8px;
  min-height: var(--control);
  font-size: 12px;
}
.bar button[aria-pressed='true'] {
  border-color: var(--accent);
  color: var(--accent);
}
.reading {
  width: 260px;
}
.ends {
  margin-left: auto;
}
.numbers {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  column-gap: var(--gap-broad);
}
.numbers :deep(.control) {
  grid-template-columns: 76px minmax(60px, 1fr) 58px 48px;
}
.numbers :deep(.effect) {
  display: none;
}
</style>
