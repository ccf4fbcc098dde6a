// What the chosen shot is held against: another shot as it is, or a still of the shelf.
import type { ShotSummary, Still } from '@contracts/responses'

export type Reference =
  | { readonly kind: 'shot'; readonly shot: ShotSummary; readonly frame: number }
  | {
      readonly kind: 'still'
      readonly still: Still
      /** The shot it was taken of; null where it was imported. */
      readonly of: ShotSummary | null
    }

export const nameOfReference = (r: Reference): string => (r.kind === 'shot' ? r.shot.name : r.still.name)
/** Changes with all that its picture rests on. */
export const keyOfReference = (r: Reference): string =>
  r.kind === 'shot' ? `${r.shot.id} ${r.shot.headId} ${r.frame}` : `still ${r.still.id}`

/** Stills are told from shots by this in the address. */
const stillMark = 'still:'
export const addressOfStill = (id: string): string => `${stillMark}${id}`
export const stillInAddress = (of: unknown): string | null =>
  typeof of === 'string' && of.startsWith(stillMark) ? of.slice(stillMark.length) : null
