// The aims' worker: solves on the exact frame, with the frames about it that the grade looks at. Of several questions
// under way only the last is answered.
import { solveAims, type Aim, type ControlId, type Solution } from '@core/aims'
import type { Frame } from '@core/image'
import { serve, type CallContext } from './calls'
import { loadGradedFrame, loadLutsOf, lutAtHand } from './frame-source'
import type { GradedFrame } from './messages'

export interface AimsQuestion extends GradedFrame {
  readonly aims: readonly Aim[]
  readonly locked: readonly ControlId[]
}

async function solve(question: AimsQuestion, { signal }: CallContext): Promise<Solution | null> {
  const { medium, frameIndex, grade, aims, locked } = question
  const load = (index: number): Promise<Frame> => loadGradedFrame({ medium, frameIndex: index, grade })
  const frame = await load(frameIndex)
  await loadLutsOf(grade)
  const frames = new Map<number, Frame>()
  for (const index of new Set(aims.flatMap((a) => a.frame ?? [])))
    if (index !== frameIndex) frames.set(index, await load(index))
  // Lets a cancel in.
  await new Promise((go) => setTimeout(go))
  if (signal.aborted) return null
  return solveAims({ grade, frameIndex, lut: lutAtHand, frame, frames, aims, locked: new Set(locked) })
}

const functions = { solve }
export type AimsFunctions = typeof functions
serve(functions)
