<!-- Long: cuts, pieces and the edit list are put together on one strip. -->

<script setup lang="ts">
// Cutting a flattened programme into shots: by its own cuts, by an edit list, by hand. The footage stays as it is.
import { cutTo } from '@core/names'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { ElButton } from 'element-plus'
import type { Cut } from '@core/footage'
import type { ShotDetail } from '@contracts/responses'
import { changeSeen, request, sentenceOf } from '../../api/client'
import AppHeader from '../../components/AppHeader.vue'
import Notice from '../../components/Notice.vue'
import { useOpenShot } from '../../stores/open-shot'
import { useReel } from '../../stores/reel'
import { joinNext, piecesOfCuts, splitAt, trim, type Piece } from './pieces'
import { cutText as text } from './cut-text'
import CutPiece from './CutPiece.vue'
import CutStrip from './CutStrip.vue'

const props = defineProps<{ shotId: string }>()
const openShot = useOpenShot()
const reelStore = useReel()
const router = useRouter()
const fault = ref('')
const note = ref('')
const handles = ref(0)
const at = ref(0)
const busy = ref(false)
const shot = ref<ShotDetail | null>(null)
const pieces = ref<readonly Piece[]>([])
const picker = ref<HTMLInputElement | null>(null)
const frames = computed(() => shot.value?.media.frameCount ?? 0)
const last = computed(() => (shot.value ? shot.value.firstFrame + shot.value.frameCount - 1 : 0))

async function attempt(work: () => Promise<void>): Promise<void> {
  busy.value = true
  try {
    await work()
    fault.value = ''
  } catch (error) {
    fault.value = sentenceOf(error)
  } finally {
    busy.value = false
  }
}
watch(
  () => props.shotId,
  (id) =>
    attempt(async () => {
      const found = await openShot.open(id)
      if (!found) return
      shot.value = found
      at.value = found.firstFrame + Math.floor(found.frameCount / 2)
      pieces.value = [{ first: found.firstFrame, count: found.frameCount, name: found.name, transition: 0 }]
    }),
  { immediate: true },
)

const findCuts = (): Promise<void> =>
  attempt(async () => {
    const found = shot.value
    if (!found) return
    const cuts = await request<readonly Cut[]>(`/media/${found.media.hash}/cuts`)
    pieces.value = piecesOfCuts(cuts, found.firstFrame, found.frameCount, found.name)
    note.value = text.found(pieces.value.length - 1, pieces.value.filter((p) => p.transition > 0).length)
  })
const readList = (event: Event): Promise<void> =>
  attempt(async () => {
    const input = event.target as HTMLInputElement
    const file = input.files?.[0]
    const found = shot.value
    if (!file || !found) return
    const kind = /\.otio$/i.test(file.name) ? 'otio' : 'edl'
    const list = await file.text()
    input.value = ''
    const answer = await request<{ pieces: readonly Piece[]; outside: number }>(
      `/media/${found.media.hash}/edit-list?kind=${kind}&handles=${Math.max(0, Math.round(handles.value) || 0)}`,
      { method: 'POST', headers: { 'content-type': 'text/plain' }, body: list },
    )
    pieces.value = answer.pieces
    note.value = text.listed(answer.pieces.length, answer.outside)
  })
const make = (): Promise<void> =>
  attempt(async () => {
    const found = shot.value
    if (!found) return
    const made = pieces.value.map(({ first, count, name, cdl }) => ({ first, count, name, ...(cdl ? { cdl } : {}) }))
    // The pieces stay as they are where the shot was cut elsewhere meanwhile.
    await changeSeen(
      () => reelStore.cutShot(found.id, made, found),
      async () => {
        shot.value = await openShot.open(found.id)
      },
    )
    await router.push({ name: 'reel', params: { projectId: found.projectId } })
  })
function choose(frame: number): void {
  const first = shot.value?.firstFrame ?? 0
  if (Number.isInteger(frame)) at.value = Math.min(last.value, Math.max(first, frame))
}
const trimPiece = (index: number, end: 'first' | 'last', frame: number): void => {
  pieces.value = trim(pieces.value, index, end, frame, frames.value)
}
const rename = (index: number, name: string): void => {
  pieces.value = pieces.value.map((p, i) => (i === index ? { ...p, name: cutTo(name, 200) } : p))
}
const usable = computed(() => pieces.value.length > 0 && pieces.value.every((p) => p.name.trim() !== '' && p.count > 0))
</script>

<template>
  <div class="page">
    <AppHeader :project="shot ? { id: shot.projectId, name: shot.projectName } : undefined" />
    <main
      v-if="shot"
      class="cutting"
    >
      <div class="top">
        <h1>{{ text.title(shot.name) }}</h1>
        <ElButton
          :data-tip="text.findTip"
          :disabled="busy"
          @click="findCuts"
        >
          {{ text.find }}
        </ElButton>
        <input
          ref="picker"
          class="visually-hidden"
          type="file"
          accept=".edl,.otio,.txt"
          tabindex="-1"
          aria-label="Edit list"
          @change="readList"
        />
        <ElButton
          :data-tip="text.listTip"
          :disabled="busy"
          @click="picker?.click()"
        >
          {{ text.list }}
        </ElButton>
        <label
          :data-tip="text.handlesTip"
          class="handles"
        >
          {{ text.handles }}
          <input
            v-model.number="handles"
            type="number"
            class="field figures"
            min="0"
            max="1000"
            :aria-label="text.handles"
          />
        </label>
        <span
          class="quiet note"
          role="status"
        >
          {{ note }}
        </span>
        <ElButton
          :disabled="busy || !usable"
          data-testid="make"
          @click="make"
        >
          {{ text.make(pieces.length) }}
        </ElButton>
      </div>
      <Notice
        :text="fault"
        @close="fault = ''"
      />
      <CutStrip
        :shot="shot"
        :pieces="pieces"
        :at="at"
        @at="choose"
        @split="pieces = splitAt(pieces, at)"
      />
      <ol class="pieces">
        <CutPiece
          v-for="(p, i) in pieces"
          :key="i"
          :shot="shot"
          :piece="p"
          :index="i"
          :frames="frames"
          :last="i === pieces.length - 1"
          :only="pieces.length === 1"
          @rename="rename(i, $event)"
          @trim="(end, frame) => trimPiece(i, end, frame)"
          @join="pieces = joinNext(pieces, i)"
          @leave="pieces = pieces.filter((_, k) => k !== i)"
        />
      </ol>
    </main>
    <Notice
      v-else
      :text="fault"
      @close="fault = ''"
    />
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  display: grid;
  grid-template-rows: auto 1fr;
}
.cutting {
  min-height: 0;
  display: grid;
  grid-template-rows: auto auto auto 1fr;
  gap: var(--gap);
  padding: var(--gap) var(--gap-wide);
}
.top {
  display: flex;
  align-items: center;
  gap: var(--gap-wide);
}
.top :deep(.el-button + .el-button) {
  margin-left: 0;
}
h1 {
  font-size: var(--text-title);
}
.handles {
  display: flex;
  align-items: center;
  gap: var(--gap-small);
}
.note {
  flex: 1;
}
.pieces {
  list-style: none;
  margin: 0;
  padding: 0;
  overflow: auto;
  min-height: 0;
  border-top: var(--line) solid var(--hairline);
}
input[type='number'] {
  width: 76px;
}
</style>
