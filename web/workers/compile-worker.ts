// Makes grades ready to be played, while another thread plays.
import { dragSize, playable, playCache, type CodeSpan, type GradeDocument, type Passes } from '@core/grade'
import { serve } from './calls'
import { loadLutsOf, lutAtHand } from './frame-source'
import { sharedPasses } from './shared-memory'

const played = playCache(new Map())

const functions = {
  async playable({ grade, low, high }: { readonly grade: GradeDocument } & CodeSpan): Promise<Passes> {
    await loadLutsOf(grade)
    return sharedPasses(playable(grade, lutAtHand, { low, high }, dragSize, played))
  },
}
export type CompileFunctions = typeof functions
serve(functions)
