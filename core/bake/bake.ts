// Baking: the pixel-by-pixel part of a grade as a 3D LUT, with the error it will have.
import { alongWords, buildChain, evaluateDirect, framePositions, gradeAt, latticeCoordinates, signalError, type DifferenceReport, type GradeDocument, type LutFinder } from '../grade'
import { sampleSignal, type Frame } from '../image'
import { applyLut, type Lut3d } from '../luts'
import { fitLut, withNeighbours } from './fit-lut'

/** The document as it is at a frame, without what a LUT cannot carry; and what that was, in words. */
export function pixelByPixelPart(whole: GradeDocument, frame: number): { readonly document: GradeDocument; readonly leftOut: readonly string[] } {
  const document = gradeAt(whole, frame), carried = document.regions.filter((r) => r.enabled && document.steps.some((s) => s.regionId === r.id && s.enabled))
  return {
    document: { ...document, regions: [], steps: document.steps.filter((s) => s.regionId === undefined) },
    leftOut: [...carried.map((r) => `region "${r.name}"`), ...whole.along.map((marks) => `${alongWords(whole, marks)} (taken as at frame ${frame})`)],
  }
}

const nowhere = { shares: new Float64Array(0), frameWidth: 1, frameHeight: 1 }

/** Camera code values (0..1 full range) → display signal, by direct evaluation at every entry. The document must hold no regions. */
export function bakeLut(document: GradeDocument, find: LutFinder, size: number, title: string): Lut3d {
  const values = latticeCoordinates(Float64Array.from({ length: size }, (_, i) => i / (size - 1)))
  evaluateDirect(buildChain(document, find), values, nowhere)
  return { dimensions: 3, title, size, data: Float32Array.from(values), domainMin: [0, 0, 0], domainMax: [1, 1, 1] }
}

/** Colours looked at when a table is fitted to a frame. */
const fittedPixels = 60_000

/** As bakeLut, with the entries moved to where the table errs least over the colours of a frame and their neighbours. */
export function bakeLutFor(document: GradeDocument, find: LutFinder, size: number, title: string, frame: Frame): Lut3d {
  const stride = Math.max(1, Math.floor((frame.width * frame.height) / fittedPixels)) | 1
  // Neighbours within half a cell.
  const colours = withNeighbours(sampleSignal(frame, stride), 0.5 / (size - 1)), wanted = colours.slice()
  evaluateDirect(buildChain(document, find), wanted, nowhere)
  return fitLut(bakeLut(document, find, size, title), colours, wanted, document.show.displayId)
}

/** How far what a baked LUT gives, held to black and white as every output holds it, is from direct evaluation, over every `stride`-th pixel of a real frame. */
export function lutError(lut: Lut3d, document: GradeDocument, find: LutFinder, frame: Frame, stride: number): DifferenceReport {
  const direct = sampleSignal(frame, stride), baked = direct.slice()
  evaluateDirect(buildChain(document, find), direct, framePositions(frame.width, frame.height, stride))
  applyLut(lut, baked, 'tetrahedral')
  for (let i = 0; i < baked.length; i++) baked[i] = Math.min(Math.max(baked[i]!, 0), 1)
  return signalError(direct, baked, document.show.displayId)
}
