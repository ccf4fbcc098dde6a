<!-- Long: one form: a standard with its readings and their targets. -->

<script setup lang="ts">
// Standards: the schools that ship, the user's own, their targets in numbers and as a picture.
import { cutTo } from '@core/names'
import { useFileDialog } from '@vueuse/core'
import { ElButton } from 'element-plus'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { same } from '@core/grade'
import {
  defaultStandardId,
  houseStandards,
  isShippedStandard,
  readingKind,
  type HouseStandard,
  type ReadingId,
  type Targets,
} from '@core/readings'
import { sentenceOf } from '../../api/client'
import { downloadJson } from '../../api/download'
import AppHeader from '../../components/AppHeader.vue'
import Notice from '../../components/Notice.vue'
import { useOpenShot } from '../../stores/open-shot'
import { useStandards } from '../../stores/standards'
import TargetPicture from './TargetPicture.vue'
import TargetTable from './TargetTable.vue'
import { text } from './text'

const props = defineProps<{ standardId: string }>()
const standardStore = useStandards()
const openShot = useOpenShot()
const router = useRouter()
const fault = ref('')
const sure = ref(false)
void standardStore.load().catch((error: unknown) => {
  fault.value = sentenceOf(error)
})

const chosen = computed(() => standardStore.byId(props.standardId || defaultStandardId))
const fixed = computed(() => isShippedStandard(chosen.value.id))
/** What is being changed; what is stored stays until it is saved. */
const draft = shallowRef<HouseStandard>(chosen.value)
watch(
  chosen,
  (now, before) => {
    sure.value = false
    // What is being changed is not lost where the stored one was changed elsewhere.
    if (before?.id === now.id && !same(draft.value, before) && !same(draft.value, now)) return
    draft.value = now
  },
  { immediate: true },
)
const changed = computed(() => !same(draft.value, chosen.value))
const disorder = computed(
  () => Object.entries(draft.value.targets).find(([, t]) => t.low > t.high)?.[0] as ReadingId | undefined,
)
const show = (id: string): void => void router.push({ name: 'standards', params: { standardId: id } })

async function act(work: () => Promise<void>): Promise<void> {
  fault.value = ''
  try {
    await work()
  } catch (error) {
    fault.value = error instanceof SyntaxError ? text.badFile : sentenceOf(error)
  }
}
const freeId = (): string => {
  for (let n = 1; ; n++) {
    const id = `own-${n}`
    if (!standardStore.own.some((s) => s.id === id)) return id
  }
}
const copy = (): Promise<void> =>
  act(async () => {
    const own = { ...chosen.value, id: freeId(), name: cutTo(text.copyName(chosen.value.name), 60) }
    await standardStore.keep(own)
    show(own.id)
  })
const save = (): Promise<void> => act(() => standardStore.keep(draft.value))
const remove = (): Promise<void> =>
  act(async () => {
    if (!sure.value) return void (sure.value = true)
    await standardStore.remove(chosen.value.id)
    show(defaultStandardId)
  })
function exportOne(): void {
  // Standards that ship are exported under an id of one's own, so that they can be imported anywhere.
  const standard = fixed.value ? { ...chosen.value, id: `own-${chosen.value.id}` } : chosen.value
  downloadJson(chosen.value.name, { kind: 'pale-meridian-standards', version: 1, standards: [standard] })
}
const files = useFileDialog({ accept: '.json,application/json', multiple: false, reset: true })
files.onChange((list) => {
  const file = list?.[0]
  if (file) void act(() => standardStore.importFile(file))
})
const setTargets = (targets: Targets): void => {
  draft.value = { ...draft.value, targets }
}
const groups = computed(() => [
  { name: text.shipped, list: houseStandards },
  ...(standardStore.own.length > 0 ? [{ name: text.own, list: standardStore.own }] : []),
])
</script>

<template>
  <div class="standards">
    <AppHeader
      :project="openShot.shot ? { id: openShot.shot.projectId, name: openShot.shot.projectName } : undefined"
      :shot="openShot.shot"
    />
    <div>
      <Notice
        :text="fault"
        @close="fault = ''"
      />
    </div>
    <main>
      <nav :aria-label="text.title">
        <h1>{{ text.title }}</h1>
        <p class="quiet">{{ text.about }}</p>
        <template
          v-for="g in groups"
          :key="g.name"
        >
          <h2 class="caps quiet">{{ g.name }}</h2>
          <ul>
            <li
              v-for="s in g.list"
              :key="s.id"
            >
              <button
                type="button"
                :aria-current="s.id === chosen.id"
                :title="s.tip"
                @click="show(s.id)"
              >
                {{ s.name }}
              </button>
            </li>
          </ul>
        </template>
        <ElButton
          size="small"
          @click="files.open()"
        >
          {{ text.importFile }}
        </ElButton>
      </nav>
      <section :aria-label="draft.name">
        <header>
          <input
            v-if="!fixed"
            class="field title"
            :value="draft.name"
            maxlength="60"
            :aria-label="text.name"
            @input="draft = { ...draft, name: ($event.target as HTMLInputElement).value }"
          />
          <h2
            v-else
            class="title"
          >
            {{ draft.name }}
          </h2>
          <span
            class="state quiet"
            role="status"
          >
            {{
              fixed
                ? text.fixed
                : disorder
                  ? text.badOrder(readingKind(disorder).name)
                  : changed
                    ? text.changed
                    : text.saved
            }}
          </span>
          <template v-if="!fixed">
            <ElButton
              size="small"
              :disabled="!changed || disorder !== undefined || draft.name.trim() === ''"
              @click="save"
            >
              {{ text.save }}
            </ElButton>
            <ElButton
              size="small"
              :disabled="!changed"
              @click="draft = chosen"
            >
              {{ text.revert }}
            </ElButton>
            <ElButton
              size="small"
              @click="remove"
            >
              {{ sure ? text.sureRemove : text.remove }}
            </ElButton>
          </template>
          <ElButton
            size="small"
            @click="copy"
          >
            {{ text.copy }}
          </ElButton>
          <ElButton
            size="small"
            @click="exportOne"
          >
            {{ text.exportOne }}
          </ElButton>
        </header>
        <input
          v-if="!fixed"
          class="field tip"
          :value="draft.tip"
          maxlength="200"
          :aria-label="text.tip"
          @input="draft = { ...draft, tip: ($event.target as HTMLInputElement).value }"
        />
        <p v-else>{{ draft.tip }}</p>
        <div class="both">
          <TargetTable
            :targets="draft.targets"
            :fixed="fixed"
            @change="setTargets"
          />
          <aside>
            <h3 class="caps quiet">{{ text.picture }}</h3>
            <TargetPicture :targets="draft.targets" />
          </aside>
        </div>
      </section>
    </main>
  </div>
</template>

<style scoped>
.standards {
  height: 100%;
  display: grid;
  grid-template-rows: auto auto 1fr;
}
main {
  display: grid;
  grid-template-columns: 230px 1fr;
  min-height: 0;
}
nav {
  padding: var(--gap-wide);
  border-right: var(--line) solid var(--hairline);
  overflow: auto;
}
h1 {
  font-size: var(--text-title);
}
nav h2 {
  margin: var(--gap-wide) 0 var(--gap-small);
  font-weight: 400;
}
ul {
  list-style: none;
  margin: 0 0 var(--gap);
  padding: 0;
}
li button {
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  border-left: 2px solid transparent;
  padding: var(--gap-small) var(--gap);
  min-height: 28px;
}
li button:hover {
  background: var(--veil);
}
li button[aria-current='true'] {
  border-left-color: var(--accent);
  background: var(--panel);
}
section {
  padding: var(--gap-wide);
  overflow: auto;
  background: var(--panel);
}
header {
  display: flex;
  align-items: center;
  gap: var(--gap);
}
header .el-button {
  margin: 0;
}
.title {
  font-size: var(--text-large);
  font-weight: 500;
}
.state {
  flex: 1;
  text-align: right;
}
input.tip {
  width: 100%;
  margin: var(--gap) 0;
}
.both {
  display: grid;
  grid-template-columns: minmax(max-content, 1.6fr) minmax(0, 1fr);
  gap: var(--gap-broad);
}
aside h3 {
  font-weight: 400;
  margin: var(--gap-small) 0 var(--gap);
}
</style>
