// Split the difference: a shot and its reference each come half of the way to the other, or neither moves.
import type { ShotProposal, ShotSummary } from '@contracts/responses'
import { cutTo } from '@core/names'
import { post, request, sentenceOf } from '../../api/client'
import { useGrade } from '../../stores/grade'
import { useOpenShot } from '../../stores/open-shot'
import type { Continuity } from './useContinuity'

export function useSplit(scene: Continuity, onFault: (words: string) => void) {
  const grade = useGrade()
  const openShot = useOpenShot()
  const halfOf = async (shot: ShotSummary, other: ShotSummary) => {
    const proposal = await request<ShotProposal>(`/shots/${shot.id}/match/${other.id}`)
    const half = proposal.choices.find((c) => c.id === 'half')
    return half && { half, proposal }
  }
  async function between(shot: ShotSummary, reference: ShotSummary | null): Promise<void> {
    if (!reference) return
    try {
      await grade.commit()
      // Both are asked before either moves: each is half of the present difference.
      const both = await Promise.all([halfOf(shot, reference), halfOf(reference, shot)])
      for (const [i, found] of both.entries()) {
        if (!found) continue
        const other = i === 0 ? reference : shot
        await post(`/shots/${found.proposal.shotId}/revisions`, {
          parentId: found.proposal.headId,
          summary: cutTo(`Half-way to ${other.name}`, 400),
          why: { kind: 'matched', aims: [cutTo(found.half.sentence, 200)], from: other.headId },
          grade: found.half.grade,
        })
      }
      await openShot.reopen(shot.id)
      await scene.load()
    } catch (error) {
      onFault(sentenceOf(error))
    }
  }
  return { between }
}
