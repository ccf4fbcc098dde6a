<script setup lang="ts">
// The Regions station: which region, what it is made of and how it is looked at; below, the open page.
import { cutTo } from '@core/names'
import { computed } from 'vue'
import { ElButton, ElSwitch } from 'element-plus'
import { regionStarts, type CurvePoint, type GradeDocument, type RegionStartId, type Step } from '@core/grade'
import { matteViews, type MatteViewId } from '@core/regions'
import EmptyState from '../../../components/EmptyState.vue'
import PlainSelect from '../../../components/PlainSelect.vue'
import { useRegions } from '../../../stores/regions'
import { useView } from '../../../stores/view'
import BringRegion from './BringRegion.vue'
import KeyControls from './KeyControls.vue'
import MatteControls from './MatteControls.vue'
import MotionControls from './MotionControls.vue'
import ComponentList from './ComponentList.vue'
import RegionTools from './RegionTools.vue'
import { text } from '../text'

defineProps<{
  /** As it is at this frame. */ grade: GradeDocument
  /** With what changes along the clip. */ whole: GradeDocument
  firstFrame: number
}>()
const emit = defineEmits<{
  change: [step: Step, key: string, value: number | string | null | readonly CurvePoint[]]
  go: [frame: number]
  start: [id: RegionStartId]
  bring: [shotId: string, regionId: string]
}>()
const regions = useRegions()
const view = useView()
const { regions: words } = text
const options = computed(() => regions.all.map(({ id, name }) => ({ id, name })))
const starts = [
  { id: 'none', name: words.addWhat, tip: words.addTip },
  { id: 'plain', name: words.plain, tip: words.plainTip },
  ...regionStarts,
  { id: 'another', name: words.another, tip: words.anotherTip },
]
function start(id: string): void {
  if (id === 'plain') regions.add()
  else if (id === 'another') regions.bringing = true
  else if (id !== 'none') emit('start', id as RegionStartId)
}
const looks = [{ id: 'picture', name: words.asPicture, tip: words.asPictureTip }, ...matteViews]
function rename(e: Event): void {
  const name = cutTo((e.target as HTMLInputElement).value.trim(), 80)
  if (name !== '' && regions.region && name !== regions.region.name) regions.set('renamed', { name })
}
</script>

<template>
  <div class="regions">
    <div class="bar">
      <PlainSelect
        class="add"
        :label="words.add"
        :tip="words.addTip"
        :options="starts"
        model-value="none"
        data-testid="add-region"
        @update:model-value="start"
      />
      <template v-if="regions.region">
        <PlainSelect
          class="which"
          :label="words.region"
          :tip="words.regionTip"
          :options="options"
          :model-value="regions.region.id"
          @update:model-value="regions.choose"
        />
        <input
          :data-tip="words.nameTip"
          class="name"
          :value="regions.region.name"
          :aria-label="words.name"
          maxlength="80"
          @change="rename"
          @keydown.stop
          @keydown.enter="rename"
        />
        <label>
          <ElSwitch
            :model-value="regions.region.enabled"
            :aria-label="words.enabledLabel"
            @update:model-value="regions.set($event ? 'on' : 'off', { enabled: Boolean($event) })"
          />
          {{ words.enabled }}
        </label>
        <button
          :data-tip="words.soloTip"
          type="button"
          :aria-pressed="view.soloId === regions.region.id"
          @click="view.soloId = view.soloId === regions.region.id ? null : regions.region.id"
        >
          {{ words.solo }}
        </button>
        <button
          :data-tip="words.invertTip"
          type="button"
          :aria-pressed="regions.region.invert"
          @click="regions.set('inside out', { invert: !regions.region.invert })"
        >
          {{ words.invert }}
        </button>
        <PlainSelect
          class="look"
          data-testid="matte-view"
          :label="words.look"
          :tip="words.lookTip"
          :options="looks"
          :model-value="view.matteView ?? 'picture'"
          @update:model-value="view.matteView = $event === 'picture' ? null : ($event as MatteViewId)"
        />
        <ElButton
          size="small"
          @click="regions.remove"
        >
          {{ words.remove }}
        </ElButton>
      </template>
    </div>
    <BringRegion
      v-if="regions.bringing"
      @bring="(shotId, regionId) => emit('bring', shotId, regionId)"
    />
    <EmptyState
      v-else-if="!regions.region"
      class="begin"
      :hint="words.none"
    >
      <ElButton
        v-for="s in starts.slice(1)"
        :key="s.id"
        size="small"
        :data-tip="s.tip"
        @click="start(s.id)"
      >
        {{ s.name }}
      </ElButton>
    </EmptyState>
    <ComponentList
      v-else-if="regions.page === 'components'"
      :region="regions.region"
    />
    <KeyControls v-else-if="regions.page === 'key'" />
    <MatteControls v-else-if="regions.page === 'matte'" />
    <MotionControls
      v-else-if="regions.page === 'motion'"
      :first-frame="firstFrame"
      @go="emit('go', $event)"
    />
    <RegionTools
      v-else
      :grade="grade"
      :whole="whole"
      :region-id="regions.region.id"
      :page="regions.page"
      :first-frame="firstFrame"
      @change="(step, key, value) => emit('change', step, key, value)"
      @go="emit('go', $event)"
    />
  </div>
</template>

<style scoped>
.regions {
  display: grid;
  grid-template-rows: auto 1fr;
  gap: var(--gap-small);
  min-height: 0;
}
.bar {
  display: flex;
  gap: var(--gap);
  align-items: center;
  white-space: nowrap;
}
.bar :deep(.choice) {
  grid-template-columns: auto 1fr;
  min-width: 0;
}
.bar .add {
  width: 104px;
}
.bar .which {
  width: 164px;
}
.bar .look {
  width: 128px;
}
.name {
  width: 92px;
  min-height: var(--control);
  background: var(--well);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 var(--gap-small);
}
.bar button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 6px;
  min-height: var(--control);
  font-size: 12px;
}
.bar button[aria-pressed='true'] {
  border-color: var(--accent);
  color: var(--accent);
}
label {
  display: flex;
  align-items: center;
  gap: var(--gap-small);
  font-size: 12px;
}
p {
  margin: 0;
}
</style>
