// A contact sheet: one small picture through many LUTs, each where it belongs, with the facts by which they are sorted.
import { displayById, toWorkingLog } from '../colour'
import {
  buildChain,
  evaluateDirect,
  intoDomain,
  lutSurroundingsOf,
  operate,
  positionsIn,
  sceneLight,
  type GradeDocument,
  type LutFinder,
} from '../grade'
import type { Frame } from '../image'
import { applyLut, type Lut } from '../luts'
import type { LutPlace } from './advice'
import { lookFacts, shiftOf, type LookFacts } from './inspect'

/** A part of the picture in shares of it. */
export interface SheetArea {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}

export interface SheetBase {
  readonly width: number
  readonly height: number
  /** Before Show, and as the grade shows it; RGB triples. */
  readonly workingLog: Float64Array
  readonly signal: Float64Array
  readonly grade: GradeDocument
}

/** A small frame as a grade has it, ready for any number of LUTs. */
export function sheetBase(grade: GradeDocument, find: LutFinder, frame: Frame): SheetBase {
  const scale = (frame.high - frame.low) / 65535
  const codes = Float64Array.from(frame.data, (c) => frame.low + c * scale)
  const signal = codes.slice()
  const chain = buildChain(grade, find)
  const place = positionsIn(chain, frame, 1, 0, undefined, true)
  const workingLog = sceneLight(chain, 'finish', codes, place).map(toWorkingLog)
  evaluateDirect(chain, signal, place)
  return { width: frame.width, height: frame.height, workingLog, signal, grade }
}

/** The picture through a LUT at a strength 0…1, as 16-bit display signal. */
export function throughLut(
  { workingLog, signal, grade }: SheetBase,
  lut: Lut,
  { place, takes }: Pick<LutPlace, 'place' | 'takes'>,
  strength: number,
): Uint16Array {
  const pixels = (place === 'show' ? workingLog : signal).slice()
  if (place === 'show')
    for (const operation of intoDomain(takes, lutSurroundingsOf('scene', displayById(grade.show.displayId))).into)
      operate(operation, pixels)
  applyLut(lut, pixels, 'tetrahedral')
  return toSignal(pixels, signal, strength)
}

function toSignal(pixels: Float64Array, before: Float64Array, strength: number): Uint16Array {
  const out = new Uint16Array(pixels.length)
  for (let i = 0; i < out.length; i++)
    out[i] = Math.min(1, Math.max(0, before[i] + (pixels[i] - before[i]) * strength)) * 65535 + 0.5
  return out
}

export interface SheetFacts extends LookFacts {
  /** What it does to the chosen skin. */
  readonly skin: { readonly hueDegrees: number; readonly lumaPercent: number; readonly chromaGain: number } | null
}

/** The facts of a picture; of the skin against the picture without the LUT. */
export function sheetFacts(
  { width, height, signal: before }: SheetBase,
  signal: Uint16Array,
  skin: SheetArea | null,
): SheetFacts {
  const mean = (at: (i: number) => number): readonly [number, number, number] => {
    const sums: [number, number, number] = [0, 0, 0]
    let count = 0
    if (!skin) return sums
    for (
      let y = Math.floor(skin.top * height);
      y < Math.max(skin.top * height + 1, skin.bottom * height) && y < height;
      y++
    )
      for (
        let x = Math.floor(skin.left * width);
        x < Math.max(skin.left * width + 1, skin.right * width) && x < width;
        x++, count++
      )
        for (let c = 0; c < 3; c++) sums[c] += at((y * width + x) * 3 + c)
    return sums.map((s) => s / Math.max(1, count)) as [number, number, number]
  }
  return {
    ...lookFacts(signal),
    skin:
      skin &&
      shiftOf(
        mean((i) => before[i]),
        mean((i) => signal[i] / 65535),
      ),
  }
}
