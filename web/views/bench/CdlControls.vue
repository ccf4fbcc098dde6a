<script setup lang="ts">
// The decision list of a grade: slope, offset, power and saturation, read from and written to the field's files.
import { ref } from 'vue'
import { parseCdl, printCdl, type CdlFileKind } from '@core/formats'
import { cdlOf, type CdlNumbers, type Step } from '@core/grade'
import { download } from '../../api/download'
import { text } from './text'

const props = defineProps<{ cdl: Step | null; shotName: string }>()
const emit = defineEmits<{ cdl: [cdl: CdlNumbers, from: string]; noCdl: [] }>()
const fault = ref('')
const picker = ref<HTMLInputElement | null>(null)
async function read(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  try {
    if (file.size > 4 * 1024 * 1024) throw new Error('The file is larger than 4 MB: that is no colour decision list.')
    const found = parseCdl(await file.text())
    const own = found.find((c) => c.id === props.shotName) ?? found[0]
    if (!own) throw new Error('The file holds no correction.')
    fault.value = found.length > 1 ? text.look.cdlMany(found.length, own.id) : ''
    emit('cdl', own.cdl, `${file.name}: ${own.id}`)
  } catch (error) {
    fault.value = `▲ ${file.name}: ${error instanceof Error ? error.message : String(error)}`
  }
}
function write(kind: CdlFileKind): void {
  if (!props.cdl) return
  const printed = printCdl([{ id: props.shotName, cdl: cdlOf(props.cdl.params) }], kind)
  download(props.shotName, kind, printed, 'application/xml')
}
const cdlWords = (step: Step): string => {
  const { slope, offset, power, saturation } = cdlOf(step.params)
  const row = (v: readonly number[]): string => v.map((n) => n.toFixed(3)).join(' ')
  return text.look.cdlNumbers(row(slope), row(offset), row(power), saturation.toFixed(2))
}
</script>

<template>
  <div class="cdl">
    <input
      ref="picker"
      class="visually-hidden"
      type="file"
      accept=".cc,.ccc,.cdl,application/xml"
      tabindex="-1"
      :aria-label="text.look.cdlFile"
      @change="read"
    />
    <button
      :data-tip="text.look.cdlTip"
      type="button"
      class="button"
      @click="picker?.click()"
    >
      {{ text.look.cdlImport }}
    </button>
    <template v-if="cdl">
      <button
        v-for="kind in ['cc', 'ccc', 'cdl'] as const"
        :key="kind"
        type="button"
        class="button"
        @click="write(kind)"
      >
        {{ text.look.cdlExport(kind) }}
      </button>
      <button
        type="button"
        class="button"
        @click="emit('noCdl')"
      >
        {{ text.look.cdlRemove }}
      </button>
      <span
        class="figures quiet"
        data-testid="cdl"
      >
        {{ cdlWords(cdl) }}
      </span>
    </template>
    <span
      v-if="fault"
      role="alert"
      class="fault"
    >
      {{ fault }}
    </span>
  </div>
</template>

<style scoped>
.cdl {
  display: flex;
  gap: var(--gap-small);
  align-items: center;
  flex-wrap: wrap;
  font-size: 11px;
  align-content: start;
}
.fault {
  color: var(--warning);
}
</style>
