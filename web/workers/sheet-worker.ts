// A contact sheet's worker: the small picture is made once, then goes through one LUT or recipe after another.
import { applyRecipe, compile, execute, gradeAt, missingLuts, packSignal } from '@core/grade'
import type { Frame } from '@core/image'
import { sheetBase, sheetFacts, throughLut, type SheetBase, type SheetFacts } from '@core/lut-bench'
import { loadFrame, loadLut, lutAtHand } from './frame-source'
import type { SheetAnswer, SheetItem, SheetPicture, SheetPreparation, SheetRequest } from './sheet-messages'

const scope = self as unknown as {
  onmessage: ((e: MessageEvent<SheetRequest | SheetPreparation>) => void) | null
  postMessage: (m: SheetAnswer, transfer?: Transferable[]) => void
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

async function answer({ id, generation, picture, item, strength }: SheetRequest): Promise<void> {
  const made = await make(picture, item, strength)
  scope.postMessage({ id, generation, ...made }, [made.image.rgba.buffer])
}

// One after the other: what is asked for first is seen first.
let line: Promise<void> = Promise.resolve()
scope.onmessage = ({ data }) => {
  // What fails here fails again, and is said, when its turn comes.
  if ('prepare' in data)
    return void (data.item ? make(data.prepare, data.item, 1) : baseOf(data.prepare)).catch(() => undefined)
  // While one LUT is worked on, the next is on its way.
  if (data.item.kind === 'lut') void loadLut(data.item.hash).catch(() => undefined)
  line = line
    .then(() => answer(data))
    .catch((error: unknown) =>
      scope.postMessage({
        id: data.id,
        generation: data.generation,
        fault: error instanceof Error ? error.message : String(error),
      }),
    )
}
