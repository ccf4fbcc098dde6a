<script setup lang="ts">
// The grade as a LUT file: format, size, what goes in and what comes out, what it cannot carry, and how near it is.
import { computed, ref, watch } from 'vue'
import DownloadLink from '../../components/DownloadLink.vue'
import {
  checkExport,
  defaultExport,
  exportSizes,
  type ExportFormat,
  type ExportInput,
  type ExportOutput,
  type ExportSettings,
} from '@core/bake'
import type { DifferenceReport } from '@core/grade'
import { request, sentenceOf } from '../../api/client'
import PlainSelect from '../../components/PlainSelect.vue'
import { text } from './text'

interface LutReport {
  readonly leftOut: readonly string[]
  readonly error: DifferenceReport
}

const props = defineProps<{ revisionId: string; frame: number }>()
const settings = ref<ExportSettings>(defaultExport)
const report = ref<LutReport | null>(null)
const fault = ref('')
const { options } = text.export
const sizes = computed(() =>
  exportSizes[settings.value.format].map((n) => ({ id: String(n), name: `${n} × ${n} × ${n}` })),
)
function set(change: Partial<ExportSettings>): void {
  const next = { ...settings.value, ...change }
  const fitting = exportSizes[next.format]
  settings.value = {
    ...next,
    size: fitting.includes(next.size) ? next.size : (fitting[1] ?? next.size),
    shaper: next.shaper && next.format !== 'hald',
    output: next.input === 'display' ? 'display' : next.output,
  }
}
const address = computed(() => {
  const query = new URLSearchParams({ frame: String(props.frame) })
  for (const [key, value] of Object.entries(settings.value)) query.set(key, String(value))
  return `/revisions/${props.revisionId}/lut?${query}`
})
watch(
  [address, () => props.revisionId],
  async ([asked]) => {
    report.value = null
    fault.value = ''
    if (!props.revisionId) return
    try {
      checkExport(settings.value)
      const measured = await request<LutReport>(`${asked}&report=only`)
      if (asked === address.value) report.value = measured
    } catch (error) {
      if (asked === address.value) fault.value = sentenceOf(error)
    }
  },
  { immediate: true },
)
</script>

<template>
  <section
    class="export"
    data-testid="lut-export"
  >
    <h2 class="caps">{{ text.lut }}</h2>
    <PlainSelect
      :label="text.export.input"
      :tip="text.export.inputTip"
      :options="options.input"
      :model-value="settings.input"
      @update:model-value="set({ input: $event as ExportInput })"
    />
    <PlainSelect
      v-if="settings.input !== 'display'"
      :label="text.export.output"
      :tip="text.export.outputTip"
      :options="options.output"
      :model-value="settings.output"
      @update:model-value="set({ output: $event as ExportOutput })"
    />
    <PlainSelect
      :label="text.export.format"
      :tip="text.export.formatTip"
      :options="options.format"
      :model-value="settings.format"
      @update:model-value="set({ format: $event as ExportFormat })"
    />
    <PlainSelect
      :label="text.entries"
      :tip="text.entriesTip"
      :options="sizes"
      :model-value="String(settings.size)"
      @update:model-value="set({ size: Number($event) })"
    />
    <PlainSelect
      v-if="settings.format !== 'hald'"
      :label="text.export.shaper"
      :tip="text.export.shaperTip"
      :options="options.shaper"
      :model-value="String(settings.shaper)"
      @update:model-value="set({ shaper: $event === 'true' })"
    />
    <PlainSelect
      :label="text.export.range"
      :tip="text.export.rangeTip"
      :options="options.range"
      :model-value="settings.range"
      @update:model-value="set({ range: $event === 'legal' ? 'legal' : 'full' })"
    />
    <p
      v-if="fault"
      role="alert"
      class="fault"
    >
      ▲ {{ fault }}
    </p>
    <p
      v-else-if="!report"
      class="quiet"
    >
      {{ text.measuring }}
    </p>
    <template v-else>
      <p data-testid="lut-carries">{{ report.leftOut.length ? text.leftOut(report.leftOut) : text.carried }}</p>
      <p
        class="quiet figures"
        data-testid="lut-error"
      >
        {{ text.error(report.error.measure, report.error.mean, report.error.percentile999, report.error.worst) }}
      </p>
    </template>
    <DownloadLink :href="`/api${address}`">
      {{ text.takeLut }}
    </DownloadLink>
  </section>
</template>

<style scoped>
.export {
  display: grid;
  gap: var(--gap-small);
  align-content: start;
  justify-items: start;
}
h2 {
  color: var(--ink-quiet);
  margin-bottom: var(--gap-small);
}
p {
  margin: 0;
}
.export :deep(.choice) {
  width: 100%;
  max-width: 380px;
}
.fault {
  color: var(--warning);
}
</style>
