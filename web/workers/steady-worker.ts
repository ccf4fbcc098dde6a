// Keeps a surface as it is along the clip: follows it through the proxy both ways, solves the marks, and looks whether
// they cost anything where they reach furthest.
import { displayById, lumaWeights } from '@core/colour'
import { compile, dragSize, execute, gradeAt, type GradeDocument } from '@core/grade'
import type { Frame } from '@core/image'
import { traceFrame } from '@core/instruments'
import type { Area } from '@core/readings'
import {
  followSurface,
  keepSteady,
  withSteadied,
  type NumberedFrame,
  type Steadied,
  type SteadyKind,
  type SurfaceLoss,
  type SurfaceSample,
  type Unsteady,
} from '@core/steady'
import type { ProxyFacts } from '@contracts/responses'
import { serve, type CallContext } from './calls'
import { loadLutsOf, lutAtHand } from './frame-source'
import type { Medium } from './messages'
import { frameOfProxy, proxyFrames, proxyReaderOf } from './proxy-reader'

export interface SteadyQuestion {
  readonly medium: Medium & { readonly proxy: ProxyFacts }
  readonly grade: GradeDocument
  readonly kind: SteadyKind
  /** The frame that the area was drawn on, and the shot's own. */
  readonly frame: number
  readonly area: Area
  readonly first: number
  readonly last: number
}
/** Share of the pixels that clip or lie at black on a frame, before and after. */
export interface SteadyLoss {
  readonly frame: number
  readonly what: 'clipped' | 'crushed'
  readonly before: number
  readonly after: number
}
export interface SteadyAnswer {
  readonly solved: Steadied | Unsteady
  /** The frames it was followed through, and why it ended early on either side. */
  readonly from: number
  readonly to: number
  readonly lost: SurfaceLoss | null
  readonly losses: readonly SteadyLoss[]
}

const tellEveryMs = 150
/** So much more of the picture lost is worth saying. */
const worthSaying = 0.003

async function steady(
  { medium, grade, kind, frame, area, first, last }: SteadyQuestion,
  { signal, tell }: CallContext<number>,
): Promise<SteadyAnswer | null> {
  const reader = proxyReaderOf(medium)
  const { range } = grade.read
  await loadLutsOf(grade)
  const take = async function* (frames: readonly number[]): AsyncGenerator<NumberedFrame> {
    for await (const picture of proxyFrames(reader, frames)) {
      if (signal.aborted) return
      yield { frame: picture.index, picture: frameOfProxy(picture, medium.proxy, range) }
    }
  }
  const here = await onlyOne(take([frame]))
  const samples = new Map<number, SurfaceSample>()
  let lost: SurfaceLoss | null = null
  let toldAt = performance.now()
  const ahead = Array.from({ length: last - frame }, (_, i) => frame + 1 + i)
  const behind = Array.from({ length: frame - first }, (_, i) => frame - 1 - i)
  for (const way of [ahead, behind]) {
    const following = followSurface(here, area, take(way))
    for (;;) {
      const next = await following.next()
      if (signal.aborted) return null
      if (next.done) {
        lost ??= next.value
        break
      }
      samples.set(next.value.frame, next.value)
      if (performance.now() - toldAt < tellEveryMs) continue
      tell(samples.size / (last - first + 1))
      toldAt = performance.now()
    }
  }
  const found = [...samples.values()].sort((a, b) => a.frame - b.frame)
  const ends = { from: found[0]?.frame ?? frame, to: found.at(-1)?.frame ?? frame, lost }
  if (!samples.has(frame)) return { solved: 'dark', ...ends, losses: [] }
  const solved = keepSteady(kind, grade, lutAtHand, found, frame)
  if (typeof solved === 'string') return { solved, ...ends, losses: [] }
  const steadied = withSteadied(grade, solved)
  const losses: SteadyLoss[] = []
  for await (const { frame: at, picture } of take(furthest(solved)))
    losses.push(...lossesOf(at, picture, grade, steadied))
  return signal.aborted ? null : { solved, ...ends, losses: worstOf(losses) }
}

async function onlyOne(frames: AsyncIterable<NumberedFrame>): Promise<NumberedFrame> {
  for await (const one of frames) return one
  throw new Error('The frame was not to be had.')
}

/** The frames on which the marks reach furthest up and down. */
function furthest({ controls }: Steadied): readonly number[] {
  const frames = controls.flatMap(({ keyframes }) => {
    const sorted = [...keyframes].sort((a, b) => a.value - b.value)
    return [sorted[0], sorted.at(-1)].flatMap((m) => (m ? [m.frame] : []))
  })
  return [...new Set(frames)].sort((a, b) => a - b)
}

function lossesOf(at: number, picture: Frame, was: GradeDocument, is: GradeDocument): readonly SteadyLoss[] {
  const { eotf, carriedPeak, lumaMatrix } = displayById(was.show.displayId)
  const top = Math.round(eotf.encode(carriedPeak) * 65535)
  const trace = (grade: GradeDocument) =>
    traceFrame(
      execute(compile(gradeAt(grade, at), lutAtHand, picture, dragSize, new Map()), picture).data,
      lumaWeights(lumaMatrix),
      top,
    )
  const [before, after] = [trace(was), trace(is)]
  return (['clipped', 'crushed'] as const).map((what) => ({
    frame: at,
    what,
    before: before[what],
    after: after[what],
  }))
}

/** Each kind of loss once, where it is worst. */
const worstOf = (losses: readonly SteadyLoss[]): readonly SteadyLoss[] =>
  (['clipped', 'crushed'] as const).flatMap((what) => {
    const more = losses
      .filter((l) => l.what === what && l.after - l.before > worthSaying)
      .sort((a, b) => b.after - b.before - (a.after - a.before))
    return more.slice(0, 1)
  })

const functions = { steady }
export type SteadyFunctions = typeof functions
serve(functions)
