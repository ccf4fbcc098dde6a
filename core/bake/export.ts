// Export: the pixel-by-pixel part of a grade as a LUT file, for a declared input and output, with the error it has on a
// real frame.
import { gamutById, gamutToGamut, toWorkingLog, transformPixels, workingGamut } from '../colour'
import { FormatError, printClf, printCube, printHald } from '../formats'
import {
  applyLink,
  buildChain,
  encodingOf,
  evaluateDirect,
  finishSignal,
  latticeCoordinates,
  sceneLight,
  setRead,
  shownAt,
  signalError,
  stepKindById,
  type DifferenceReport,
  type GradeDocument,
  type LutFinder,
} from '../grade'
import { sampleSignal, type Frame } from '../image'
import { applyLut, type Lut, type Lut1d, type Lut3d } from '../luts'
import { pixelByPixelPart } from './bake'
import { fitLut, withNeighbours } from './fit-lut'
import { type InPlace, shaperFor, inverted } from './shaper'

/**
 * camera: code values as the shot is read; working-log; display: the signal after Show, for steps that stand behind it.
 */
export type ExportInput = 'camera' | 'working-log' | 'display'
/**
 * display: the display signal; under: what went in goes out, corrected, for a camera or monitor that converts behind
 * the LUT.
 */
export type ExportOutput = 'display' | 'under'
export type ExportFormat = 'cube' | 'clf' | 'hald'

export interface ExportSettings {
  readonly format: ExportFormat
  /** Entries per axis: 17, 33 or 65; 16, 36 or 64 for a Hald picture. */
  readonly size: number
  /**
   * Curves of 4096 entries before the cube, so that its entries stand where the grade is steep and the picture has
   * colours. Not for Hald pictures.
   */
  readonly shaper: boolean
  readonly input: ExportInput
  readonly output: ExportOutput
  /** How the device that holds the LUT understands 0…1: the whole range of codes, or 64…940 of 10 bits. */
  readonly range: 'full' | 'legal'
}

export const exportSizes: Readonly<Record<ExportFormat, readonly number[]>> = {
  cube: [17, 33, 65],
  clf: [17, 33, 65],
  hald: [16, 36, 64],
}
export const defaultExport: ExportSettings = {
  format: 'cube',
  size: 33,
  shaper: false,
  input: 'camera',
  output: 'display',
  range: 'full',
}

export interface ExportedLut {
  readonly tables: readonly [Lut3d] | readonly [Lut1d, Lut3d]
  readonly leftOut: readonly string[]
  readonly error: DifferenceReport
  readonly notes: readonly string[]
}

const nowhere = { shares: new Float64Array(0), frameWidth: 1, frameHeight: 1 }

/** What the LUT does and how it is judged. All change RGB triples in place. */
interface Ways {
  /** Camera code values of a frame → what goes into the LUT, still full range. */
  readonly feed: InPlace
  readonly act: InPlace
  /** What comes out of the LUT → display signal, so that differences are those that are seen. */
  readonly show: InPlace
  readonly leftOut: readonly string[]
}

const nothing: InPlace = () => undefined
const evaluate = (grade: GradeDocument, find: LutFinder): InPlace => {
  const chain = buildChain(grade, find)
  return (pixels) => evaluateDirect(chain, pixels, nowhere)
}
const names = (grade: GradeDocument, side: 'scene' | 'display'): readonly string[] =>
  grade.steps
    .filter((s) => s.side === side && s.enabled && s.strength > 0 && !stepKindById(s.kind).isNeutral(s.params))
    .map((s) => `"${s.name}"`)

function waysOf(grade: GradeDocument, find: LutFinder, { input, output }: ExportSettings): Ways {
  const chain = buildChain(grade, find)
  if (input === 'display') {
    const at = shownAt(chain)
    const behind = chain.links.slice(at + 1)
    const before: InPlace = (pixels) => {
      for (let i = 0; i < pixels.length; i++) pixels[i] = chain.decode(pixels[i])
      for (const link of chain.links.slice(0, at + 1)) applyLink(link, pixels)
      if (behind.length === 0) finishSignal(chain, pixels)
    }
    const act: InPlace = (pixels) => {
      for (const link of behind) applyLink(link, pixels)
      if (behind.length > 0) finishSignal(chain, pixels)
    }
    return {
      feed: before,
      act,
      show: nothing,
      leftOut: ['Read and Show', ...names(grade, 'scene').map((n) => `${n}, which stands before Show`)],
    }
  }
  // In working log the chain is the same but for how it is read.
  const log = setRead(grade, { method: 'formula', encodingId: 'acescct', gamutId: 'ap1', lutHash: null })
  const own = input === 'camera' ? grade : log
  const feed: InPlace =
    input === 'camera'
      ? nothing
      : (pixels) => {
          sceneLight({ ...chain, links: chain.links.filter((l) => l.station === 'read') }, 'read', pixels)
          for (let i = 0; i < pixels.length; i++) pixels[i] = toWorkingLog(pixels[i])
        }
  if (output === 'display')
    return { feed, act: evaluate(own, find), show: nothing, leftOut: input === 'working-log' ? ['Read'] : [] }
  const { encode } = input === 'camera' ? encodingOf(grade.read).curve : { encode: toWorkingLog }
  const matrix = gamutToGamut(workingGamut, gamutById(own.read.gamutId))
  const ownChain = buildChain(own, find)
  const act: InPlace = (pixels) => {
    sceneLight(ownChain, 'finish', pixels)
    transformPixels(matrix, pixels)
    for (let i = 0; i < pixels.length; i++) pixels[i] = encode(pixels[i])
  }
  const behind = evaluate({ ...own, steps: own.steps.filter((s) => s.side === 'display') }, find)
  return {
    feed,
    act,
    show: behind,
    leftOut: ['Show', ...names(grade, 'display').map((n) => `${n}, which stands after Show`)],
  }
}

const legal = { low: 64 / 1023, span: 876 / 1023 } as const
const toLegal: InPlace = (pixels) => {
  for (let i = 0; i < pixels.length; i++) pixels[i] = pixels[i] * legal.span + legal.low
}
const fromLegal: InPlace = (pixels) => {
  for (let i = 0; i < pixels.length; i++) pixels[i] = (pixels[i] - legal.low) / legal.span
}

/** Pixels looked at when a table is fitted and judged. */
const judgedPixels = 60_000

const strideOf = ({ width, height }: Frame): number => Math.max(1, Math.floor((width * height) / judgedPixels)) | 1
/** As many code values, spread evenly. */
function evenColours(): Float64Array {
  const perAxis = Math.floor(Math.cbrt(judgedPixels))
  return latticeCoordinates(Float64Array.from({ length: perAxis }, (_, i) => i / (perAxis - 1)))
}

/** Throws FormatError where the settings do not go together. */
export function checkExport({ format, size, shaper, input, output }: ExportSettings): void {
  if (!exportSizes[format].includes(size))
    throw new FormatError(`A ${format} of ${size} per axis is not written; ${exportSizes[format].join(', ')} are.`, 0)
  if (shaper && format === 'hald') throw new FormatError('A Hald picture has no place for a curve before the cube.', 0)
  if (input === 'display' && output === 'under')
    throw new FormatError('What takes a display signal gives one: there is no conversion behind it.', 0)
}

/**
 * The grade as it is at a frame of its clip as a LUT, fitted to that frame where a display signal comes out, and judged
 * on it; without a frame its entries are exact, and it is judged on colours spread evenly over all codes. Throws
 * FormatError where the settings do not go together.
 */
export function exportLut(
  whole: GradeDocument,
  frameIndex: number,
  find: LutFinder,
  settings: ExportSettings,
  title: string,
  frame: Frame | null,
): ExportedLut {
  checkExport(settings)
  const part = pixelByPixelPart(whole, frameIndex)
  const ways = waysOf(part.document, find, settings)
  const inLegal = settings.range === 'legal'
  const act: InPlace = (pixels) => {
    if (inLegal) fromLegal(pixels)
    ways.act(pixels)
    if (inLegal) toLegal(pixels)
  }
  const fed = frame ? sampleSignal(frame, strideOf(frame)) : evenColours()
  ways.feed(fed)
  if (inLegal) toLegal(fed)
  const tables = tablesFor(act, fed, frame !== null, settings, title, part.document.show.displayId)
  const made: Lut = tables.length === 1 ? tables[0] : { dimensions: 'sequence', title, parts: [...tables] }
  const leftOut = [...part.leftOut, ...ways.leftOut]
  const error = judge(made, act, ways.show, fed, inLegal, part.document.show.displayId)
  return { tables, leftOut, error, notes: notesOf(part.document, settings, frame !== null, leftOut, error) }
}

function tablesFor(
  act: InPlace,
  fed: Float64Array,
  ofFrame: boolean,
  { size, shaper, input, output, range }: ExportSettings,
  title: string,
  displayId: string,
): ExportedLut['tables'] {
  const curve = shaper ? shaperFor(act, fed, title) : null
  const even = Float64Array.from({ length: size }, (_, i) => i / (size - 1))
  const values = latticeCoordinates(even)
  if (curve)
    ([0, 1, 2] as const).forEach((c) => {
      const axis = inverted(curve, c, size)
      for (let i = c; i < values.length; i += 3) values[i] = axis[Math.round(values[i] * (size - 1))]
    })
  act(values)
  const exact: Lut3d = {
    dimensions: 3,
    title,
    size,
    data: Float32Array.from(values),
    domainMin: [0, 0, 0],
    domainMax: [1, 1, 1],
  }
  // Fitting counts what the eye sees of a display signal in full range.
  if (!ofFrame || !isFitted({ input, output, range })) return curve ? [curve, exact] : [exact]
  const colours = withNeighbours(fed, 0.5 / (size - 1))
  const wanted = colours.slice()
  act(wanted)
  if (curve) applyLut(curve, colours, 'tetrahedral')
  const cube = fitLut(exact, colours, wanted, displayId)
  return curve ? [curve, cube] : [cube]
}

const isFitted = ({ input, output, range }: Pick<ExportSettings, 'input' | 'output' | 'range'>): boolean =>
  output === 'display' && input !== 'display' && range === 'full'

/** How far what the LUT gives is from direct evaluation, as seen on the display. */
function judge(
  lut: Lut,
  act: InPlace,
  show: InPlace,
  fed: Float64Array,
  inLegal: boolean,
  displayId: string,
): DifferenceReport {
  const seen = (pixels: Float64Array): Float64Array => {
    if (inLegal) fromLegal(pixels)
    show(pixels)
    for (let i = 0; i < pixels.length; i++) pixels[i] = Math.min(Math.max(pixels[i], 0), 1)
    return pixels
  }
  const direct = fed.slice()
  const through = fed.slice()
  act(direct)
  applyLut(lut, through, 'tetrahedral')
  return signalError(seen(direct), seen(through), displayId)
}

/** The error of a file that was read back, on the frame it was made for; the same arithmetic as at its making. */
export function exportError(
  lut: Lut,
  whole: GradeDocument,
  frameIndex: number,
  find: LutFinder,
  settings: ExportSettings,
  frame: Frame,
): DifferenceReport {
  const part = pixelByPixelPart(whole, frameIndex)
  const ways = waysOf(part.document, find, settings)
  const inLegal = settings.range === 'legal'
  const fed = sampleSignal(frame, strideOf(frame))
  ways.feed(fed)
  if (inLegal) toLegal(fed)
  return judge(
    lut,
    (pixels) => {
      if (inLegal) fromLegal(pixels)
      ways.act(pixels)
      if (inLegal) toLegal(pixels)
    },
    ways.show,
    fed,
    inLegal,
    part.document.show.displayId,
  )
}

function notesOf(
  { read, show }: GradeDocument,
  { input, output, range, shaper }: ExportSettings,
  ofFrame: boolean,
  leftOut: readonly string[],
  error: DifferenceReport,
): readonly string[] {
  const camera = `camera code values, ${read.encodingId}, ${read.gamutId}`
  const working = 'working log, acescct, ap1'
  const display = `display signal, ${show.displayId}`
  const into = { camera, 'working-log': working, display }[input]
  const out = output === 'under' ? into : display
  const scale = range === 'full' ? '0..1 = full range' : '0..1 = the 10-bit signal with black at 64 and white at 940'
  return [
    `In: ${into}. Out: ${out}. ${scale}.${output === 'under' ? ' To be put under a conversion.' : ''}`,
    leftOut.length === 0 ? 'Everything in the grade is carried.' : `Not carried: ${leftOut.join(', ')}.`,
    ...(ofFrame && isFitted({ input, output, range })
      ? [
          'Entries are fitted to the colours of that frame; some lie a little below 0 or above 1 on ' +
            'purpose: interpolate first, then clip.',
        ]
      : []),
    ...(shaper ? ['A curve stands before the cube: not every program reads both.'] : []),
    `Against direct evaluation on ${error.pixels} ` +
      `${ofFrame ? 'pixels of one frame' : 'colours spread over all codes'}, ` +
      `${error.measure.replace('Δ', 'Delta ')}: mean ${error.mean.toFixed(3)}, 99.9th percentile ` +
      `${error.percentile999.toFixed(3)}, worst ${error.worst.toFixed(3)}.`,
  ]
}

/** The file itself: text, or a picture. */
export function printExport({ tables, notes }: ExportedLut, format: ExportFormat, id: string): string | Uint8Array {
  if (format === 'clf') return printClf(id, tables, notes)
  const cube = tables.at(-1)
  if (format === 'hald' && cube?.dimensions === 3) return printHald(cube)
  return tables.length === 1 ? printCube(tables[0], notes) : printCube(tables, notes)
}
