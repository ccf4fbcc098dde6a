// Set-ups told by their pictures, as a thread is asked for them.
import { layoutOf, setupsOf, type Layout, type SetupShot } from '@core/continuity'
import { smallFrameOfDecoded } from '@core/image'
import type { SourceFrame } from './kept'

/** Larger than the layout's own cells, so that what is averaged is the picture. */
const looked = { width: 256, height: 144 } as const

export const sourceLayout = ({ source }: { readonly source: SourceFrame }): Layout =>
  layoutOf(smallFrameOfDecoded(source, looked.width, looked.height))

/** Comparing all with all takes a moment in a long scene. */
export const groupSetups = ({ shots }: { readonly shots: readonly SetupShot[] }): readonly (readonly number[])[] =>
  setupsOf(shots)
