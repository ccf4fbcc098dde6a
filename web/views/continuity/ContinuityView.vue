<script setup lang="ts">
// Continuity: a scene's shots side by side with the course of what they measure, any two held against each other, and
// the scene in motion.
import { computed, watch } from 'vue'
import { useRouter } from 'vue-router'
import AppHeader from '../../components/AppHeader.vue'
import EmptyState from '../../components/EmptyState.vue'
import ProposalsPanel from '../../components/proposals/ProposalsPanel.vue'
import Notice from '../../components/Notice.vue'
import { useGrade } from '../../stores/grade'
import { useProposals } from '../../stores/proposals'
import { useOpenShot } from '../../stores/open-shot'
import ContinuityBar from './ContinuityBar.vue'
import NoteEntry from './NoteEntry.vue'
import PairPanel from './PairPanel.vue'
import SceneRail from './SceneRail.vue'
import SceneCourse from './SceneCourse.vue'
import { text } from './text'
import { useContinuity } from './useContinuity'
import { usePair, type Side } from './usePair'
import { useSceneKeys } from './useSceneKeys'
import { useScenePlay } from './useScenePlay'
import { useShelf } from './useShelf'
import { useSplit } from './useSplit'

const props = defineProps<{ projectId: string }>()
const router = useRouter()
const proposals = useProposals()
const openShot = useOpenShot()
const grade = useGrade()
const scene = useContinuity(() => props.projectId)
const { fault, shots, lines, jumps, odd, chosen, reference, frameOf } = scene
const say = (words: string): void => {
  fault.value = words
}
const chosenSide = computed<Side | null>(() => chosen.value && { shot: chosen.value, frame: frameOf(chosen.value) })
/** A shot is not held against itself. */
const held = computed(() => {
  const of = reference.value
  return of?.kind === 'shot' && of.shot.id === chosen.value?.id ? null : of
})
const pair = usePair(
  () => chosenSide.value,
  () => held.value,
  say,
)
const motion = useScenePlay(pair.renderer, () => shots.value, say)
const split = useSplit(scene, say)
const shelf = useShelf(
  scene,
  () => chosenSide.value,
  () => motion.now.value,
)

// What is edited here is seen in the course once it is saved.
watch(
  () => (grade.saveState === 'saved' ? grade.revision?.headId : undefined),
  (headId) => {
    const known = scene.current.value?.shots.find((shot) => shot.id === grade.shotId)
    if (headId && known && known.headId !== headId) void scene.load()
  },
)

const open = (id: string): void => void router.push({ name: 'bench', params: { shotId: id } })
function toCut(at: number): void {
  scene.set({ shot: shots.value[at]?.id, ref: shots.value[at - 1]?.id })
}
function step(by: number): void {
  const at = shots.value.findIndex((s) => s.id === chosen.value?.id)
  const next = shots.value[at < 0 ? 0 : Math.min(shots.value.length - 1, Math.max(0, at + by))]
  if (next) scene.choose(next.id)
}
/** The hero of a scene is the reference, else its first shot; of a whole reel, a reference leads its own scene only. */
async function firstPass(): Promise<void> {
  await grade.commit()
  if (shots.value.length < 2) return
  const led = reference.value?.kind === 'shot' ? reference.value.shot : null
  const one = scene.scene.value !== 'all' && led
  const heroes = new Map([...(led ? [led] : []), ...shots.value].toReversed().map((s) => [s.sceneId, s]))
  const heroOf = new Map(shots.value.map((s) => [s.id, one || (heroes.get(s.sceneId) ?? s)]))
  void proposals.start(shots.value, { kind: 'first-pass', heroOf })
}
/** What plays is seen large. */
function play(): void {
  if (!chosen.value) step(0)
  motion.toggle()
}
const keys: Readonly<Record<string, () => void>> = {
  ArrowLeft: () => step(-1),
  ArrowRight: () => step(1),
  Enter: () => chosen.value && open(chosen.value.id),
  r: () => scene.hold(chosen.value?.id),
  ' ': () => play(),
  n: () => shelf.note(),
  s: () => void shelf.keep(),
  x: () => motion.playCut(chosen.value?.id),
  f: () => void firstPass(),
}
useSceneKeys(keys, motion.lookAsShot)
</script>

<template>
  <div class="page">
    <AppHeader
      :project="scene.current.value?.project"
      :shot="openShot.shot?.projectId === projectId ? openShot.shot : null"
    />
    <main class="continuity">
      <ContinuityBar
        :scene="scene"
        :motion="motion"
        @play="play"
        @note="shelf.note"
        @first-pass="firstPass"
      />
      <Notice
        :text="fault"
        @close="fault = ''"
      />
      <NoteEntry
        v-if="shelf.noting.value"
        :of="text.notes.at(shelf.noting.value.shot.name, shelf.noting.value.frame - shelf.noting.value.shot.firstFrame)"
        @save="shelf.saveNote"
        @close="shelf.noting.value = null"
      />
      <ProposalsPanel
        v-if="proposals.projectId === projectId && proposals.entries.length"
        @done="scene.load"
      />
      <EmptyState
        v-if="scene.current.value && shots.length === 0"
        :title="text.empty"
        :hint="text.emptyHint"
      >
        <RouterLink
          class="button"
          :to="{ name: 'reel', params: { projectId } }"
        >
          {{ text.toReel }}
        </RouterLink>
      </EmptyState>
      <template v-else>
        <div class="upper">
          <SceneCourse
            :shots="shots"
            :lines="lines"
            :jumps="jumps"
            :frame-of="frameOf"
            :chosen-id="chosen?.id ?? null"
            :reference-id="reference?.kind === 'shot' ? reference.shot.id : null"
            :odd-id="(odd && shots[odd.shot]?.id) || null"
            @choose="scene.choose"
            @open="open"
          />
          <SceneRail
            :scene="scene"
            :shelf="shelf"
            :chosen="chosenSide"
            :held="held"
            @cut="toCut"
          />
        </div>
        <PairPanel
          v-if="chosenSide"
          class="lower"
          :pair="pair"
          :chosen="chosenSide"
          :reference="held"
          @hold="scene.hold"
          @open="open(chosenSide.shot.id)"
          @split="split.between(chosenSide.shot, held?.kind === 'shot' ? held.shot : null)"
        />
        <p
          v-else
          class="quiet hint"
        >
          {{ text.choose }}
        </p>
      </template>
    </main>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  display: grid;
  grid-template: auto 1fr / minmax(0, 1fr);
  overflow: hidden;
}
.continuity {
  min-height: 0;
  display: flex;
  flex-direction: column;
  gap: var(--gap);
  padding: var(--gap) var(--gap-wide);
}
.upper {
  flex: 1 1 44%;
  min-height: 0;
  display: grid;
  grid-template: minmax(0, 1fr) / minmax(0, 1fr) 260px;
  gap: var(--gap-wide);
}
.lower {
  flex: 1 1 52%;
}
.hint {
  margin: 0;
}
</style>
