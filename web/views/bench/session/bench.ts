// The Bench as one session: the shot, its grade, the frame, the picture, playing, readings, aims and regions. It is
// made once for the view and injected by everything in it.
import { computed, inject, provide, ref, watch, type InjectionKey } from 'vue'
import { displayById, lumaWeights } from '@core/colour'
import { gradeAt, needsMapping, otherGamma, type StationId } from '@core/grade'
import type { Area } from '@core/readings'
import { sameWhileEqual } from '../../../composables/sameWhileEqual'
import { useBenchRenderer, type Wanted } from '../../../composables/useBenchRenderer'
import { useClipTrace } from '../../../composables/useClipTrace'
import { useReadings } from '../../../composables/useReadings'
import { useAims, type Remembered } from '../../../stores/aims'
import { useBalance } from '../../../stores/balance'
import { useGrade } from '../../../stores/grade'
import { usePlacing } from '../../../stores/placing'
import { useRegions } from '../../../stores/regions'
import { useStandards } from '../../../stores/standards'
import { useTracking } from '../../../stores/tracking'
import { useView } from '../../../stores/view'
import { ownDisplayId } from '../../../workers/tile'
import { useSkinHandles } from '../aims/useSkinHandles'
import { extremeFrames } from '../readings/clip-extremes'
import { useRegionQuestions } from '../regions/useRegionQuestions'
import { text } from '../text'
import { useAiming } from '../useAiming'
import { useBalancing } from '../useBalancing'
import { useComparing } from '../useComparing'
import { useMarking } from '../useMarking'
import { usePlayback } from '../usePlayback'
import { usePointing } from '../usePointing'
import { useProbing } from '../useProbing'
import { useViewing } from '../useViewing'
import { useBenchClosing } from './useBenchClosing'
import { useBenchShot } from './useBenchShot'
import { useDetachedWindows } from './useDetachedWindows'
import { useLitPixels } from './useLitPixels'
import { useSetupCheck } from './useSetupCheck'
import { useStationQuestions } from './useStationQuestions'

function createBench(shotId: () => string) {
  const grade = useGrade()
  const aims = useAims()
  const balance = useBalance()
  const placing = usePlacing()
  const regions = useRegions()
  const tracking = useTracking()
  const standards = useStandards()
  const view = useView()
  const renderer = useBenchRenderer()
  const fault = ref('')
  const say = (sentence: string): void => {
    fault.value = sentence
  }

  const opened = useBenchShot(shotId, fault, renderer.playing)
  const { shot, medium, first, last } = opened
  const heldAsShot = ref(false)
  const asShot = computed(() => view.asShot !== heldAsShot.value)
  /** The shot's grade with marks along the clip; null until it is open. */
  const document = computed(() => (shot.value && grade.shotId === shot.value.id ? grade.document : null))
  /** What is looked at before it is kept: a recipe on its way in, or what the aims come to. */
  const proposal = computed(() => placing.proposal ?? balance.proposal ?? aims.proposal)
  const whole = computed(() => proposal.value ?? document.value)

  const marking = useMarking(() => regions.region)
  const pointing = usePointing(
    () => view.frame,
    (area) => renderer.ask('skin', { area, cast: readings.cast.value }),
  )
  const subject = (): Area | null => pointing.subjects.value[0] ?? null
  /** Looked at as at the other usual display gamma. */
  const gamma = computed(() =>
    view.otherGamma && document.value ? otherGamma(displayById(document.value.show.displayId)) : null,
  )
  const { detached, detach } = useDetachedWindows({
    renderer,
    shot,
    document,
    aspect: () => opened.aspect.value,
    exponent: () => gamma.value?.exponent ?? 1,
  })
  const { viewing, setVisible, toggleReference } = useViewing(renderer, () => detached.value, subject, say)
  const probing = useProbing(renderer)

  // The picture follows the document, the frame and the choice of view.
  const wanted = computed<Wanted | null>(() =>
    medium.value && document.value
      ? {
          medium: medium.value,
          frameIndex: view.frame,
          grade: proposal.value ?? marking.seenGrade.value ?? document.value,
          asShot: asShot.value,
          viewing: viewing.value,
        }
      : null,
  )
  watch(wanted, (now) => {
    if (now) renderer.show(now)
  })

  void standards.load().catch(() => undefined)
  const standard = computed(() => standards.byId(shot.value?.standardId ?? ''))
  /** The picture rests, and is the grade's own: nothing is left out of it or shown for a moment. */
  const canBeRead = computed(
    () =>
      renderer.settled.value &&
      !renderer.playing.value &&
      !tracking.running &&
      !asShot.value &&
      !view.bypassed &&
      !view.withoutStep,
  )
  const readings = useReadings(
    () =>
      canBeRead.value && medium.value && shot.value && whole.value
        ? {
            medium: medium.value,
            frameIndex: view.frame,
            sourceBits: shot.value.media.bitDepth,
            grade: whole.value,
            pointed: pointing.pointed.value,
          }
        : null,
    () => standard.value,
    () => ({ first: first.value, last: last.value }),
  )
  const lit = useLitPixels(renderer, readings, marking, probing, wanted)
  const partColour = computed<Remembered | null>(() => {
    const facts = renderer.result.value?.partFacts
    if (!facts || !shot.value || !document.value) return null
    const weights = lumaWeights(displayById(document.value.show.displayId).lumaMatrix)
    const [r, g, b] = facts.means
    const luma = weights.red * r + weights.green * g + weights.blue * b
    return {
      name: text.compare.name(shot.value.name, view.frame - first.value, false),
      luma,
      cb: (b - luma) / weights.cbDivisor,
      cr: (r - luma) / weights.crDivisor,
    }
  })

  const scrubbing = ref(false)
  const trace = useClipTrace(
    () =>
      medium.value && whole.value
        ? { medium: medium.value, grade: whole.value, first: first.value, count: shot.value?.frameCount ?? 1 }
        : null,
    () => renderer.playing.value || scrubbing.value || !renderer.settled.value || tracking.running,
  )
  const aiming = useAiming({
    shotId: () => (document.value ? grade.shotId : null),
    subject: () =>
      medium.value && document.value ? { medium: medium.value, frameIndex: view.frame, grade: document.value } : null,
    findings: () => readings.findings.value,
    fresh: () => readings.fresh.value,
    standard: () => standard.value,
    pointed: () => pointing.pointed.value,
    part: () => {
      const { value: part } = marking.drawnPart
      return part && { left: part.left, top: part.top, right: part.right, bottom: part.bottom }
    },
    partColour: () => partColour.value,
    traces: () => ({ traces: trace.traces.value, first: first.value }),
  })
  const balancing = useBalancing(() =>
    medium.value && document.value && shot.value
      ? {
          medium: medium.value,
          frameIndex: view.frame,
          grade: document.value,
          sourceBits: shot.value.media.bitDepth,
          pointed: pointing.pointed.value,
          moments: extremeFrames(trace.traces.value, first.value).filter((index) => index !== view.frame),
        }
      : null,
  )
  const questions = useStationQuestions(renderer, opened, pointing, asShot)
  const regionQuestions = useRegionQuestions(
    renderer,
    subject,
    () => (medium.value ? { medium: medium.value, first: first.value, last: last.value } : null),
    () => opened.aspect.value,
    say,
  )
  const comparing = useComparing(() => {
    const { value: now } = renderer.shown
    if (!now || !shot.value) return null
    return { image: now.picture, name: text.compare.name(shot.value.name, view.frame - first.value, asShot.value) }
  }, say)
  const playback = usePlayback(
    renderer,
    () => wanted.value,
    () => ({ first: first.value, last: last.value, framesPerSecond: opened.framesPerSecond.value }),
    (frame) => {
      view.frame = frame
    },
  )
  // Another shot is another clip.
  watch(shotId, playback.stop)
  useBenchClosing()
  const setupCheck = useSetupCheck(() => shot.value)

  function go(frame: number): void {
    playback.stop()
    view.frame = opened.clampFrame(frame)
  }

  /** Says so when the display is brighter or wider than what the picture is looked at on. */
  const mapping = computed(() => {
    const display = document.value && displayById(document.value.show.displayId)
    return display && !asShot.value && needsMapping(display, displayById(ownDisplayId)) ? text.mapped(display.name) : ''
  })

  return {
    fault,
    ...opened,
    document,
    whole,
    /** The grade as it is at this frame, with what is proposed. */
    present: computed(() => whole.value && gradeAt(whole.value, view.frame)),
    asShot,
    holdAsShot: (held: boolean): void => {
      heldAsShot.value = held
    },
    renderer,
    viewing,
    setVisible,
    toggleReference,
    marking,
    probing,
    pointing,
    standard,
    readings,
    noise: computed(() => readings.findings.value.find((f) => f.id === 'noise')?.value ?? null),
    lit,
    skins: useSkinHandles(renderer, () => (renderer.playing.value || asShot.value ? [] : pointing.subjects.value)),
    scrubbing,
    trace,
    aiming,
    balancing,
    questions,
    regionQuestions,
    comparing,
    setupCheck,
    playback,
    gamma,
    /** What must be known about how the picture is shown. */
    note: computed(() => {
      const other = gamma.value ? text.otherGamma(gamma.value.gamma) : ''
      return [mapping.value, other].filter((n) => n !== '').join(' · ')
    }),
    /** Frames at which a control is marked. */
    markedFrames: sameWhileEqual(() => [
      ...new Set((document.value?.animation ?? []).flatMap((m) => m.keyframes.map((keyframe) => keyframe.frame))),
    ]),
    go,
    /** To the next moment of the clip that is worth a look. */
    nextMoment: (): void => {
      const { value: moments } = trace.moments
      const next = moments.find((m) => m.frame > view.frame) ?? moments[0]
      if (next) go(next.frame)
    },
    openStation: (id: StationId): void => {
      view.station = id
    },
    detach,
  }
}

export type Bench = ReturnType<typeof createBench>
const benchKey: InjectionKey<Bench> = Symbol('bench')

/** Makes the session; called once, by the view. */
export function provideBench(shotId: () => string): Bench {
  const bench = createBench(shotId)
  provide(benchKey, bench)
  return bench
}

/** The session that a part of the Bench stands in. */
export function useBench(): Bench {
  const bench = inject(benchKey)
  if (!bench) throw new Error('This part stands on no Bench.')
  return bench
}
