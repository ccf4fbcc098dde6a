<script setup lang="ts">
// The LUTs that are kept, by folder; and bringing in more.
import { computed, ref } from 'vue'
import { ElButton } from 'element-plus'
import { lutExtensions } from '@core/formats'
import { ElProgress } from 'element-plus'
import type { LutSummary } from '@contracts/responses'
import { useLuts } from '../../stores/luts'
import { text } from './text'
import { useBringing } from './useBringing'

const accept = lutExtensions.map((e) => `.${e}`).join(',')
const props = defineProps<{ chosen: string }>()
const emit = defineEmits<{ choose: [hash: string] }>()
const lutStore = useLuts()
const find = ref('')
const files = ref<HTMLInputElement | null>(null)
const folder = ref<HTMLInputElement | null>(null)
const bringing = useBringing()
const groups = computed(() => {
  const wanted = find.value.trim().toLowerCase()
  const byFolder = new Map<string, LutSummary[]>()
  for (const lut of lutStore.all)
    if (`${lut.folder} ${lut.name} ${lut.title}`.toLowerCase().includes(wanted))
      byFolder.set(lut.folder, [...(byFolder.get(lut.folder) ?? []), lut])
  return [...byFolder]
})
async function picked(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  const before = props.chosen
  input.value = ''
  const last = await bringing.bring(files)
  // Unless another was chosen meanwhile.
  if (last !== null && props.chosen === before) emit('choose', last)
}
defineExpose({ pickFiles: () => files.value?.click(), pickFolder: () => folder.value?.click() })
const kindOf = (lut: LutSummary): string => (lut.expects ? text.kinds[lut.expects.kind] : text.kinds.unknown)
</script>

<template>
  <section
    class="list"
    :aria-label="text.title"
  >
    <div class="bar">
      <input
        ref="files"
        class="visually-hidden"
        type="file"
        multiple
        :accept="accept"
        tabindex="-1"
        aria-label="LUT files"
        @change="picked"
      />
      <input
        ref="folder"
        class="visually-hidden"
        type="file"
        webkitdirectory
        tabindex="-1"
        aria-label="LUT folder"
        @change="picked"
      />
      <ElButton
        :data-tip="text.filesTip"
        size="small"
        @click="files?.click()"
      >
        {{ text.files }}
      </ElButton>
      <ElButton
        :data-tip="text.folderTip"
        size="small"
        @click="folder?.click()"
      >
        {{ text.folder }}
      </ElButton>
    </div>
    <div
      v-if="bringing.total.value > 1"
      class="progress"
    >
      <ElProgress
        :percentage="Math.floor((100 * bringing.done.value) / bringing.total.value)"
        :stroke-width="6"
        :show-text="false"
        :aria-label="text.bringing(bringing.done.value, bringing.total.value)"
      />
      <span class="figures">{{ text.bringing(bringing.done.value, bringing.total.value) }}</span>
      {{ ' ' }}
      <button
        type="button"
        @click="bringing.stop"
      >
        {{ text.stop }}
      </button>
    </div>
    <details
      v-if="bringing.refused.value.length"
      class="refused"
      role="alert"
      open
    >
      <summary>▲ {{ text.refused(bringing.refused.value.length) }}</summary>
      <p
        v-for="r in bringing.refused.value.slice(0, 50)"
        :key="r"
      >
        {{ r }}
      </p>
    </details>
    <input
      v-model="find"
      class="find"
      :placeholder="text.filter"
      :aria-label="text.filter"
    />
    <div
      class="scroll"
      tabindex="-1"
    >
      <template
        v-for="[name, luts] in groups"
        :key="name"
      >
        <h2 class="caps">
          {{ name || text.alone }}
          <span class="figures quiet">{{ luts.length }}</span>
        </h2>
        <button
          v-for="l in luts"
          :key="l.hash"
          type="button"
          class="row"
          :aria-pressed="l.hash === chosen"
          :data-lut="l.name"
          @click="emit('choose', l.hash)"
        >
          <span class="name">{{ l.name }}</span>
          <span class="figures quiet">
            {{ l.dimensions === 'sequence' ? text.sizes.sequence : text.sizes.d(l.dimensions) }} {{ l.size }}
          </span>
          <span class="kind quiet">{{ kindOf(l) }}</span>
        </button>
      </template>
    </div>
  </section>
</template>

<style scoped>
.list {
  display: grid;
  grid-template-rows: auto auto auto auto 1fr;
  gap: var(--gap-small);
  min-height: 0;
}
.scroll {
  grid-row: 5;
  overflow: auto;
  min-height: 0;
}
.bar {
  display: flex;
  gap: var(--gap-small);
}
.find {
  background: var(--well);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 0 var(--gap);
  min-height: var(--control);
}
.progress {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: var(--gap-small);
  align-items: center;
  font-size: 11px;
}
.refused {
  color: var(--warning);
  font-size: 12px;
  max-height: 120px;
  overflow: auto;
}
.refused p {
  margin: 2px 0;
  color: var(--ink);
}
h2 {
  font-weight: 400;
  color: var(--ink-quiet);
  margin: var(--gap) 0 2px;
  position: sticky;
  top: 0;
  background: var(--surround);
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 52px 76px;
  gap: var(--gap-small);
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  border-bottom: var(--line) solid var(--panel);
  min-height: 25px;
  padding: 3px 4px;
  font-size: 12px;
  align-items: baseline;
}
.row:hover {
  background: var(--veil);
}
.row[aria-pressed='true'] {
  color: var(--accent);
  box-shadow: inset 2px 0 var(--accent);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.progress button {
  background: none;
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
}
</style>
