<!-- Long: one comparison: what is chosen above, its curves and numbers below. -->

<script setup lang="ts">
// Compare: one frame through the likelier encodings, each with its evidence and a score.
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { ElButton } from 'element-plus'
import { encodingById, encodingFromDefinition } from '@core/colour'
import { setRead } from '@core/grade'
import { cardError, fileFactsOf, type Guess } from '@core/guess'
import type { CodeRange } from '@core/image'
import type { ShotDetail } from '@contracts/responses'
import { sentenceOf } from '../../api/client'
import Notice from '../../components/Notice.vue'
import { putImage } from '../../composables/putImage'
import { useCameraWorker } from '../../composables/useCameraWorker'
import { useEncodings } from '../../stores/encodings'
import { useGrade } from '../../stores/grade'
import type { ComparedPicture } from '../../workers/camera-worker'
import ShotChooser from '../../components/ShotChooser.vue'
import { text } from './text'

const props = defineProps<{ shot: ShotDetail | null; frame: number }>()
defineEmits<{ choose: [shotId: string] }>()
const worker = useCameraWorker()
const grade = useGrade()
const encodings = useEncodings()
const guess = ref<Guess | null>(null)
const pictures = ref<readonly ComparedPicture[]>([])
const fault = ref('')
const said = ref('')
const canvases = ref<HTMLCanvasElement[]>([])
/** Mean codes of the card that was picked, and where. */
const card = shallowRef<{
  readonly codes: readonly [number, number, number]
  readonly x: number
  readonly y: number
} | null>(null)
const shown = 9

watch(
  [() => props.shot?.id, () => props.frame, () => grade.shotId],
  async () => {
    const shot = props.shot
    const document = grade.document
    guess.value = null
    card.value = null
    said.value = ''
    if (!shot || !document || grade.shotId !== shot.id) return
    const { media } = shot
    try {
      await encodings.load()
      const answer = await worker.ask('compare', {
        mediaHash: media.hash,
        frameIndex: props.frame,
        range: media.range,
        grade: JSON.parse(JSON.stringify(document)),
        pictures: shown,
        width: media.width,
        height: media.height,
        frameCount: media.frameCount,
        file: fileFactsOf(media),
        own: JSON.parse(JSON.stringify(encodings.own)),
      })
      if (props.shot?.id !== shot.id) return
      guess.value = answer.guess
      pictures.value = answer.pictures
      await nextTick()
      answer.pictures.forEach((p, i) => {
        const canvas = canvases.value[i]
        if (canvas) putImage(canvas, p.picture)
      })
    } catch (error) {
      fault.value = sentenceOf(error)
    }
  },
  { immediate: true },
)

const cards = computed(() => guess.value?.ranked.slice(0, shown) ?? [])
/** Side of the box that a click takes, as a share of the picture. */
const cardSide = 0.03
async function pickCard(x: number, y: number): Promise<void> {
  const shot = props.shot
  if (!shot) return
  try {
    const box = { x: x - cardSide / 2, y: y - cardSide / 2, width: cardSide, height: cardSide }
    const [codes] = await worker.ask('patches', {
      mediaHash: shot.media.hash,
      frameIndex: props.frame,
      range: shot.media.range,
      boxes: [box],
    })
    if (codes) card.value = { codes, x, y }
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}
function clicked(e: MouseEvent): void {
  const r = (e.currentTarget as HTMLElement).getBoundingClientRect()
  void pickCard((e.clientX - r.left) / r.width, (e.clientY - r.top) / r.height)
}
function cardWords(encodingId: string, range: CodeRange): string {
  if (!card.value || !props.shot) return ''
  const own = encodings.own.map(encodingFromDefinition)
  const { stops, cast } = cardError(card.value.codes, props.shot.media.range, encodingId, range, own)
  return Number.isNaN(stops)
    ? text.compare.cardDark
    : text.compare.card(
        `${stops < 0 ? '−' : '+'}${Math.abs(stops).toFixed(2)}`,
        Number.isNaN(cast) ? '–' : (cast * 100).toFixed(1),
      )
}
const groupOf = (i: number): number =>
  (guess.value?.groups.findIndex((g) => g.members.some((m) => m === guess.value?.ranked[i])) ?? -1) + 1
const isUsed = (encodingId: string, range: string): boolean =>
  grade.document?.read.encodingId === encodingId &&
  grade.document.read.range === range &&
  grade.document.read.method === 'formula'

function use(encodingId: string, range: 'full' | 'legal'): void {
  const own = encodings.own.find((e) => e.id === encodingId)
  const { name, gamutIds } = own ? encodingFromDefinition(own) : encodingById(encodingId)
  grade.edit(`Read by ${name}`, (g) =>
    setRead(
      g,
      { method: 'formula', encodingId, gamutId: gamutIds[0], range, ...(own ? { own } : {}) },
      props.shot?.showDefaults.rendering,
    ),
  )
  void grade.commit()
  said.value = text.compare.applied(name)
}
</script>

<template>
  <ShotChooser
    v-if="!shot"
    :hint="text.compare.choose"
    @choose="$emit('choose', $event)"
  />
  <div
    v-else
    class="compare"
  >
    <Notice
      :text="fault"
      @close="fault = ''"
    />
    <p
      v-if="!guess && !fault"
      class="quiet"
      role="status"
    >
      {{ text.compare.working }}
    </p>
    <template v-if="guess">
      <ul
        class="sentences"
        data-testid="sentences"
      >
        <li
          v-for="s in guess.sentences"
          :key="s"
        >
          {{ s }}
        </li>
      </ul>
      <p class="quiet">{{ text.compare.pickHint }}</p>
      <p
        v-if="said"
        role="status"
      >
        {{ said }}
      </p>
      <ol class="cards">
        <li
          v-for="(c, i) in cards"
          :key="`${c.encodingId}-${c.range}`"
          :class="{ used: isUsed(c.encodingId, c.range) }"
        >
          <button
            type="button"
            class="frame"
            :aria-label="text.compare.pick(c.name)"
            @click="clicked"
          >
            <canvas
              :ref="
                (el) => {
                  if (el) canvases[i] = el as HTMLCanvasElement
                }
              "
              role="img"
              :aria-label="`The frame read as ${c.name}`"
            />
            <span
              v-if="card"
              class="card"
              :style="{ left: `${card.x * 100}%`, top: `${card.y * 100}%` }"
            />
          </button>
          <div class="words">
            <h3>
              <span>{{ c.name }}</span>
              {{ ' ' }}
              <span class="figures">{{ text.compare.score((c.probability * 100).toFixed(1)) }}</span>
            </h3>
            <p class="quiet">{{ text.compare.alike }} {{ groupOf(i) }} · {{ text.compare.range[c.range] }}</p>
            <ul class="evidence quiet">
              <li
                v-if="card"
                class="told"
              >
                {{ cardWords(c.encodingId, c.range) }}
              </li>
              <li
                v-for="e in c.evidence"
                :key="e"
              >
                {{ e }}
              </li>
            </ul>
            <span
              v-if="isUsed(c.encodingId, c.range)"
              class="mark"
            >
              {{ text.compare.used }}
            </span>
            <ElButton
              v-else
              size="small"
              @click="use(c.encodingId, c.range)"
            >
              {{ text.compare.use }}
            </ElButton>
          </div>
        </li>
      </ol>
    </template>
  </div>
</template>

<style scoped>
.compare {
  display: grid;
  gap: var(--gap);
  align-content: start;
  overflow-y: auto;
  min-height: 0;
}
.sentences,
.evidence,
.cards {
  list-style: none;
  margin: 0;
  padding: 0;
}
.cards {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: var(--gap-wide);
}
.cards > li {
  display: grid;
  grid-template-rows: auto 1fr;
  background: var(--panel);
  border: var(--line) solid var(--hairline);
}
.cards > li.used {
  border-color: var(--accent);
}
.frame {
  position: relative;
  padding: 0;
  border: 0;
  background: none;
  cursor: crosshair;
  display: block;
}
.card {
  position: absolute;
  width: 3%;
  height: 5%;
  translate: -50% -50%;
  border: var(--line) solid var(--accent);
  outline: var(--line) solid var(--well);
  pointer-events: none;
}
.told {
  color: var(--ink);
}
canvas {
  width: 100%;
  aspect-ratio: 16 / 9;
  object-fit: contain;
  background: var(--well);
  display: block;
}
.words {
  padding: var(--gap);
  display: grid;
  gap: var(--gap-small);
  align-content: start;
  justify-items: start;
}
h3 {
  font-size: var(--text);
  display: flex;
  justify-content: space-between;
  width: 100%;
}
.evidence {
  font-size: var(--text-small);
  line-height: 1.35;
}
.mark {
  color: var(--accent);
}
p {
  margin: 0;
}
</style>
