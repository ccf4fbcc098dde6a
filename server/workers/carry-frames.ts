// A grade carried to another shot, as a thread is asked for it: its regions and subjects looked for in the other
// picture, and its corrections solved there with the whole clip in view.
import { aimWords, solveAims, wholeClipAims, type Aim, type Solution } from '@core/aims'
import { displayById, lumaWeights } from '@core/colour'
import { compile, executeExactly, gradeAt, type GradeDocument, type PlanCache } from '@core/grade'
import { traceFrame, type FrameTrace } from '@core/instruments'
import {
  carriedArea,
  carriedPlaces,
  carriedRegion,
  lightPicture,
  type CarriedArea,
  type CarriedRegion,
} from '@core/matching'
import { endFindings, gradedPicture, type Area, type Finding, type HouseStandard } from '@core/readings'
import type { Region } from '@core/regions'
import { cutTo } from '@core/names'
import { framesOf, lutFinder, type GradeTask, type SourceFrame } from './kept'

export interface PlacesTask {
  readonly from: GradeTask
  readonly to: GradeTask
  readonly regions: readonly Region[]
  readonly areas: readonly Area[]
  readonly maxWidth: number
  readonly maxHeight: number
}
export interface PlacesAnswer {
  readonly regions: readonly CarriedRegion[]
  /** Null where one would lie outside the picture. */
  readonly areas: readonly (CarriedArea | null)[]
  /** Both show the same things from nearly the same place: what one measures, the other can be brought to. */
  readonly sameView: boolean
}

export function placesThere({ from, to, regions, areas, maxWidth, maxHeight }: PlacesTask): PlacesAnswer {
  const lut = lutFinder([...from.luts, ...to.luts])
  const light = ({ source, grade }: GradeTask) => lightPicture(framesOf({ source }, maxWidth, maxHeight), grade, lut)
  const here = light(from)
  const places = carriedPlaces(here, light(to))
  return {
    sameView: places.sameView,
    regions: regions.map((region) => carriedRegion(region, here, places)),
    areas: areas.map((area) => carriedArea(area, here, places)),
  }
}

export interface CarryTask extends GradeTask {
  /** The grade of the whole clip; `grade` is its state on the frame. */
  readonly document: GradeDocument
  readonly index: number
  /** The grade of the whole clip as it is before. */
  readonly before: GradeDocument
  readonly sourceBits: number
  /** Null where nothing is solved. */
  readonly aims: readonly Aim[] | null
  /** Frames of the clip that it is traced by; the lead frame is among them. */
  readonly moments: readonly { readonly index: number; readonly source: SourceFrame }[]
  readonly standard: HouseStandard
  readonly maxWidth: number
  readonly maxHeight: number
}
export interface CarryAnswer {
  readonly grade: GradeDocument
  /** The aims in words, and why those of the lead frame that are not met are not; other frames stand in `ends`. */
  readonly aims: readonly string[]
  readonly unmet: readonly string[]
  /** What is clipped and crushed on the lead frame, and where the clip is worst afterwards. */
  readonly ends: readonly {
    readonly frame: number
    readonly before: readonly Finding[]
    readonly after: readonly Finding[]
  }[]
}

/** Frames are traced in this size: shares of a picture need no more. */
const traced = { width: 320, height: 180 } as const

export function carryFrames(task: CarryTask): CarryAnswer {
  const { document, index, aims, moments, standard, maxWidth, maxHeight, luts } = task
  const lut = lutFinder(luts)
  const small = new Map(moments.map((m) => [m.index, framesOf({ source: m.source }, traced.width, traced.height)]))
  const first = Math.min(...small.keys())
  const solution =
    aims && solved([...aims, ...wholeClipAims(tracesOf(document), first, standard, tracesOf(task.before))])
  const grade = solution?.grade ?? document
  const traces = tracesOf(grade)
  const most = (value: (trace: FrameTrace) => number): readonly number[] => {
    let at = -1
    let best = 0
    traces.forEach((trace, i) => {
      if (!trace || value(trace) <= best) return
      best = value(trace)
      at = i
    })
    return at < 0 ? [] : [first + at]
  }
  return {
    grade,
    aims: solution?.aims.map(({ aim, met }) => cutTo(`${aimWords(aim)}${met ? '' : ', not met'}`, 200)) ?? [],
    unmet: solution?.aims.filter((a) => !a.met && a.aim.frame === undefined).map((a) => a.why) ?? [],
    ends: [...new Set([index, ...most((t) => t.clipped), ...most((t) => t.crushed)])].map((frame) => ({
      frame,
      before: endsOf(task.before, frame),
      after: endsOf(grade, frame),
    })),
  }

  function endsOf(of: GradeDocument, frame: number): readonly Finding[] {
    const moment = moments.find((m) => m.index === frame)
    if (!moment) return []
    return endFindings(gradedPicture(framesOf(moment, maxWidth, maxHeight), task.sourceBits, gradeAt(of, frame), lut))
  }
  function solved(all: readonly Aim[]): Solution {
    const spoken = new Set(all.flatMap((aim) => aim.frame ?? []))
    return solveAims({
      grade: document,
      frameIndex: index,
      lut,
      frame: framesOf(task, maxWidth, maxHeight),
      frames: new Map(
        moments
          .filter((m) => spoken.has(m.index))
          .map((m) => [m.index, framesOf({ source: m.source }, maxWidth, maxHeight)]),
      ),
      aims: all,
      locked: new Set(),
    })
  }
  /** By frame of the shot, counted from the first that is looked at. */
  function tracesOf(of: GradeDocument): readonly (FrameTrace | undefined)[] {
    const display = displayById(of.show.displayId)
    const topCode = Math.round(display.eotf.encode(display.carriedPeak) * 65535)
    const weights = lumaWeights(display.lumaMatrix)
    const built: PlanCache = new Map()
    const traces: (FrameTrace | undefined)[] = []
    for (const [at, frame] of small)
      traces[at - first] = traceFrame(
        executeExactly(compile(gradeAt(of, at), lut, frame, 33, built), frame).data,
        weights,
        topCode,
      )
    return Array.from(traces)
  }
}
