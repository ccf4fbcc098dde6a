// What is kept of a scene while it is looked at: stills on the shelf, notes at moments, grades carried from stills.
import { shallowRef } from 'vue'
import { carriedStations } from '@core/aims'
import { cutTo } from '@core/names'
import { checked } from '@contracts/check'
import type { ShotSummary, Still } from '@contracts/responses'
import { NewMomentNote } from '@contracts/stills'
import { post, request } from '../../api/client'
import { useGrade } from '../../stores/grade'
import { useProposals } from '../../stores/proposals'
import { useStills } from '../../stores/stills'
import type { Continuity } from './useContinuity'
import type { Side } from './usePair'

export function useShelf(scene: Continuity, chosen: () => Side | null, onScreen: () => Side | null) {
  const stills = useStills()
  const grade = useGrade()
  const proposals = useProposals()
  /** The moment that is being noted. */
  const noting = shallowRef<{ readonly shot: ShotSummary; readonly frame: number } | null>(null)
  const { attempt } = scene

  return {
    noting,
    keep: () =>
      attempt(async () => {
        const of = chosen()
        if (!of) return
        await grade.commit()
        const name = cutTo(`${of.shot.name}, frame ${of.frame - of.shot.firstFrame}`, 80)
        await stills.keep({ shotId: of.shot.id, frame: of.frame, name })
      }),
    /** The grade of a still, proposed for the chosen shot. */
    carry: ({ name, from }: Still) =>
      attempt(async () => {
        const to = chosen()
        const reference = scene.current.value?.shots.find((s) => s.id === from?.shotId)
        if (!to || !from || !reference) return
        await grade.commit()
        await proposals.start([to.shot], {
          kind: 'carry',
          reference,
          stations: carriedStations,
          solve: true,
          kept: { revisionId: from.revisionId, frame: from.frame, name },
        })
      }),
    note: () => {
      noting.value = onScreen() ?? chosen()
    },
    saveNote: (words: string) => {
      const at = noting.value
      return attempt(async () => {
        if (!at) return
        await post(`/shots/${at.shot.id}/notes`, checked(NewMomentNote, { frame: at.frame, words }))
        await scene.load()
      })
    },
    removeNote: (id: string) =>
      attempt(async () => {
        await request(`/notes/${id}`, { method: 'DELETE' })
        await scene.load()
      }),
  }
}
export type Shelf = ReturnType<typeof useShelf>
