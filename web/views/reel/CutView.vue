<script setup lang="ts">
// Cutting a flattened programme into shots: by its own cuts, by an edit list, by hand. The footage stays as it is.
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { ElButton } from 'element-plus'
import { timecodeAt, type Cut } from '@core/footage'
import type { ShotDetail } from '@contracts/responses'
import { request, sentenceOf } from '../../api/client'
import AppHeader from '../../components/AppHeader.vue'
import Notice from '../../components/Notice.vue'
import { useOpenShot } from '../../stores/open-shot'
import { useReel } from '../../stores/reel'
import { joinNext, piecesOfCuts, splitAt, trim, type Piece } from './pieces'
import { cutText as text } from './cut-text'
import { thumbnailOf } from './thumbnail'

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
const strip = ref<HTMLElement | null>(null)
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
    await reelStore.cutShot(
      found.id,
      pieces.value.map(({ first, count, name }) => ({ first, count, name })),
    )
    await router.push({ name: 'reel', params: { projectId: found.projectId } })
  })
function choose(frame: number): void {
  const first = shot.value?.firstFrame ?? 0
  if (Number.isInteger(frame)) at.value = Math.min(last.value, Math.max(first, frame))
}
function place(event: PointerEvent): void {
  const found = shot.value
  const box = strip.value?.getBoundingClientRect()
  if (found && box) choose(found.firstFrame + Math.floor(((event.clientX - box.left) / box.width) * found.frameCount))
}
const left = (frame: number): string =>
  `${(((frame - (shot.value?.firstFrame ?? 0)) / Math.max(1, shot.value?.frameCount ?? 1)) * 100).toFixed(3)}%`
const ends = (p: Piece): readonly number[] => [p.first, p.first + Math.floor(p.count / 2), p.first + p.count - 1]
const set = (index: number, end: 'first' | 'last', value: string): void => {
  pieces.value = trim(pieces.value, index, end, Math.round(Number(value)), frames.value)
}
const rename = (index: number, name: string): void => {
  pieces.value = pieces.value.map((p, i) => (i === index ? { ...p, name: name.slice(0, 200) } : p))
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
            class="figures"
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
      <div class="line">
        <div
          ref="strip"
          class="strip"
          @pointerdown="place"
          @pointermove="$event.buttons === 1 && place($event)"
        >
          <span
            v-for="(p, i) in pieces"
            :key="i"
            class="piece"
            :class="{ soft: p.transition > 0, odd: i % 2 }"
            :style="{ left: left(p.first), width: `calc(${left(p.first + p.count)} - ${left(p.first)})` }"
            :title="p.name"
          />
          <span
            class="here"
            :style="{ left: left(at) }"
          />
        </div>
        <div class="split">
          <img
            :src="thumbnailOf(shot, 'graded', Math.max(shot.firstFrame, at - 1))"
            alt="the frame before"
            width="160"
            height="90"
          />
          <img
            :src="thumbnailOf(shot, 'graded', at)"
            alt="the first frame of the later shot"
            width="160"
            height="90"
          />
          <label>
            {{ text.frame }}
            <input
              type="number"
              class="figures"
              :value="at"
              :min="shot.firstFrame"
              :max="last"
              :aria-label="text.frame"
              @input="choose(Number(($event.target as HTMLInputElement).value))"
            />
          </label>
          <span class="figures quiet">{{ timecodeAt(at, shot.media, shot.media.startTimecode) }}</span>
          <ElButton
            :data-tip="text.splitTip"
            size="small"
            @click="pieces = splitAt(pieces, at)"
          >
            {{ text.split }}
          </ElButton>
        </div>
      </div>
      <ol class="pieces">
        <li
          v-for="(p, i) in pieces"
          :key="i"
          data-testid="piece"
        >
          <span class="figures quiet number">{{ i + 1 }}</span>
          <img
            v-for="(frame, k) in ends(p)"
            :key="k"
            :src="thumbnailOf(shot, 'graded', frame)"
            :alt="`frame ${frame}`"
            width="112"
            height="63"
            loading="lazy"
          />
          <input
            class="name"
            :value="p.name"
            :aria-label="text.nameOf(i + 1)"
            maxlength="200"
            @input="rename(i, ($event.target as HTMLInputElement).value)"
          />
          <label>
            {{ text.first }}
            <input
              type="number"
              class="figures"
              :value="p.first"
              :min="0"
              :max="p.first + p.count - 1"
              :aria-label="`${text.first} ${i + 1}`"
              @change="set(i, 'first', ($event.target as HTMLInputElement).value)"
            />
          </label>
          <label>
            {{ text.last }}
            <input
              type="number"
              class="figures"
              :value="p.first + p.count - 1"
              :min="p.first"
              :max="frames - 1"
              :aria-label="`${text.last} ${i + 1}`"
              @change="set(i, 'last', ($event.target as HTMLInputElement).value)"
            />
          </label>
          <span class="figures quiet length">{{ text.length(p.count) }}</span>
          <span class="transition">{{ p.transition > 0 ? text.dissolve(p.transition) : '' }}</span>
          <ElButton
            size="small"
            :disabled="i === pieces.length - 1"
            @click="pieces = joinNext(pieces, i)"
          >
            {{ text.join }}
          </ElButton>
          <ElButton
            size="small"
            :disabled="pieces.length === 1"
            @click="pieces = pieces.filter((_, k) => k !== i)"
          >
            {{ text.leave }}
          </ElButton>
        </li>
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
.line {
  display: grid;
  gap: var(--gap);
}
.strip {
  position: relative;
  height: 40px;
  background: var(--well);
  cursor: crosshair;
  touch-action: none;
}
.piece {
  position: absolute;
  top: 4px;
  bottom: 4px;
  background: var(--raised);
  border-left: 2px solid var(--ink-quiet);
  pointer-events: none;
}
.piece.odd {
  background: var(--pressed);
}
.piece.soft {
  border-left: 4px double var(--accent);
}
.here {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 1px;
  background: var(--accent);
  pointer-events: none;
}
.split {
  display: flex;
  align-items: center;
  gap: var(--gap);
}
.split label,
li label {
  display: flex;
  align-items: center;
  gap: var(--gap-small);
}
.pieces {
  list-style: none;
  margin: 0;
  padding: 0;
  overflow: auto;
  min-height: 0;
  border-top: var(--line) solid var(--hairline);
}
li {
  display: flex;
  align-items: center;
  gap: var(--gap);
  min-height: 73px;
  border-bottom: var(--line) solid var(--hairline);
}
li :deep(.el-button + .el-button) {
  margin-left: 0;
}
img {
  display: block;
  object-fit: contain;
  background: var(--well);
}
.number {
  width: 2em;
  text-align: right;
}
.name {
  flex: 1;
  min-width: 120px;
}
.length {
  width: 8em;
}
.transition {
  width: 10em;
  color: var(--accent);
}
li input,
input[type='number'] {
  background: var(--well);
  border: var(--line) solid var(--hairline);
  border-radius: var(--radius);
  padding: 2px var(--gap-small);
  min-height: var(--control);
}
input[type='number'] {
  width: 76px;
}
</style>
