// A contact sheet's worker: the small picture is made once, then goes through one LUT or recipe after another.
import { applyRecipe, compile, execute, fitWithin, gradeAt, missingLuts, packSignal, sheetBase, sheetFacts, shrink, throughLut, type Frame, type SheetBase } from '@core/index'
import { loadFrame, loadLut, lutAtHand } from './frame-source'
import type { SheetAnswer, SheetPicture, SheetRequest } from './sheet-messages'

const scope = self as unknown as { onmessage: ((e: MessageEvent<SheetRequest>) => void) | null; postMessage: (m: SheetAnswer, transfer?: Transferable[]) => void }
const small = { width: 192, height: 108 } as const

let kept: { readonly key: string; readonly made: Promise<{ readonly frame: Frame; readonly base: SheetBase }> } | null = null
function baseOf(picture: SheetPicture): Promise<{ readonly frame: Frame; readonly base: SheetBase }> {
  const key = JSON.stringify(picture)
  if (kept?.key === key) return kept.made
  const made = (async () => {
    const source = await loadFrame({ mediaHash: picture.mediaHash, index: picture.frameIndex, range: picture.range }), { width, height } = fitWithin(source.width, source.height, small.width, small.height)
    const grade = gradeAt(picture.grade, picture.frameIndex), frame = shrink(source, width, height)
    await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
    return { frame, base: sheetBase(grade, lutAtHand, frame) }
  })()
  kept = { key, made }
  return made
}

async function answer({ id, generation, picture, item, strength }: SheetRequest): Promise<void> {
  const { frame, base } = await baseOf(picture)
  let signal: Uint16Array
  if (item.kind === 'lut') signal = throughLut(base, await loadLut(item.hash), item.place, strength)
  else if (item.kind === 'recipe') {
    const grade = applyRecipe(base.grade, { ...item.content, steps: item.content.steps.map((s) => ({ ...s, strength: s.strength * strength })) })
    await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
    signal = execute(compile(grade, lutAtHand, frame, 17), frame).data
  } else signal = Uint16Array.from(base.signal, (v) => Math.min(1, Math.max(0, v)) * 65535 + 0.5)
  const facts = sheetFacts(base, signal, picture.skin), rgba = new Uint8ClampedArray(frame.width * frame.height * 4)
  packSignal(signal, new Uint32Array(rgba.buffer))
  scope.postMessage({ id, generation, image: { width: frame.width, height: frame.height, rgba }, facts }, [rgba.buffer])
}

// One after the other: what is asked for first is seen first.
let line: Promise<void> = Promise.resolve()
scope.onmessage = ({ data }) => {
  line = line.then(() => answer(data)).catch((error: unknown) => scope.postMessage({ id: data.id, generation: data.generation, fault: error instanceof Error ? error.message : String(error) }))
}
