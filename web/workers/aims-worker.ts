// The aims' worker: solves on the exact frame, with the frames about it that the grade looks at. Of several questions
// under way only the last is answered.
import { solveAims, type Aim, type ControlId, type Solution } from '@core/aims'
import { balance, byFoundCard, type BalanceChoice, type BalanceQuestion, type CardChoice } from '@core/balance'
import { compile, execute, gradeAt } from '@core/grade'
import { fitWithin, shrink, type Frame } from '@core/image'
import type { TraceImage } from '@core/instruments'
import type { Pointed } from '@core/readings'
import { serve, type CallContext } from './calls'
import { loadGradedFrame, loadLutsOf, lutAtHand } from './frame-source'
import { imageOf } from './small-picture'
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

/** Choices for Balance, each with a small picture. */
export interface BalanceAsked extends GradedFrame {
  readonly sourceBits: number
  readonly pointed: Pointed
  /** Other frames of the clip for which a proposal must be good as well: its darkest and brightest. */
  readonly moments: readonly number[]
}
export interface PicturedChoice extends BalanceChoice {
  readonly picture: TraceImage
}
export interface PicturedCardChoice extends CardChoice {
  readonly picture: TraceImage
}
export interface PicturedAnswer {
  readonly choices: readonly PicturedChoice[]
  readonly note: string
}

const smallPicture = { width: 320, height: 180 } as const

async function questionOf({ moments, ...asked }: BalanceAsked): Promise<BalanceQuestion> {
  const { medium, frameIndex, grade, sourceBits, pointed } = asked
  const load = (index: number): Promise<Frame> => loadGradedFrame({ medium, frameIndex: index, grade })
  const frame = await load(frameIndex)
  await loadLutsOf(grade)
  const others = await Promise.all(moments.map(async (index) => ({ index, frame: await load(index) })))
  const clip = { document: grade, index: frameIndex, moments: others }
  return { grade: gradeAt(grade, frameIndex), frame, sourceBits, lut: lutAtHand, pointed, clip }
}

function pictured(frame: Frame): <C extends BalanceChoice>(choice: C) => C & { readonly picture: TraceImage } {
  const { width, height } = fitWithin(frame.width, frame.height, smallPicture.width, smallPicture.height)
  const small = shrink(frame, width, height)
  return (choice) => ({
    ...choice,
    picture: imageOf(execute(compile(choice.grade, lutAtHand, small, previewSize), small)),
  })
}

async function balanceFrame(asked: BalanceAsked): Promise<PicturedAnswer> {
  const question = await questionOf(asked)
  const { note, choices } = balance(question)
  return { note, choices: choices.map(pictured(question.frame)) }
}

/** Asked apart: looking for a card takes longer than all the others together. */
async function cardChoice(asked: BalanceAsked): Promise<PicturedCardChoice | null> {
  const question = await questionOf(asked)
  const found = byFoundCard(question)
  return found && pictured(question.frame)(found)
}
/** Nodes of the lattices of a small picture. */
const previewSize = 17

const functions = { solve, balance: balanceFrame, card: cardChoice }
export type AimsFunctions = typeof functions
serve(functions)
