// The scene in motion: its shots played in order with their cuts, or one cut again and again.
import { computed, onScopeDispose, ref, watch } from 'vue'
import type { ShotDetail, ShotSummary } from '@contracts/responses'
import { request, sentenceOf } from '../../api/client'
import type { BenchRenderer } from '../../composables/useBenchRenderer'
import { useGrade } from '../../stores/grade'
import { useView } from '../../stores/view'
import { mostReady, type PlayedClip, type Viewing } from '../../workers/messages'
import { text } from './text'
import { mediumOf } from '../../workers/medium'

/** So much before and after a cut is played. */
const aboutCutSeconds = 2
const restMs = 1500

export function useScenePlay(
  renderer: BenchRenderer,
  shots: () => readonly ShotSummary[],
  onFault: (words: string) => void,
) {
  const grade = useGrade()
  const view = useView()
  const place = ref(0)
  const clips = ref<readonly PlayedClip[]>([])
  const viewing: Viewing = {
    instruments: view.instruments,
    visible: [],
    tap: 'finish',
    part: null,
    follow: null,
    overlay: null,
    matte: null,
    reference: false,
  }
  const rateOf = (shot: ShotSummary): number => {
    const rate = shot.played ?? { numerator: shot.media.rateNumerator, denominator: shot.media.rateDenominator }
    return rate.numerator / rate.denominator
  }

  /** The shots as clips one after another; each grade as it is saved now. */
  async function rowOf(row: readonly ShotSummary[]): Promise<readonly PlayedClip[]> {
    const details = await Promise.all(row.map((s) => request<ShotDetail>(`/shots/${encodeURIComponent(s.id)}`)))
    let at = 0
    return details.map((shot) => {
      const clip = {
        medium: mediumOf(shot),
        grade: shot.revision.grade,
        first: shot.firstFrame,
        count: shot.frameCount,
        at,
      }
      at += shot.frameCount
      return clip
    })
  }
  async function play(row: readonly ShotSummary[], loop: boolean, about: 'all' | 'cut'): Promise<void> {
    const [firstShot] = row
    if (!firstShot) return
    const waiting = row.filter((s) => !s.proxy)
    if (waiting.length > 0) return onFault(text.noProxy(waiting.map((s) => s.name).join(', ')))
    try {
      await grade.commit()
      const made = await rowOf(row)
      clips.value = made
      const end = made.reduce((sum, c) => sum + c.count, 0) - 1
      const framesPerSecond = rateOf(firstShot)
      const near = Math.round(aboutCutSeconds * framesPerSecond)
      const cut = made[1]?.at ?? 0
      const [first, last] = about === 'cut' ? [Math.max(0, cut - near), Math.min(end, cut + near - 1)] : [0, end]
      place.value = first
      renderer.playClips(
        { clips: made, asShot: false, viewing, plan: { from: first, first, last, speed: 1, loop, framesPerSecond } },
        (now) => {
          place.value = now
        },
      )
    } catch (error) {
      onFault(sentenceOf(error))
    }
  }
  // While nobody plays and nothing changes, what will be played is made ready.
  let resting: ReturnType<typeof setTimeout> | undefined
  watch(
    () =>
      renderer.playing.value
        ? ''
        : shots()
            .map((s) => `${s.id} ${s.headId} ${s.proxy === null}`)
            .join(),
    (row) => {
      clearTimeout(resting)
      if (row === '') return
      resting = setTimeout(() => {
        const playable = shots().filter((s) => s.proxy)
        void rowOf(playable.slice(0, mostReady))
          .then((ready) => renderer.ask('prepareClips', { clips: ready }))
          .catch(() => undefined)
      }, restMs)
    },
    { immediate: true },
  )
  onScopeDispose(() => clearTimeout(resting))

  const clipNow = computed(() => clips.value.find(({ at, count }) => place.value >= at && place.value < at + count))
  return {
    playing: renderer.playing,
    /** Where it is, counted through all that plays, and where each clip of it begins. */
    place,
    begins: computed(() => clips.value.map((c) => c.at)),
    counts: computed(() => renderer.counts.value ?? { shown: 0, dropped: 0 }),
    /** The shot and the frame of its medium that is on screen. */
    now: computed(() => {
      const clip = clipNow.value
      const shot = clip && shots().find((s) => s.media.hash === clip.medium.hash && s.firstFrame === clip.first)
      return clip && shot ? { shot, frame: clip.first + place.value - clip.at } : null
    }),
    stop: renderer.pause,
    toggle: () => (renderer.playing.value ? renderer.pause() : void play(shots(), false, 'all')),
    playCut: (id: string | undefined) => {
      const at = shots().findIndex((s) => s.id === id)
      if (at > 0) void play(shots().slice(at - 1, at + 1), true, 'cut')
    },
    lookAsShot: (asShot: boolean) => renderer.lookAt({ asShot, viewing }),
  }
}
export type ScenePlay = ReturnType<typeof useScenePlay>
