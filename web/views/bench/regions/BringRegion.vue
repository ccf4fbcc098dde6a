<script setup lang="ts">
// Chooses a region of another shot of the project, to be brought here.
import { computed, ref, shallowRef } from 'vue'
import { ElButton } from 'element-plus'
import type { ShotDetail } from '@contracts/responses'
import { request, sentenceOf } from '../../../api/client'
import PlainSelect from '../../../components/PlainSelect.vue'
import { useOpenShot } from '../../../stores/open-shot'
import { useReel } from '../../../stores/reel'
import { useRegions } from '../../../stores/regions'
import { text } from '../text'

const emit = defineEmits<{ bring: [shotId: string, regionId: string] }>()
const reelStore = useReel()
const openShot = useOpenShot()
const regions = useRegions()
const { regions: words } = text
const shotId = ref('')
const regionId = ref('')
const fault = ref('')
const other = shallowRef<ShotDetail | null>(null)
const shots = computed(() =>
  (reelStore.current?.shots ?? []).filter((s) => s.id !== openShot.shot?.id).map(({ id, name }) => ({ id, name })),
)
const theirs = computed(() => (other.value?.revision.grade.regions ?? []).map(({ id, name }) => ({ id, name })))
async function choose(id: string): Promise<void> {
  shotId.value = id
  regionId.value = ''
  fault.value = ''
  try {
    const found = await request<ShotDetail>(`/shots/${encodeURIComponent(id)}`)
    if (shotId.value !== id) return
    other.value = found
    regionId.value = found.revision.grade.regions[0]?.id ?? ''
    if (regionId.value === '') fault.value = words.bringNone
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}
</script>

<template>
  <div class="bring">
    <PlainSelect
      :label="words.bringShot"
      :tip="words.bringShotTip"
      :options="shots"
      :model-value="shotId"
      data-testid="bring-shot"
      @update:model-value="choose"
    />
    <PlainSelect
      v-if="theirs.length"
      :label="words.bringRegion"
      :tip="words.bringRegionTip"
      :options="theirs"
      :model-value="regionId"
      data-testid="bring-region"
      @update:model-value="regionId = $event"
    />
    <p
      v-if="fault"
      role="alert"
    >
      ▲ {{ fault }}
    </p>
    <p class="ends">
      <ElButton
        size="small"
        :disabled="regionId === ''"
        @click="emit('bring', shotId, regionId)"
      >
        {{ words.bring }}
      </ElButton>
      {{ ' ' }}
      <ElButton
        size="small"
        @click="regions.bringing = false"
      >
        {{ text.placing.leave }}
      </ElButton>
    </p>
  </div>
</template>

<style scoped>
.bring {
  display: grid;
  gap: var(--gap-small);
  align-content: start;
  max-width: 420px;
}
p {
  margin: 0;
  font-size: 12px;
}
</style>
