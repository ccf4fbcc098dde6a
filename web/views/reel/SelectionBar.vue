<!-- Long: a row of buttons, one for each thing that is done to the chosen shots. -->

<script setup lang="ts">
// What can be done with the chosen shots, all at once.
import { computed, ref } from 'vue'
import { ElButton, ElOption, ElSelect } from 'element-plus'
import { encodings } from '@core/colour'
import { commonRates, rateName, speedOf } from '@core/footage'
import { houseStandards } from '@core/readings'
import type { ShotChanges } from '@contracts/requests'
import type { SceneSummary, ShotState, ShotSummary } from '@contracts/responses'
import { useStandards } from '../../stores/standards'
import { rateOf } from './shot-facts'
import { text } from './text'

const props = defineProps<{
  shots: readonly ShotSummary[]
  all: number
  scenes: readonly SceneSummary[]
  copied: ShotSummary | null
  inOrder: boolean
}>()
const emit = defineEmits<{
  balance: []
  match: []
  carry: []
  change: [change: Omit<ShotChanges, 'shotIds'>]
  copy: []
  join: []
  link: []
  unlink: []
  render: []
  cut: []
  move: [by: -1 | 1]
  remove: []
}>()

const standardStore = useStandards()
const sure = ref(false)
const first = computed(() => props.shots[0])
/** The value that all chosen shots share; empty when they differ. */
const shared = <T,>(value: (s: ShotSummary) => T): T | '' => {
  const [one, ...others] = props.shots.map(value)
  return one !== undefined && others.every((o) => o === one) ? one : ''
}
const joinable = computed(() => props.shots.length > 1 && new Set(props.shots.map((s) => s.media.hash)).size === 1)
/** All chosen shots are one set-up already. */
const linked = computed(() => {
  const id = first.value?.setup?.id
  return (
    id !== undefined && props.shots.every((s) => s.setup?.id === id) && props.shots.length === first.value?.setup?.shots
  )
})
const rates = computed(() => [
  { id: '', name: text.asFilmed },
  ...commonRates.map((rate) => ({
    id: `${rate.numerator}/${rate.denominator}`,
    name: `${rateName(rate)} fps${first.value ? `, ${(speedOf(rateOf(first.value), rate) * 100).toFixed(0)} %` : ''}`,
  })),
])
function played(id: string): void {
  const [numerator, denominator] = id.split('/').map(Number)
  emit('change', { played: numerator && denominator ? { numerator, denominator } : null })
}
function encoding(encodingId: string): void {
  if (first.value) emit('change', { read: { encodingId, range: first.value.read.range } })
}
function range(value: 'full' | 'legal'): void {
  if (first.value) emit('change', { read: { encodingId: first.value.read.encodingId, range: value } })
}
function remove(): void {
  sure.value = false
  emit('remove')
}
</script>

<template>
  <div
    class="bar"
    role="toolbar"
    :aria-label="text.chosen(shots.length, all)"
  >
    <span class="figures count">{{ text.chosen(shots.length, all) }}</span>
    <template v-if="sure">
      <span>{{ text.removeSure(shots.length) }}</span>
      <ElButton
        size="small"
        @click="remove"
      >
        {{ text.removeYes }}
      </ElButton>
      <ElButton
        size="small"
        @click="sure = false"
      >
        {{ text.keep }}
      </ElButton>
    </template>
    <template v-else-if="shots.length">
      <ElSelect
        size="small"
        class="pick"
        :model-value="shared((s) => s.read.encodingId)"
        :placeholder="text.setEncoding"
        :aria-label="text.setEncoding"
        filterable
        @update:model-value="encoding"
      >
        <ElOption
          v-for="e in encodings"
          :key="e.id"
          :value="e.id"
          :label="e.name"
        />
      </ElSelect>
      <ElSelect
        size="small"
        class="pick narrow"
        :model-value="shared((s) => s.read.range)"
        :placeholder="text.setRange"
        :aria-label="text.setRange"
        @update:model-value="range"
      >
        <ElOption
          value="full"
          label="full"
        />
        <ElOption
          value="legal"
          label="legal"
        />
      </ElSelect>
      <ElSelect
        size="small"
        class="pick narrow"
        :model-value="shared((s) => s.state)"
        :placeholder="text.setState"
        :aria-label="text.setState"
        @update:model-value="emit('change', { state: $event as ShotState })"
      >
        <ElOption
          v-for="(name, id) in text.states"
          :key="id"
          :value="id"
          :label="name"
        />
      </ElSelect>
      <ElSelect
        size="small"
        class="pick"
        :model-value="shared((s) => s.standardId)"
        :placeholder="text.setStandard"
        :aria-label="text.setStandard"
        @update:model-value="emit('change', { standardId: $event === '' ? null : String($event) })"
      >
        <ElOption
          v-if="shots.some((s) => s.ownStandardId !== null)"
          value=""
          :label="text.sceneStandard"
        />
        <ElOption
          v-for="s in [...houseStandards, ...standardStore.own]"
          :key="s.id"
          :value="s.id"
          :label="s.name"
          :title="s.tip"
        />
      </ElSelect>
      <ElSelect
        size="small"
        class="pick"
        :model-value="shared((s) => (s.played ? `${s.played.numerator}/${s.played.denominator}` : ''))"
        :placeholder="text.setPlayed"
        :aria-label="text.setPlayed"
        @update:model-value="played"
      >
        <ElOption
          v-for="r in rates"
          :key="r.id"
          :value="r.id"
          :label="r.name"
        />
      </ElSelect>
      <ElButton
        :data-tip="text.proposals.balanceTip"
        size="small"
        @click="emit('balance')"
      >
        {{ text.proposals.balance }}
      </ElButton>
      <ElButton
        :data-tip="text.copyTip"
        size="small"
        @click="emit('copy')"
      >
        {{ text.copy }}
      </ElButton>
      <ElButton
        v-if="copied"
        size="small"
        @click="emit('carry')"
      >
        {{ text.paste(copied.name) }}
      </ElButton>
      <ElButton
        v-if="copied && shots.some((s) => s.id !== copied?.id)"
        :data-tip="text.proposals.matchTip"
        size="small"
        @click="emit('match')"
      >
        {{ text.proposals.match(copied.name) }}
      </ElButton>
      <span
        v-if="inOrder"
        :data-tip="text.orderTip"
        class="pair"
      >
        <ElButton
          size="small"
          @click="emit('move', -1)"
        >
          {{ text.earlier }}
        </ElButton>
        <ElButton
          size="small"
          @click="emit('move', 1)"
        >
          {{ text.later }}
        </ElButton>
      </span>
      <ElButton
        v-if="shots.length === 1"
        :data-tip="text.cutTip"
        size="small"
        @click="emit('cut')"
      >
        {{ text.cut }}
      </ElButton>
      <ElButton
        v-if="joinable"
        :data-tip="text.joinTip"
        size="small"
        @click="emit('join')"
      >
        {{ text.join }}
      </ElButton>
      <ElButton
        v-if="shots.length > 1 && !linked"
        :data-tip="text.linkTip"
        size="small"
        @click="emit('link')"
      >
        {{ text.link }}
      </ElButton>
      <ElButton
        v-if="shots.some((s) => s.setup)"
        :data-tip="text.unlinkTip"
        size="small"
        @click="emit('unlink')"
      >
        {{ text.unlink }}
      </ElButton>
      <ElButton
        :data-tip="text.renderTip"
        size="small"
        @click="emit('render')"
      >
        {{ text.render }}
      </ElButton>
      <ElButton
        size="small"
        @click="sure = true"
      >
        {{ text.remove }}
      </ElButton>
    </template>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: var(--gap-small) var(--gap);
  min-height: 40px;
  padding: var(--gap-small) var(--gap);
  background: var(--panel);
  border-top: var(--line) solid var(--hairline);
  white-space: nowrap;
}
.bar :deep(.el-button + .el-button) {
  margin-left: 0;
}
.count {
  min-width: 9em;
}
.pick {
  width: 138px;
  flex: none;
}
.pick.narrow {
  width: 96px;
}
.pair {
  display: flex;
  gap: var(--gap-small);
}
</style>
