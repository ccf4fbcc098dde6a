// Moments of a clip through the grade, small, so that a control is judged on all of them while it moves.
import { compile, execute, gradeAt, packSignal, previewPasses, type GradeDocument, type PlanCache } from '@core/grade'
import type { TraceImage } from '@core/instruments'
import { serve, transferring } from './calls'
import { loadFrame, loadLutsOf, lutAtHand } from './frame-source'
import { ownDisplayId } from './tile'

export interface MomentQuestion {
  readonly mediaHash: string
  readonly frameIndex: number
  readonly grade: GradeDocument
}
const built: PlanCache = new Map()

const functions = {
  async draw({ mediaHash, frameIndex, grade }: MomentQuestion): Promise<TraceImage> {
    const now = gradeAt(grade, frameIndex)
    const [frame] = await Promise.all([
      loadFrame({ mediaHash, index: frameIndex, range: now.read.range, size: 'sheet' }),
      loadLutsOf(now),
    ])
    const { width, height } = frame
    const rgba = new Uint8ClampedArray(width * height * 4)
    const shown = execute(compile(now, lutAtHand, frame, 17, built), frame)
    // As the large picture is looked at on this display.
    const mapping = previewPasses(now.show.displayId, ownDisplayId)
    packSignal((mapping ? execute(mapping, shown) : shown).data, new Uint32Array(rgba.buffer))
    return transferring({ width, height, rgba }, [rgba.buffer])
  },
}
export type MomentFunctions = typeof functions
serve(functions)
