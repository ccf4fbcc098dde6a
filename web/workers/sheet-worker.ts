// A contact sheet's worker: the small picture is made once, then goes through one LUT or recipe after another.
import {
  applyRecipe,
  compile,
  execute,
  gradeAt,
  missingLuts,
  packSignal,
  type GradeDocument,
  type RecipeContent,
} from '@core/grade'
import type { CodeRange, Frame } from '@core/image'
import { sheetBase, sheetFacts, throughLut, type LutPlace, type SheetBase, type SheetFacts } from '@core/lut-bench'
import type { Area } from '@core/readings'
import { serve, transferring } from './calls'
import { loadFrame, loadLut, lutAtHand } from './frame-source'

/** The picture that goes through everything. */
export interface SheetPicture {
  readonly mediaHash: string
  readonly frameIndex: number
  readonly range: CodeRange
  readonly grade: GradeDocument
  /** A person's skin in it. */ readonly skin: Area | null
}
export type SheetItem =
  | { readonly kind: 'plain' }
  | { readonly kind: 'lut'; readonly hash: string; readonly place: Pick<LutPlace, 'place' | 'takes'> }
  | { readonly kind: 'recipe'; readonly content: RecipeContent }
export interface SheetQuestion {
  readonly picture: SheetPicture
  readonly item: SheetItem
  readonly strength: number
}

let kept: { readonly key: string; readonly made: Promise<{ readonly frame: Frame; readonly base: SheetBase }> } | null =
  null
function baseOf(picture: SheetPicture): Promise<{ readonly frame: Frame; readonly base: SheetBase }> {
  const key = JSON.stringify({ ...picture, skin: null })
  if (kept?.key === key) return kept.made
  const made = (async () => {
    const grade = gradeAt(picture.grade, picture.frameIndex)
    const [frame] = await Promise.all([
      loadFrame({ mediaHash: picture.mediaHash, index: picture.frameIndex, range: picture.range, size: 'sheet' }),
      ...missingLuts(grade, lutAtHand).map(loadLut),
    ])
    return { frame, base: sheetBase(grade, lutAtHand, frame) }
  })()
  kept = { key, made }
  // A picture that could not be had is asked for again.
  made.catch(() => {
    if (kept?.made === made) kept = null
  })
  return made
}

interface Made {
  readonly image: { readonly width: number; readonly height: number; readonly rgba: Uint8ClampedArray<ArrayBuffer> }
  readonly facts: SheetFacts
}

async function make(picture: SheetPicture, item: SheetItem, strength: number): Promise<Made> {
  const { frame, base } = await baseOf(picture)
  let signal: Uint16Array
  if (item.kind === 'lut') signal = throughLut(base, await loadLut(item.hash), item.place, strength)
  else if (item.kind === 'recipe') {
    const grade = applyRecipe(base.grade, {
      ...item.content,
      steps: item.content.steps.map((s) => ({ ...s, strength: s.strength * strength })),
    })
    await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
    signal = execute(compile(grade, lutAtHand, frame, 17), frame).data
  } else signal = Uint16Array.from(base.signal, (v) => Math.min(1, Math.max(0, v)) * 65535 + 0.5)
  const facts = sheetFacts(base, signal, picture.skin)
  const rgba = new Uint8ClampedArray(frame.width * frame.height * 4)
  packSignal(signal, new Uint32Array(rgba.buffer))
  return { image: { width: frame.width, height: frame.height, rgba }, facts }
}

// One after the other: what is asked for first is seen first.
let line: Promise<unknown> = Promise.resolve()

const functions = {
  /** Fetches and tries what will be asked for soon. What fails here fails again, and is said, when its turn comes. */
  async prepare({ picture, item }: { readonly picture: SheetPicture; readonly item: SheetItem | null }): Promise<void> {
    await (item ? make(picture, item, 1) : baseOf(picture)).catch(() => undefined)
  },
  /** The picture through one LUT or recipe. */
  through({ picture, item, strength }: SheetQuestion): Promise<Made> {
    // While one LUT is worked on, the next is on its way.
    if (item.kind === 'lut') void loadLut(item.hash).catch(() => undefined)
    const made = line.then(() => make(picture, item, strength))
    line = made.catch(() => undefined)
    return made.then((done) => transferring(done, [done.image.rgba.buffer]))
  },
}
export type SheetFunctions = typeof functions
serve(functions)
