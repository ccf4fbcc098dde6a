// What the other way between a LUT's entries would change in a picture.
import { sampleSignal, type Frame } from '../image'
import { buildChain, type LutFinder } from './chain'
import { evaluateDirect } from './direct'
import type { GradeDocument } from './document'
import { setParameter } from './edits'
import { positionsIn } from './rasters'
import { signalError, type DifferenceReport } from './plan-error'

/**
 * Between the picture with a LUT step tetrahedral and the same trilinear, on about `samples` pixels; null where the
 * step does nothing.
 */
export function interpolationDifference(
  grade: GradeDocument,
  lut: LutFinder,
  frame: Frame,
  stepId: string,
  samples = 3000,
): DifferenceReport | null {
  const step = grade.steps.find((s) => s.id === stepId && s.kind === 'lut' && s.enabled && s.strength > 0)
  if (!step || typeof step.params['lutHash'] !== 'string' || !lut(step.params['lutHash'])) return null
  const stride = Math.max(1, Math.floor((frame.width * frame.height) / samples)) | 1
  const [first, second] = ['tetrahedral', 'trilinear'].map((way) => {
    const pixels = sampleSignal(frame, stride)
    const chain = buildChain(setParameter(grade, stepId, 'interpolation', way), lut)
    evaluateDirect(chain, pixels, positionsIn(chain, frame, stride))
    return pixels
  })
  return first && second ? signalError(first, second, grade.show.displayId) : null
}
