<!-- Long: the parts of the Reel meet here: filter, order and selection are shared by all. -->

<script setup lang="ts">
// The Reel: every shot of a project with its lead frame as shot and as graded; footage comes in here, and many shots
// change at once.
import { useEventListener, useStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ElButton } from 'element-plus'
import { FolderOpen, LayoutGrid, Plus, Rows3 } from '@lucide/vue'
import { checked } from '@contracts/check'
import { NewRender, type ShotChanges } from '@contracts/requests'
import type { ShotSummary } from '@contracts/responses'
import { post } from '../../api/client'
import AppHeader from '../../components/AppHeader.vue'
import EmptyState from '../../components/EmptyState.vue'
import { askedLike, isAsked } from '../../components/first-reading/asked'
import FirstReading from '../../components/first-reading/FirstReading.vue'
import ProposalsPanel from '../../components/proposals/ProposalsPanel.vue'
import Notice from '../../components/Notice.vue'
import SegmentedChoice from '../../components/SegmentedChoice.vue'
import { useAttempt } from '../../composables/useAttempt'
import { useBroughtFiles } from '../../stores/brought-files'
import { useProposals } from '../../stores/proposals'
import { useReel } from '../../stores/reel'
import { useStandards } from '../../stores/standards'
import CarryPanel from './CarryPanel.vue'
import ContactSheet from './ContactSheet.vue'
import FileFacts from './FileFacts.vue'
import ImportList from './ImportList.vue'
import LibraryBrowser from './LibraryBrowser.vue'
import SceneList, { type SceneChoice } from './SceneList.vue'
import SelectionBar from './SelectionBar.vue'
import { fits, sorted, type SortKey } from './shot-facts'
import ShotTable from './ShotTable.vue'
import { text } from './text'
import { filesOfDrop, useFootageImport } from './useFootageImport'
import { useReelWork } from './useReelWork'
import { useSelection } from './useSelection'
import { useStandings } from '../../composables/useStandings'

const props = defineProps<{ projectId: string }>()
const { fault, attempt } = useAttempt()
const reelStore = useReel()
const standardStore = useStandards()
const proposals = useProposals()
const router = useRouter()
const over = ref(false)
const browsing = ref(useRoute().query['from'] === 'media-folder')
const words = ref('')
const picker = ref<HTMLInputElement | null>(null)
const scene = ref<SceneChoice>('all')
const sortBy = ref<SortKey>('position')
const downward = ref(false)
const layout = useStorage<'table' | 'sheet'>('reel-layout', 'table')
const layouts = [
  { value: 'table', name: text.table, icon: Rows3 },
  { value: 'sheet', name: text.sheet, icon: LayoutGrid },
] as const
const sheetColumns = ref(1)
const copied = ref<ShotSummary | null>(null)
const carrying = ref(false)

const all = computed(() => (reelStore.current?.project.id === props.projectId ? reelStore.current.shots : []))
const standings = useStandings(
  () => all.value,
  (id) => standardStore.byId(id),
)
const shots = computed(() =>
  sorted(
    all.value.filter((s) => (scene.value === 'all' || s.sceneId === scene.value) && fits(s, words.value)),
    sortBy.value,
    downward.value,
    standings.value,
  ),
)
const selection = useSelection(() => shots.value.map((s) => s.id))
const chosen = computed(() => shots.value.filter((s) => selection.chosen.value.has(s.id)))
/** The one chosen shot, where its original is linked. */
const moved = computed(() => {
  const [only, ...others] = chosen.value
  if (!only?.media.linked || others.length > 0) return null
  return { name: only.name, hash: only.media.hash, pictures: only.media.kind === 'pictures' }
})
/** A chosen shot that is asked about, or the first of those shown. */
const askedShot = computed(() => chosen.value.find(isAsked) ?? shots.value.find(isAsked) ?? null)
const inOrder = computed(() => sortBy.value === 'position' && !downward.value)

const load = (): Promise<void> =>
  attempt(async () => {
    await Promise.all([reelStore.load(props.projectId), standardStore.load()])
  })
const work = useReelWork(
  () => props.projectId,
  () => void load(),
)
const brought = useBroughtFiles()
const imports = useFootageImport(
  () => props.projectId,
  () => void work.refresh(true),
)
watch(
  () => props.projectId,
  () => {
    scene.value = 'all'
    void load()
    imports.add(brought.take(props.projectId))
  },
  { immediate: true },
)

function sort(key: SortKey): void {
  downward.value = sortBy.value === key ? !downward.value : false
  sortBy.value = key
}
function picked(event: Event): void {
  const input = event.target as HTMLInputElement
  imports.add([...(input.files ?? [])])
  input.value = ''
}
/** Shots dragged within the page; files come from outside. */
let dragged: readonly string[] = []
async function dropped(event: DragEvent): Promise<void> {
  over.value = false
  if (event.dataTransfer && event.dataTransfer.types.includes('Files'))
    imports.add(await filesOfDrop(event.dataTransfer))
}
function drag(id: string, event: DragEvent): void {
  if (!selection.chosen.value.has(id)) selection.press(id, { shiftKey: false, ctrlKey: false, metaKey: false })
  dragged = selection.ids.value
  event.dataTransfer?.setData('text/plain', `${dragged.length} shots`)
}
const open = (shot: ShotSummary): void => void router.push({ name: 'bench', params: { shotId: shot.id } })
const change = (what: Omit<ShotChanges, 'shotIds'>, ids: readonly string[] = selection.ids.value): void =>
  void attempt(() => reelStore.changeShots({ shotIds: [...ids], ...what }))
const putInScene = (id: string | null): void => change({ scene: id === null ? {} : { id } }, dragged)
const setIntent = (sceneId: string, words: string): void => void attempt(() => reelStore.setIntent(sceneId, words))

/** The reel as it is numbered, not as it is filtered. */
function move(by: -1 | 1): void {
  const order = all.value.map((s) => s.id)
  const moving = new Set(selection.ids.value)
  const places = order.flatMap((id, i) => (moving.has(id) ? [i] : []))
  const edge = by < 0 ? (places[0] ?? 0) - 1 : (places.at(-1) ?? order.length) + 2
  if (places.length === 0 || edge < 0 || edge > order.length) return
  const beforeId = order.slice(edge).find((id) => !moving.has(id))
  void attempt(() =>
    reelStore.moveShots(props.projectId, {
      shotIds: order.filter((id) => moving.has(id)),
      ...(beforeId ? { beforeId } : {}),
    }),
  )
}
function dropBefore(id: string): void {
  if (!inOrder.value || dragged.length === 0 || dragged.includes(id)) return
  void attempt(() => reelStore.moveShots(props.projectId, { shotIds: [...dragged], beforeId: id }))
}

useEventListener(window, 'keydown', (event) => {
  const target = event.target as HTMLElement
  if (target.closest('input, textarea, .el-select, .el-popper')) return
  const step = layout.value === 'sheet' ? sheetColumns.value : 1
  const steps: Record<string, number> = {
    ArrowDown: step,
    ArrowUp: -step,
    PageDown: 8 * step,
    PageUp: -8 * step,
    Home: -1e6,
    End: 1e6,
    ...(layout.value === 'sheet' ? { ArrowRight: 1, ArrowLeft: -1 } : {}),
  }
  const by = steps[event.key]
  if (by !== undefined) {
    if (event.altKey && Math.abs(by) === step) move(by < 0 ? -1 : 1)
    else selection.step(by, event.shiftKey)
  } else if (event.key === 'a' && (event.ctrlKey || event.metaKey)) selection.all()
  else if (event.key === 'Escape') selection.none()
  else if (target.closest('button, a')) return
  else if (event.key === 'Enter') {
    const shot = shots.value.find((s) => s.id === selection.cursor.value)
    if (shot) open(shot)
  } else if (event.key === ' ') selection.toggle()
  else return
  event.preventDefault()
})

function showAll(): void {
  words.value = ''
  scene.value = 'all'
}

async function renderChosen(): Promise<void> {
  const [first] = chosen.value
  if (!first) return
  for (const { headId: revisionId } of chosen.value) await post('/renders', checked(NewRender, { revisionId }))
  await router.push({ name: 'dispatch', params: { shotId: first.id } })
}
</script>

<template>
  <div
    class="page"
    :class="{ over }"
    @dragover.prevent="over = $event.dataTransfer?.types.includes('Files') ?? false"
    @dragleave.self="over = false"
    @drop.prevent="dropped"
  >
    <AppHeader :project="reelStore.current?.project" />
    <main class="reel">
      <div class="top">
        <h1>{{ text.title }}</h1>
        <input
          :data-tip="text.filterTip"
          v-model="words"
          type="search"
          class="filter"
          :placeholder="text.filter"
          :aria-label="text.filter"
        />
        <SegmentedChoice
          v-model="layout"
          :label="text.layout"
          :options="layouts"
        />
        <span class="quiet hint">
          {{ work.surveys.value.length ? text.surveys(work.surveys.value.length) : text.drop }}
        </span>
        <input
          ref="picker"
          class="visually-hidden"
          type="file"
          multiple
          tabindex="-1"
          aria-label="Footage files"
          @change="picked"
        />
        <ElButton
          :icon="FolderOpen"
          @click="browsing = !browsing"
        >
          {{ text.fromServer }}
        </ElButton>
        <ElButton
          :icon="Plus"
          @click="picker?.click()"
        >
          {{ text.add }}
        </ElButton>
      </div>
      <Notice
        :text="fault"
        @close="fault = ''"
      />
      <LibraryBrowser
        v-if="browsing"
        :moved="moved"
        @close="browsing = false"
        @again="(path) => attempt(() => imports.linkAgain(path, moved))"
        @link="(path, pictures) => attempt(() => imports.link(path, pictures))"
      />
      <FirstReading
        v-if="askedShot"
        :shot="askedShot"
        :like-it="askedLike(askedShot, all)"
        named
        @settle="change"
      />
      <ImportList
        :uploads="imports.running.value"
        :work="work.shown.value"
        @resume="imports.resume"
        @cancel-upload="imports.cancel"
        @end="(id) => attempt(() => work.end(id))"
      />
      <EmptyState
        v-if="reelStore.current && all.length === 0"
        class="begin"
        :title="text.empty"
        :hint="text.emptyHint"
      >
        <ElButton
          type="primary"
          :icon="Plus"
          @click="picker?.click()"
        >
          {{ text.add }}
        </ElButton>
        <ElButton
          :icon="FolderOpen"
          @click="browsing = true"
        >
          {{ text.fromServer }}
        </ElButton>
      </EmptyState>
      <div
        v-if="reelStore.current && all.length"
        class="body"
      >
        <SceneList
          :project-id="projectId"
          :scenes="reelStore.current.scenes"
          :defaults="reelStore.current.defaults"
          :shots="all"
          :shown="scene"
          :can-make="chosen.length > 0"
          @show="scene = $event"
          @put="putInScene"
          @make="change({ scene: { name: $event } })"
          @intent="setIntent"
          @fault="fault = $event"
          @attempt="attempt"
        />
        <EmptyState
          v-if="shots.length === 0"
          class="unfit"
          :hint="text.nothingFits"
        >
          <ElButton @click="showAll">{{ text.showAll }}</ElButton>
        </EmptyState>
        <ShotTable
          v-else-if="layout === 'table'"
          :shots="shots"
          :standings="standings"
          :chosen="selection.chosen.value"
          :cursor="selection.cursor.value"
          :sort-by="sortBy"
          :downward="downward"
          @sort="sort"
          @press="selection.press"
          @open="open"
          @drag="drag"
          @drop-before="dropBefore"
        />
        <ContactSheet
          v-else
          :shots="shots"
          :standings="standings"
          :chosen="selection.chosen.value"
          :cursor="selection.cursor.value"
          @press="selection.press"
          @open="open"
          @drag="drag"
          @drop-before="dropBefore"
          @columns="sheetColumns = $event"
        />
      </div>
      <FileFacts
        v-if="chosen.length === 1"
        :shot="chosen[0]!"
      />
      <CarryPanel
        v-if="carrying && copied"
        :from="copied"
        :to="chosen"
        @close="carrying = false"
      />
      <ProposalsPanel
        v-if="proposals.projectId === projectId && proposals.entries.length"
        @done="load"
      />
      <SelectionBar
        v-if="all.length"
        :shots="chosen"
        :all="shots.length"
        :scenes="reelStore.current?.scenes ?? []"
        :copied="copied"
        :in-order="inOrder"
        @change="change"
        @copy="copied = chosen[0] ?? null"
        @balance="proposals.start(chosen)"
        @match="copied && proposals.start(chosen, { kind: 'match', reference: copied })"
        @carry="carrying = true"
        @cut="router.push({ name: 'cut', params: { shotId: chosen[0]!.id } })"
        @join="attempt(() => reelStore.joinShots(selection.ids.value))"
        @link="attempt(() => reelStore.linkShots(selection.ids.value))"
        @unlink="attempt(() => reelStore.unlinkShots(selection.ids.value))"
        @render="attempt(renderChosen)"
        @move="move"
        @remove="attempt(() => reelStore.removeShots(selection.ids.value))"
      />
    </main>
  </div>
</template>

<style scoped>
.begin {
  min-height: 320px;
  background: var(--panel);
}
.unfit {
  align-self: start;
}
.page {
  height: 100%;
  display: grid;
  grid-template: auto 1fr / minmax(0, 1fr);
  overflow: hidden;
}
.page.over {
  outline: 2px solid var(--accent);
  outline-offset: -2px;
}
.reel {
  min-height: 0;
  display: flex;
  flex-direction: column;
  gap: var(--gap);
  padding: var(--gap) var(--gap-wide) 0;
}
.top {
  display: flex;
  align-items: center;
  gap: var(--gap-wide);
  min-height: 40px;
}
.top :deep(.el-button + .el-button) {
  margin-left: 0;
}
.hint {
  flex: 1;
  text-align: right;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
h1 {
  font-size: var(--text-title);
}
.filter {
  width: 180px;
  background: var(--well);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 3px var(--gap);
}
.body {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 148px minmax(0, 1fr);
  gap: var(--gap-wide);
}
</style>
