// The readings' worker: measures the exact frame when the hand rests, part by part, and stops where it is overtaken.
import { gradeAt, type PlanCache } from '@core/grade'
import {
  gradedPicture,
  measureInParts,
  pixelsBehind,
  type Finding,
  type MeasuredPicture,
  type Pointed,
  type ReadingId,
} from '@core/readings'
import { serve, transferring, type CallContext } from './calls'
import { loadGradedFrame, loadLutsOf, lutAtHand } from './frame-source'
import { litImage } from './lit-image'
import type { GradedFrame, Lit } from './messages'

export interface ReadPicture extends GradedFrame {
  readonly sourceBits: number
}

const built: PlanCache = new Map()

async function pictureFor({ sourceBits, ...graded }: ReadPicture): Promise<MeasuredPicture> {
  const source = await loadGradedFrame(graded)
  await loadLutsOf(graded.grade)
  return gradedPicture(source, sourceBits, gradeAt(graded.grade, graded.frameIndex), lutAtHand, built)
}

const functions = {
  /** All that is found in the picture; what was found before it was cancelled, where it was. */
  async measure(
    { pointed, ...asked }: ReadPicture & { readonly pointed: Pointed },
    { signal }: CallContext,
  ): Promise<readonly Finding[]> {
    const picture = await pictureFor(asked)
    const found: Finding[] = []
    for (const findings of measureInParts(picture, pointed)) {
      found.push(...findings)
      // Lets a cancel in.
      await new Promise((go) => setTimeout(go))
      if (signal.aborted) break
    }
    return found
  },
  /** The pixels behind a reading. */
  async pixels({ of, ...asked }: ReadPicture & { readonly of: ReadingId }): Promise<Lit> {
    const picture = await pictureFor(asked)
    const marks = pixelsBehind(picture, of)
    const lit = marks && litImage(marks, picture.shown)
    return lit ? transferring({ lit: lit.image, share: lit.share }, [lit.image.rgba.buffer]) : { lit: null, share: 0 }
  },
}
export type ReadingsFunctions = typeof functions
serve(functions)
