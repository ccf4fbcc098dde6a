<script setup lang="ts">
// All keys, inline over the lower part of the Bench; each can be changed.
import { onMounted, ref, useTemplateRef } from 'vue'
import { ElButton } from 'element-plus'
import { commandGroups, commands, type CommandId } from '../../commands/declared'
import { keyOf } from '../../commands/key-names'
import { sentenceOf } from '../../api/client'
import { download } from '../../api/download'
import { useKeys } from '../../stores/keys'
import { text } from './text'

const emit = defineEmits<{ close: [] }>()
const keys = useKeys()
const done = useTemplateRef('done')
const file = useTemplateRef('file')
/** The command whose new key is waited for. */
const asked = ref<CommandId | null>(null)
const said = ref('')
onMounted(() => done.value?.focus())

const groups = commandGroups.map((group) => ({ group, list: commands.filter((c) => c.group === group) }))
const nameOf = (id: CommandId): string => commands.find((c) => c.id === id)?.name ?? ''

function press(event: KeyboardEvent): void {
  const id = asked.value
  if (!id) {
    if (event.key === 'Escape') {
      event.stopPropagation()
      emit('close')
    }
    return
  }
  const key = keyOf(event)
  if (key === null) return
  event.preventDefault()
  event.stopPropagation()
  asked.value = null
  // Escape alone leaves things as they are.
  if (key === 'Esc') return
  try {
    const lost = keys.choose(id, key)
    said.value = lost ? text.keys.lost(key, nameOf(id), nameOf(lost)) : text.keys.given(key, nameOf(id))
  } catch (error) {
    said.value = sentenceOf(error)
  }
}
const exportKeys = (): void => download('keys', 'json', keys.exported(), 'application/json')
async function upload(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const [chosen] = input.files ?? []
  if (!chosen) return
  try {
    said.value = text.keys.imported(keys.imported(await chosen.text()))
  } catch {
    said.value = text.keys.notKeys(chosen.name)
  }
  input.value = ''
}
function reset(): void {
  keys.reset()
  said.value = text.keys.reset
}
</script>

<template>
  <section
    class="sheet"
    :aria-label="text.keys.title"
    @keydown="press"
  >
    <div class="bar">
      <span
        class="quiet"
        role="status"
      >
        {{ asked ? text.keys.press(nameOf(asked)) : said || text.keys.hint }}
      </span>
      <ElButton
        size="small"
        @click="exportKeys"
      >
        {{ text.keys.export }}
      </ElButton>
      <ElButton
        size="small"
        @click="file?.click()"
      >
        {{ text.keys.import }}
      </ElButton>
      <ElButton
        size="small"
        :disabled="!keys.isChanged"
        @click="reset"
      >
        {{ text.keys.default }}
      </ElButton>
      <RouterLink
        class="glossary"
        :to="{ name: 'glossary' }"
        target="_blank"
      >
        {{ text.keys.glossary }}
      </RouterLink>
      <input
        ref="file"
        class="visually-hidden"
        type="file"
        accept="application/json,.json"
        tabindex="-1"
        :aria-label="text.keys.file"
        @change="upload"
      />
      <button
        ref="done"
        type="button"
        class="close"
        @click="emit('close')"
      >
        {{ text.keys.close }}
      </button>
    </div>
    <div class="groups">
      <div
        v-for="{ group, list } in groups"
        :key="group"
        class="group"
      >
        <h2 class="caps">{{ group }}</h2>
        <ul>
          <li
            v-for="{ id, name } in list"
            :key="id"
          >
            <button
              type="button"
              class="figures"
              :class="{ asked: asked === id }"
              :aria-label="text.keys.change(name, keys.keys[id])"
              @click="asked = asked === id ? null : id"
            >
              {{ asked === id ? '…' : keys.keys[id] || '–' }}
            </button>
            <span>{{ name }}</span>
          </li>
        </ul>
      </div>
      <div class="group">
        <h2 class="caps">{{ text.keys.always }}</h2>
        <ul>
          <li
            v-for="[key, what] in text.keys.fixed"
            :key="key"
          >
            <span class="figures key">{{ key }}</span>
            <span>{{ what }}</span>
          </li>
        </ul>
      </div>
    </div>
  </section>
</template>

<style scoped>
.sheet {
  position: absolute;
  inset: auto 0 0 0;
  z-index: 5;
  background: var(--panel);
  border-top: var(--line) solid var(--accent);
  padding: var(--gap) var(--gap-broad) var(--gap-wide);
  display: grid;
  gap: var(--gap);
}
.bar {
  display: flex;
  gap: var(--gap);
  align-items: center;
}
.bar > .quiet {
  flex: 1;
}
.bar :deep(.el-button + .el-button) {
  margin-left: 0;
}
.close {
  background: none;
  border: var(--line) solid var(--hairline-strong);
  border-radius: var(--radius);
  min-height: var(--control);
}
.groups {
  columns: 4 240px;
  column-gap: var(--gap-broad);
}
.group {
  break-inside: auto;
  margin-bottom: var(--gap);
}
h2 {
  color: var(--ink-quiet);
  margin: 0 0 var(--gap-small);
  font-weight: 400;
  break-after: avoid;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 104px 1fr;
  gap: var(--gap);
  align-items: center;
  min-height: 25px;
  break-inside: avoid;
}
li button,
.key {
  color: var(--accent);
  text-align: left;
}
li button {
  background: none;
  border: var(--line) solid transparent;
  border-radius: var(--radius);
  padding: 0 var(--gap-small);
  min-height: 24px;
}
.key {
  padding: 0 var(--gap-small);
}
li button:hover,
li button.asked {
  border-color: var(--accent);
}
</style>
