<!-- Long: one list and the form that adds to it. -->

<script setup lang="ts">
// The list of encodings, those that ship and one's own, and the chosen one in detail.
import { computed, ref } from 'vue'
import { ElButton } from 'element-plus'
import { encodingFacts, encodingFromDefinition, encodings, type Encoding } from '@core/colour'
import { sentenceOf } from '../../api/client'
import { downloadJson } from '../../api/download'
import EmptyState from '../../components/EmptyState.vue'
import Notice from '../../components/Notice.vue'
import { useEncodings } from '../../stores/encodings'
import EncodingDetail from './EncodingDetail.vue'
import { text } from './text'

const encodingStore = useEncodings()
const fault = ref('')
/** The ways to an encoding of one's own. */
const ways = ['lookup', 'measure', 'estimate'] as const
const picker = ref<HTMLInputElement | null>(null)
const chosenId = ref(encodings[0]?.id ?? '')

interface Row {
  readonly encoding: Encoding
  readonly own: boolean
  readonly black: string
  readonly grey: string
  readonly white: string
  readonly reach: string
}
const rows = computed<readonly Row[]>(() => [
  ...encodings.map((encoding) => rowOf(encoding, false)),
  ...encodingStore.own.map((d) => rowOf(encodingFromDefinition(d), true)),
])
const chosen = computed(
  () => (rows.value.find((r) => r.encoding.id === chosenId.value) ?? rows.value[0])?.encoding ?? null,
)

function rowOf(encoding: Encoding, own: boolean): Row {
  const f = encodingFacts(encoding)
  return {
    encoding,
    own,
    black: f.blackCode.toFixed(0).replace('-', '−'),
    grey: f.greyCode.toFixed(0),
    white: f.white90Code.toFixed(0),
    reach: `+${f.stopsAboveGrey.toFixed(1)}`,
  }
}
function move(by: number): void {
  const at = rows.value.findIndex((r) => r.encoding.id === chosen.value?.id)
  const next = rows.value[Math.min(rows.value.length - 1, Math.max(0, at + by))]
  if (next) chosenId.value = next.encoding.id
}
async function remove(id: string): Promise<void> {
  await encodingStore.remove(id).catch((error: unknown) => {
    fault.value = sentenceOf(error)
  })
}
async function picked(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  await encodingStore.importFile(file).catch((error: unknown) => {
    fault.value = `${file.name}: ${error instanceof SyntaxError ? 'this is not readable JSON.' : sentenceOf(error)}`
  })
}
const exportOwn = (): void =>
  downloadJson('encodings', { kind: 'pale-meridian-encodings', version: 1, encodings: encodingStore.own })
</script>

<template>
  <div class="encodings">
    <section class="list">
      <div class="scroll">
        <table>
          <thead>
            <tr class="caps">
              <th>{{ text.list.name }}</th>
              <th
                :data-tip="text.list.codesTip"
                class="n"
              >
                {{ text.list.black }}
              </th>
              <th
                :data-tip="text.list.codesTip"
                class="n"
              >
                {{ text.list.grey }}
              </th>
              <th
                :data-tip="text.list.codesTip"
                class="n"
              >
                {{ text.list.white }}
              </th>
              <th
                :data-tip="text.list.reachTip"
                class="n"
              >
                {{ text.list.reach }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="r in rows"
              :key="r.encoding.id"
              :class="{ here: r.encoding.id === chosen?.id }"
              @click="chosenId = r.encoding.id"
            >
              <td>
                <button
                  type="button"
                  class="name"
                  :aria-pressed="r.encoding.id === chosen?.id"
                  @click.stop="chosenId = r.encoding.id"
                  @keydown.down.prevent="move(1)"
                  @keydown.up.prevent="move(-1)"
                >
                  {{ r.encoding.name }}
                </button>
                <button
                  v-if="r.own"
                  type="button"
                  class="remove"
                  @click.stop="remove(r.encoding.id)"
                >
                  {{ text.list.remove }}
                </button>
              </td>
              <td class="n figures">{{ r.black }}</td>
              <td class="n figures">{{ r.grey }}</td>
              <td class="n figures">{{ r.white }}</td>
              <td class="n figures">{{ r.reach }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <EmptyState
        v-if="encodingStore.own.length === 0"
        :hint="text.list.none"
      >
        <RouterLink
          v-for="part in ways"
          :key="part"
          class="button"
          :to="{ name: 'cameras', params: { part }, query: $route.query }"
        >
          {{ text.parts[part] }}
        </RouterLink>
      </EmptyState>
      <div class="actions">
        <input
          ref="picker"
          class="visually-hidden"
          type="file"
          accept=".json,application/json"
          tabindex="-1"
          aria-label="File of encodings"
          @change="picked"
        />
        <ElButton
          size="small"
          @click="picker?.click()"
        >
          {{ text.list.import }}
        </ElButton>
        <ElButton
          size="small"
          :disabled="encodingStore.own.length === 0"
          @click="exportOwn"
        >
          {{ text.list.export }}
        </ElButton>
      </div>
      <Notice
        :text="fault"
        @close="fault = ''"
      />
    </section>
    <EncodingDetail
      v-if="chosen"
      :encoding="chosen"
    />
  </div>
</template>

<style scoped>
.encodings {
  display: grid;
  grid-template-columns: 400px minmax(0, 1fr);
  gap: var(--gap-broad);
  min-height: 0;
}
.list {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto auto auto;
  gap: var(--gap);
  min-height: 0;
}
.scroll {
  overflow-y: auto;
  min-height: 0;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--ink-quiet);
  position: sticky;
  top: 0;
  background: var(--surround);
  padding: var(--gap-small) var(--gap);
}
td {
  padding: 1px var(--gap);
  border-bottom: var(--line) solid var(--raised);
}
.n {
  text-align: right;
}
tbody tr {
  cursor: pointer;
}
tbody tr:hover {
  background: var(--veil);
}
tbody tr.here {
  background: var(--panel);
  box-shadow: inset 2px 0 var(--accent);
}
.name,
.remove {
  background: none;
  border: 0;
  padding: 2px 0;
  text-align: left;
}
.remove {
  float: right;
  color: var(--ink-quiet);
  font-size: var(--text-small);
  text-decoration: underline;
}
.actions {
  display: flex;
  gap: var(--gap);
}
p {
  margin: 0;
}
</style>
