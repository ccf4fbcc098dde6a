// Baking: the pixel-by-pixel part of a grade as a 3D LUT.
import {
  animationWords,
  buildChain,
  evaluateDirect,
  gradeAt,
  isNeutralStep,
  latticeCoordinates,
  stepKindById,
  type GradeDocument,
  type LutFinder,
  type Step,
} from '../grade'
import type { Lut3d } from '../luts'

const readsNeighbours = (step: Step): boolean =>
  step.enabled && step.strength > 0 && !stepKindById(step.kind).pixelByPixel && !isNeutralStep(step)

/** The document as it is at a frame, without what a LUT cannot carry; and what that was, in words. */
export function pixelByPixelPart(
  whole: GradeDocument,
  frame: number,
): { readonly document: GradeDocument; readonly leftOut: readonly string[] } {
  const document = gradeAt(whole, frame)
  const carried = document.regions.filter(
    (r) => r.enabled && document.steps.some((s) => s.regionId === r.id && s.enabled),
  )
  return {
    document: {
      ...document,
      regions: [],
      steps: document.steps.filter((s) => s.regionId === undefined && stepKindById(s.kind).pixelByPixel),
    },
    leftOut: [
      ...carried.map((r) => `region "${r.name}"`),
      ...document.steps
        .filter((s) => s.regionId === undefined && readsNeighbours(s))
        .map((s) => `"${s.name}", which looks at neighbours`),
      ...whole.animation.map((keyframes) => `${animationWords(whole, keyframes)} (taken as at frame ${frame})`),
    ],
  }
}

const nowhere = { shares: new Float64Array(0), frameWidth: 1, frameHeight: 1 }

/**
 * Camera code values (0..1 full range) → display signal, by direct evaluation at every entry. The document must hold no
 * regions.
 */
export function bakeLut(document: GradeDocument, find: LutFinder, size: number, title: string): Lut3d {
  const values = latticeCoordinates(Float64Array.from({ length: size }, (_, i) => i / (size - 1)))
  evaluateDirect(buildChain(document, find), values, nowhere)
  return { dimensions: 3, title, size, data: Float32Array.from(values), domainMin: [0, 0, 0], domainMax: [1, 1, 1] }
}
