<script setup lang="ts">
// The Bench: one shot, its picture, its instruments, the Meridian, and the chosen station's controls.
import { useIntervalFn, watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { displayById, lumaWeights } from '@core/colour'
import { gradeAt, needsMapping, otherGamma, stations, type DifferenceReport, type StationId } from '@core/grade'
import type { InstrumentId, PlaceColour } from '@core/instruments'
import { hasPixels, readingKey, type Reading } from '@core/readings'
import { sentenceOf } from '../../api/client'
import AppHeader from '../../components/AppHeader.vue'
import Notice from '../../components/Notice.vue'
import { sameWhileEqual } from '../../composables/sameWhileEqual'
import { useBenchRenderer, type Wanted } from '../../composables/useBenchRenderer'
import { useClipTrace } from '../../composables/useClipTrace'
import { useDetachedSender } from '../../composables/useDetached'
import { useReadings } from '../../composables/useReadings'
import { useAims } from '../../stores/aims'
import { useGrade } from '../../stores/grade'
import { useOpenShot } from '../../stores/open-shot'
import { useReel } from '../../stores/reel'
import { useStandards } from '../../stores/standards'
import { usePicking } from '../../stores/picking'
import { usePlacing } from '../../stores/placing'
import { useRegions } from '../../stores/regions'
import { useTracking } from '../../stores/tracking'
import { useView, type Surround } from '../../stores/view'
import type { Medium } from '../../workers/messages'
import { ownDisplayId } from '../../workers/tile'
import { figuresOf } from './figures'
import AimsPanel from './aims/AimsPanel.vue'
import { useSkinHandles } from './aims/useSkinHandles'
import InstrumentColumn from './instruments/InstrumentColumn.vue'
import IntentLine from './IntentLine.vue'
import KeySheet from './KeySheet.vue'
import MeridianStrip from './meridian/MeridianStrip.vue'
import PictureStage from './picture/PictureStage.vue'
import ReadingsPanel from './readings/ReadingsPanel.vue'
import StationPanel from './StationPanel.vue'
import { nextZoom } from './picture/useZoom'
import { useRegionLooks } from './regions/useRegionLooks'
import { text } from './text'
import { usePlayback } from './usePlayback'
import TimeLine from './TimeLine.vue'
import TransportBar from './TransportBar.vue'
import { useAiming } from './useAiming'
import { useBenchKeys } from './useBenchKeys'
import { useComparing } from './useComparing'
import { useLooking } from './useLooking'
import { useMarking } from './useMarking'
import { usePointing } from './usePointing'
import { useViewing } from './useViewing'

const props = defineProps<{ shotId: string }>()
const openShot = useOpenShot()
const standardStore = useStandards()
const reelStore = useReel()
const grade = useGrade()
const aims = useAims()
const picking = usePicking()
const placing = usePlacing()
const regions = useRegions()
const tracking = useTracking()
const view = useView()
const route = useRoute()
const router = useRouter()
const renderer = useBenchRenderer()
const fault = ref('')
const heldAsShot = ref(false)

const shot = computed(() => (openShot.shot?.id === props.shotId ? openShot.shot : null))
const project = computed(() => (shot.value ? { id: shot.value.projectId, name: shot.value.projectName } : undefined))
const firstFrame = computed(() => shot.value?.firstFrame ?? 0)
const lastFrame = computed(() => firstFrame.value + (shot.value?.frameCount ?? 1) - 1)
const medium = computed<Medium | null>(
  () =>
    shot.value && {
      hash: shot.value.media.hash,
      rate: { numerator: shot.value.media.rateNumerator, denominator: shot.value.media.rateDenominator },
      proxy: shot.value.proxy,
      span: { first: firstFrame.value, last: lastFrame.value },
    },
)
const regional = computed(() => !asShot.value && (placing.region !== null || view.station === 'regions'))
/** What is looked at before it is kept: a recipe on its way in, or what the aims come to. */
const shownProposal = computed(() => placing.proposal ?? aims.proposal)
const asShot = computed(() => view.asShot !== heldAsShot.value)
/** Says so when the display is brighter or wider than what the picture is looked at on. */
const mapping = computed(() => {
  const display = grade.document && displayById(grade.document.show.displayId)
  return display && !asShot.value && needsMapping(display, displayById(ownDisplayId)) ? text.mapped(display.name) : ''
})
const gamma = computed(() =>
  view.otherGamma && grade.document ? otherGamma(displayById(grade.document.show.displayId)) : null,
)
/** Frames at which a control is marked. */
const marks = sameWhileEqual(() => [
  ...new Set((grade.document?.along ?? []).flatMap((m) => m.marks.map((mark) => mark.frame))),
])
const note = computed(() =>
  [mapping.value, gamma.value ? text.otherGamma(gamma.value.gamma) : ''].filter((n) => n !== '').join(' · '),
)
const aspect = computed(() =>
  shot.value
    ? (shot.value.media.width * shot.value.media.pixelAspect[0]) /
      (shot.value.media.height * shot.value.media.pixelAspect[1])
    : 16 / 9,
)

watch(() => props.shotId, open, { immediate: true })
async function open(id: string): Promise<void> {
  fault.value = ''
  try {
    playback.stop()
    const before = openShot.shot?.id
    const found = await openShot.open(id)
    if (!found) return
    const wanted = Number(route.query['frame'])
    view.frame =
      Number.isInteger(wanted) && wanted >= found.firstFrame && wanted < found.firstFrame + found.frameCount
        ? wanted
        : found.leadFrame
    const station = stations.find((s) => s.id === route.query['station'])
    if (station) view.station = station.id
    // What was drawn was drawn on another shot.
    if (before !== found.id) view.part = null
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}

const marking = useMarking(() => regions.region)
const { detached } = useDetachedSender(() => {
  const { value: now } = renderer.result
  return now && shot.value && grade.document
    ? {
        kind: 'picture',
        traces: now.traces,
        figures: figuresOf(now.partFacts ?? now.facts),
        settings: view.instruments,
        graticules: view.graticules,
        displayId: grade.document.show.displayId,
        tap: view.tap,
        shot: shot.value.name,
      }
    : null
})
const pointing = usePointing(
  () => view.frame,
  (area) => renderer.ask('skin', { area, cast: readings.cast.value }),
)
const { viewing, setVisible, toggleReference } = useViewing(
  renderer,
  () => detached.value,
  () => pointing.subjects.value[0] ?? null,
  (fault_) => {
    fault.value = fault_
  },
)
const looking = useLooking(renderer)
function showLosses(id: StationId | null): void {
  marking.losses.value = id
  litReading.value = ''
  const name = stations.find((s) => s.id === id)?.name ?? ''
  looking.showPixels(id && renderer.ask('losses', { station: id }), (share) => text.litLosses(name, share))
}
/** A second click puts the light out again. */
const litReading = ref('')
function showReading(reading: Reading): void {
  const key = readingKey(reading)
  const out = litReading.value === key
  showLosses(null)
  if (out) return
  marking.showReading(reading)
  if (!hasPixels(reading.id)) return
  litReading.value = key
  looking.showPixels(readings.pixelsOf(reading.id), (share) => text.litReading(reading.name, share))
}
// The picture follows the document, the frame and the choice of view.
const wanted = computed<Wanted | null>(() =>
  medium.value && grade.document && grade.shotId === shot.value?.id
    ? {
        medium: medium.value,
        frameIndex: view.frame,
        grade: shownProposal.value ?? marking.seenGrade.value ?? grade.document,
        asShot: asShot.value,
        viewing: viewing.value,
      }
    : null,
)
watch(wanted, (now, before) => {
  if (now) renderer.show(now)
  // What was lit was lit in another picture.
  if (
    (marking.losses.value || litReading.value) &&
    (now?.grade !== before?.grade || now?.frameIndex !== before?.frameIndex)
  )
    showLosses(null)
})
const standard = computed(() => standardStore.byId(shot.value?.standardId ?? ''))
void standardStore.load().catch(() => undefined)
const readings = useReadings(
  () =>
    renderer.settled.value &&
    !renderer.playing.value &&
    !tracking.running &&
    !asShot.value &&
    !view.bypassed &&
    !view.withoutStep &&
    shot.value &&
    grade.document &&
    grade.shotId === shot.value.id
      ? {
          mediaHash: shot.value.media.hash,
          frameIndex: view.frame,
          sourceBits: shot.value.media.bitDepth,
          grade: shownProposal.value ?? grade.document,
          pointed: pointing.pointed.value,
        }
      : null,
  () => standard.value,
  () => ({ first: firstFrame.value, last: lastFrame.value }),
)
const partColour = computed(() => {
  const facts = renderer.result.value?.partFacts
  if (!facts || !shot.value || !grade.document) return null
  const { red, green, blue, cbDivisor, crDivisor } = lumaWeights(displayById(grade.document.show.displayId).lumaMatrix)
  const [r, g, b] = facts.means
  const luma = red * r + green * g + blue * b
  return {
    name: text.compare.name(shot.value.name, view.frame - shot.value.firstFrame, false),
    luma,
    cb: (b - luma) / cbDivisor,
    cr: (r - luma) / crDivisor,
  }
})
const aiming = useAiming({
  shotId: () => (grade.shotId === shot.value?.id ? grade.shotId : null),
  subject: () =>
    shot.value && grade.document && grade.shotId === shot.value.id
      ? { mediaHash: shot.value.media.hash, frameIndex: view.frame, grade: grade.document }
      : null,
  findings: () => readings.findings.value,
  fresh: () => readings.fresh.value,
  standard: () => standard.value,
  pointed: () => pointing.pointed.value,
  part: () =>
    marking.drawnPart.value
      ? {
          left: marking.drawnPart.value.left,
          top: marking.drawnPart.value.top,
          right: marking.drawnPart.value.right,
          bottom: marking.drawnPart.value.bottom,
        }
      : null,
  partColour: () => partColour.value,
  traces: () => ({ traces: trace.traces.value, first: firstFrame.value }),
})
/** What a place is before the station that picks from the picture. */
async function colourAt(x: number, y: number): Promise<PlaceColour | null> {
  const { picker } = picking
  return picker ? renderer.ask('colour', { station: picker.station, side: picker.side, x, y }) : null
}
// What stands before a curve is known once the picture rests.
watch([() => picking.wanted, renderer.settled, () => view.frame], async ([now, settled]) => {
  if (!now) picking.distribution = null
  else if (settled && !asShot.value)
    picking.distribution = await renderer.ask('distribution', { ...now, bits: shot.value?.media.bitDepth ?? 10 })
})
const lutStep = ref('')
const between = shallowRef<DifferenceReport | null>(null)
watch([lutStep, renderer.settled], async ([id, settled]) => {
  if (id === '') between.value = null
  else if (settled && !asShot.value) between.value = await renderer.ask('between', { stepId: id })
})
/** The look of the held picture as steps, shown before they are kept. */
async function takeLook(): Promise<void> {
  const { still } = view
  const { shotId } = grade
  if (!still || asShot.value) return
  const look = await renderer.ask('lookFrom', {
    reference: { width: still.image.width, height: still.image.height, rgba: still.image.rgba.slice() },
    skin: pointing.subjects.value[0] ?? null,
  })
  if (!look || grade.shotId !== shotId) return
  placing.show({
    name: text.recipes.take(still.name),
    note: [text.recipes.took(look.before.toFixed(1), look.after.toFixed(1)), ...look.taken, ...look.left].join(' · '),
    ...look.content,
  })
}
const regionLooks = useRegionLooks(
  renderer,
  () => pointing.subjects.value[0] ?? null,
  () => (medium.value && shot.value ? { medium: medium.value, first: firstFrame.value, last: lastFrame.value } : null),
  () => aspect.value,
  (sentence) => {
    fault.value = sentence
  },
)
const noise = computed(() => readings.findings.value.find((f) => f.id === 'noise')?.value ?? null)
const skins = useSkinHandles(renderer, () => (renderer.playing.value || asShot.value ? [] : pointing.subjects.value))
const comparing = useComparing(
  () => {
    const now = renderer.shown.value
    return now && shot.value
      ? {
          image: now.picture,
          name: text.compare.name(shot.value.name, view.frame - shot.value.firstFrame, asShot.value),
        }
      : null
  },
  (sentence) => {
    fault.value = sentence
  },
)
const referenceShots = computed(() =>
  (reelStore.current?.project.id === shot.value?.projectId ? (reelStore.current?.shots ?? []) : []).map(
    ({ id, name }) => ({
      id,
      name,
    }),
  ),
)
watch(
  () => shot.value?.projectId,
  (id) => {
    if (id && reelStore.current?.project.id !== id) void reelStore.load(id).catch(() => undefined)
  },
)
const detach = (id: InstrumentId): void => {
  window.open(
    router.resolve({ name: 'instrument', params: { instrument: id } }).href,
    `pale-${id}`,
    'popup,width=720,height=520',
  )
}
// The address follows once the hand rests: a scrub is not a hundred places.
watchDebounced(
  [() => view.frame, () => view.station, renderer.playing],
  () => {
    if (!renderer.playing.value && route.name === 'bench' && route.params['shotId'] === props.shotId)
      void router.replace({ query: { ...route.query, frame: view.frame, station: view.station } })
  },
  { debounce: 250 },
)
useIntervalFn(() => {
  if (shot.value && !shot.value.proxy) void openShot.refresh().catch(() => undefined)
}, 2000)

function go(frame: number): void {
  playback.stop()
  view.frame = Math.min(lastFrame.value, Math.max(firstFrame.value, frame))
}
const openStation = (id: StationId): void => {
  view.station = id
}
const surrounds: readonly Surround[] = ['dark', 'black', 'grey', 'white']
const nextSurround = (): void => {
  view.surround = surrounds[(surrounds.indexOf(view.surround) + 1) % surrounds.length] ?? 'dark'
}
const nextInstrument = (): void => {
  const order = [null, ...view.slots]
  view.filling = order[(order.indexOf(view.filling) + 1) % order.length] ?? null
}
function neighbour(direction: -1 | 1): void {
  const id = direction < 0 ? shot.value?.previousShotId : shot.value?.nextShotId
  if (id) void router.push({ name: 'bench', params: { shotId: id }, query: { station: view.station } })
}
/** Conformed footage plays at the rate it was set to. */
const playedRate = computed(() => {
  const rate = shot.value?.played ?? medium.value?.rate
  return rate ? rate.numerator / rate.denominator : 24
})
const playback = usePlayback(
  renderer,
  () => wanted.value,
  () => ({ first: firstFrame.value, last: lastFrame.value, framesPerSecond: playedRate.value }),
  (frame) => {
    view.frame = frame
  },
)
const scrubbing = ref(false)
const trace = useClipTrace(
  () =>
    medium.value && grade.document && grade.shotId === shot.value?.id
      ? {
          medium: medium.value,
          grade: shownProposal.value ?? grade.document,
          first: firstFrame.value,
          count: shot.value?.frameCount ?? 1,
        }
      : null,
  () => renderer.playing.value || scrubbing.value || !renderer.settled.value || tracking.running,
)
function nextMoment(): void {
  const { value } = trace.moments
  const next = value.find((m) => m.frame > view.frame) ?? value[0]
  if (next) go(next.frame)
}
async function makeLead(): Promise<void> {
  try {
    await openShot.setLeadFrame(view.frame)
  } catch (error) {
    fault.value = sentenceOf(error)
  }
}
useBenchKeys({
  stepFrames: (count) => go(view.frame + count),
  toLeadFrame: () => go(shot.value?.leadFrame ?? 0),
  makeLead: () => void makeLead(),
  nextMoment,
  togglePlay: playback.toggle,
  shuttle: playback.shuttle,
  beginPiece: () => playback.setPiece('first', view.frame),
  endPiece: () => playback.setPiece('last', view.frame),
  toggleLoop: playback.toggleLoop,
  holdAsShot: (held) => {
    heldAsShot.value = held
  },
  toggleAsShot: () => {
    view.asShot = !view.asShot
  },
  nextSurround,
  nextZoom: () => {
    view.zoom = nextZoom(view.zoom)
  },
  fit: () => {
    view.zoom = { level: 0, x: 0.5, y: 0.5 }
  },
  pan: (x, y) => {
    view.zoom = {
      ...view.zoom,
      x: Math.min(1, Math.max(0, view.zoom.x + x * 0.05)),
      y: Math.min(1, Math.max(0, view.zoom.y + y * 0.05)),
    }
  },
  toggleGamma: () => {
    view.otherGamma = !view.otherGamma
  },
  nextInstrument,
  openStation,
  nextOverlay: marking.nextOverlay,
  togglePart: marking.togglePart,
  toggleReference: () => void toggleReference('this'),
  nextTap: () => {
    view.tap = view.tap === 'finish' ? view.station : 'finish'
  },
  bypass: marking.bypassByKey,
  undo: () => void grade.undo(),
  redo: () => void grade.redo(),
  neighbour,
  toggleKeys: () => {
    view.showKeys = !view.showKeys
  },
  closeKeys: () => {
    if (view.showKeys) view.showKeys = false
    else if (picking.picker) picking.stop()
    else if (regions.drawing || regions.sampling) regions.leavePicture()
    else if (tracking.painting) tracking.painting = false
    else if (placing.recipe) placing.leave()
    else if (aims.pending) aims.takeBack()
  },
  balance: aiming.balance,
  nextCompare: comparing.next,
  keepAims: () => {
    if (placing.recipe) placing.keep()
    else aims.keep()
  },
})
</script>

<template>
  <div class="bench">
    <AppHeader
      :project="project"
      :shot="shot"
    />
    <div class="notices">
      <Notice
        :text="fault"
        @close="fault = ''"
      />
      <Notice
        v-if="grade.saveState !== 'saved'"
        :text="grade.message"
        @close="grade.dismiss"
      >
        <template v-if="grade.saveState === 'conflict'">
          <span
            v-if="grade.clash"
            class="clash"
          >
            {{ text.conflict.theirs(grade.clash.theirs.join('; '))
            }}{{ grade.clash.both.length ? ` ${text.conflict.both(grade.clash.both.join('; '))}` : '' }}
          </span>
          <button
            type="button"
            @click="grade.takeNewer"
          >
            {{ text.conflict.take }}
          </button>
          <button
            type="button"
            @click="grade.mergeBoth"
          >
            {{ text.conflict.merge }}
          </button>
          <button
            type="button"
            @click="grade.keepMine"
          >
            {{ text.conflict.keep }}
          </button>
          <button
            type="button"
            @click="grade.fork(text.conflict.versionName(new Date().toLocaleTimeString('en-GB')))"
          >
            {{ text.conflict.fork }}
          </button>
        </template>
      </Notice>
    </div>
    <main
      v-if="shot && grade.document"
      class="work"
    >
      <div class="upper">
        <div class="picture">
          <IntentLine
            v-if="shot.intent || shot.intentPictures.length"
            class="intent"
            :words="shot.intent"
            :pictures="shot.intentPictures"
            @hold="comparing.bring"
            @fault="fault = $event"
          />
          <PictureStage
            :picture="renderer.shown.value?.picture ?? null"
            :surround="view.surround"
            :regional="regional"
            :aspect="aspect"
            :fault="renderer.fault.value"
            :settled="renderer.settled.value"
            :label="`${shot.name}, frame ${view.frame}${asShot ? ', as shot' : ''}`"
            :note="note"
            :exponent="gamma?.exponent ?? 1"
            :frame="renderer.shown.value?.frameIndex ?? null"
            :lit="looking.lit.value"
            :lit-note="looking.litNote.value"
            :part="marking.drawnPart.value"
            :card="pointing.card.value"
            :subjects="pointing.subjects.value"
            :probe="looking.probe.value"
            :overlay="view.overlay"
            :still="view.still"
            :compare="view.compare"
            :wipe="view.wipe"
            :colour-at="colourAt"
            @wipe="view.wipe = $event"
            @part="marking.setPart"
            @point="looking.pointAt"
            @zebra="marking.setZebra"
            @sample="regionLooks.sample"
          />
          <TimeLine
            :first="shot.firstFrame"
            :count="shot.frameCount"
            :frame="view.frame"
            :lead-frame="shot.leadFrame"
            :in-frame="playback.piece.value.first"
            :out-frame="playback.piece.value.last"
            :traces="trace.traces.value"
            :moments="trace.moments.value"
            :share="trace.share.value"
            :marks="marks"
            :label="`frame ${view.frame - shot.firstFrame} of ${shot.frameCount}`"
            @go="go"
            @grab="scrubbing = true"
            @drop="scrubbing = false"
          />
          <TransportBar
            :shot="shot"
            :frame="view.frame"
            :as-shot="asShot"
            :surround="view.surround"
            :overlay="view.overlay?.id ?? ''"
            :playing="renderer.playing.value"
            :speed="playback.speed.value"
            :loop="playback.loop.value"
            :counts="renderer.counts.value"
            :moments="trace.moments.value.length"
            :compare="view.compare"
            :held="view.still?.name ?? ''"
            @compare="comparing.choose"
            @go="go"
            @as-shot="view.asShot = $event"
            @lead="makeLead"
            @surround="nextSurround"
            @overlay="marking.setOverlay"
            @play="playback.toggle"
            @loop="playback.toggleLoop"
            @moment="nextMoment"
          />
        </div>
        <InstrumentColumn
          :result="renderer.result.value"
          :display-id="grade.document.show.displayId"
          :probe="looking.probe.value"
          :playing="renderer.playing.value"
          :shots="referenceShots"
          :as-shot="asShot"
          :skins="skins"
          @aim="aiming.aimHandle"
          @skin="aiming.aim"
          @point="looking.lightPlace"
          @reference="toggleReference"
          @detach="detach"
          @visible="setVisible"
        />
      </div>
      <MeridianStrip
        :meridian="renderer.result.value?.meridian ?? null"
        :part="viewing.follow ? (renderer.result.value?.partMeridian ?? null) : null"
        :station="view.station"
        :as-shot="asShot"
        :strengths="marking.strengths.value"
        :bypassed="view.bypassed"
        :losses-of="marking.losses.value"
        @open="openStation"
        @bypass="marking.bypass"
        @strength="marking.setStrength"
        @losses="showLosses"
      />
      <div class="lower">
        <StationPanel
          :grade="gradeAt(shownProposal ?? grade.document, view.frame)"
          :whole="shownProposal ?? grade.document"
          :first-frame="shot.firstFrame"
          :shot="shot"
          :setup="shot.setup"
          :guess="shot.guess"
          :station="view.station"
          :media="shot.media"
          :shot-id="shot.id"
          :shot-name="shot.name"
          :frame="view.frame"
          :facts="renderer.result.value?.facts ?? null"
          :result="renderer.result.value"
          :settled="renderer.settled.value"
          :noise="noise"
          :between="between"
          @lut="lutStep = $event"
          @take="takeLook"
          @start="regionLooks.start"
          @bring="regionLooks.bring"
          @go="go"
        />
        <ReadingsPanel
          :facts="renderer.result.value?.facts ?? null"
          :part-facts="renderer.result.value?.partFacts ?? null"
          :part="marking.drawnPart.value"
          :readings="readings.readings.value"
          :clip="readings.clip.value"
          :fresh="readings.fresh.value"
          :fault="readings.fault.value"
          :standard="standard"
          :shot="shot"
          :traces="trace.traces.value"
          :part-fault="pointing.fault.value"
          :lit="litReading"
          :card="pointing.pointed.value.card"
          :aiming="aims.open"
          :aim-count="aims.aims.length"
          :remembered="aims.remembered?.name ?? ''"
          @go="go"
          @area="showReading"
          @waive="pointing.waive"
          @card="pointing.pickCard"
          @no-card="pointing.dropCard"
          @subject="pointing.pickSubject"
          @clear="marking.setPart(null)"
          @aim="aiming.aim"
          @aiming="aiming.show"
          @part-aim="aiming.aimPart"
        >
          <template #aims>
            <AimsPanel
              :ready="aiming.ready.value"
              :traced="aiming.traced.value"
              :control-names="aiming.controlNames"
              @balance="aiming.balance"
              @whole-clip="aiming.wholeClip"
            />
          </template>
        </ReadingsPanel>
      </div>
      <KeySheet
        v-if="view.showKeys"
        @close="view.showKeys = false"
      />
    </main>
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: grid;
  grid-template: auto auto 1fr / minmax(0, 1fr);
  overflow: hidden;
  --lower: 186px;
  --meridian: 132px;
}
.notices {
  display: grid;
}
.clash {
  font-size: 12px;
  max-width: 520px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.notices button {
  background: none;
  border: var(--line) solid var(--hairline-strong);
  border-radius: var(--radius);
}
.work {
  position: relative;
  display: grid;
  grid-template-rows: 1fr var(--meridian) var(--lower);
  min-height: 0;
}
.upper {
  display: grid;
  grid-template-columns: min(calc(100vw - 560px), calc((100vh - 464px) * 16 / 9)) 1fr;
  gap: var(--gap-wide);
  padding: var(--gap-wide) var(--gap-wide) 0;
  min-height: 0;
}
.intent {
  grid-row: 1;
}
.picture {
  display: grid;
  grid-template-rows: auto 1fr auto auto;
  min-height: 0;
  min-width: 0;
}
.picture > :nth-last-child(3) {
  grid-row: 2;
}
.picture > :nth-last-child(2) {
  grid-row: 3;
}
.picture > :last-child {
  grid-row: 4;
}
.upper > :last-child {
  margin-bottom: var(--gap);
}
.lower {
  display: grid;
  grid-template-columns: minmax(0, 1.9fr) minmax(280px, 1fr);
  min-height: 0;
  background: var(--panel);
}
@media (max-width: 1100px) {
  .upper {
    grid-template-columns: min(calc(100vw - 360px), calc((100vh - 464px) * 16 / 9)) 1fr;
  }
}
</style>
