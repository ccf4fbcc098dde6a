// A supplied LUT as operations: curves where it has one dimension, its own grid where it has three, one behind the
// other where it has parts.
import { encodingById, gamutById, gamutToGamut, invert, type Gamut, type Matrix3 } from '../colour'
import {
  applyLut,
  cdlStages,
  formulaCurves,
  lookUp1d,
  type Formula,
  type Interpolation,
  type Lut,
  type LutPart,
} from '../luts'
import { lutTakesSide } from './document'
import {
  channelCurves,
  curveOperation,
  matrixOperation,
  pixelsOperation,
  type Curve,
  type Light,
  type Operation,
} from './operation'

/**
 * The LUT for light of one kind, leaving another. As many exact stages as it allows; else one operation for the whole.
 */
export function lutOperations(
  lut: Lut,
  interpolation: Interpolation,
  takes: Light,
  leaves: Light = takes,
): readonly Operation[] {
  const parts: readonly LutPart[] = lut.dimensions === 'sequence' ? lut.parts : [lut]
  const whole = pixelsOperation((pixels) => applyLut(lut, pixels, interpolation), takes, leaves)
  const run: Operation[] = []
  for (const part of parts) {
    const stages = exactStages(part, interpolation)
    if (!stages) return [whole]
    run.push(...stages)
  }
  return run.filter((o) => o.kind === 'pixels').length <= 1 ? run : [whole]
}

/** A part as stages that need no approximation when compiled; null where there are none. */
function exactStages(part: LutPart, interpolation: Interpolation): readonly Operation[] | null {
  if ('formula' in part) return formulaStages(part)
  if (part.dimensions === 1) return [channelCurves(lookUp1d(part, 0), lookUp1d(part, 1), lookUp1d(part, 2))]
  const { size, domainMin, domainMax } = part
  const [low] = domainMin
  const [high] = domainMax
  const even = domainMin.every((v) => v === low) && domainMax.every((v) => v === high)
  if (!even || (part.interpolation ?? interpolation) !== 'tetrahedral') return null
  const cube = pixelsOperation((pixels) => applyLut(part, pixels, interpolation), 'displaySignal')
  return [{ ...cube, exactOn: { size, low, high } }]
}

function formulaStages(formula: Formula): readonly Operation[] {
  const curves = formulaCurves(formula)
  if (curves) return [channelCurves(...curves)]
  if (formula.formula === 'cdl') return cdlStages(formula).flatMap(formulaStages)
  if (formula.formula !== 'matrix')
    throw new RangeError(`The formula "${formula.formula}" has neither curves nor a matrix.`)
  const [red, green, blue] = formula.offset
  const matrix = matrixOperation(formula.matrix as unknown as Matrix3)
  if (red === 0 && green === 0 && blue === 0) return [matrix]
  return [
    matrix,
    channelCurves(
      (v) => v + red,
      (v) => v + green,
      (v) => v + blue,
    ),
  ]
}

/** What a side of the Passage gives a LUT: its light's gamut, and its encoded domain. */
export interface LutSurroundings {
  readonly gamut: Gamut
  readonly encode: Curve
  readonly decode: Curve
}

/**
 * From a side's encoded domain to what a camera's encoding makes of the same light, in that camera's usual gamut;
 * nothing where the LUT takes the side as it is. `back` leads from there to the side again.
 */
export function intoDomain(
  takes: string,
  { gamut, encode, decode }: LutSurroundings,
): { readonly into: readonly Operation[]; readonly back: readonly Operation[] } {
  if (takes === lutTakesSide) return { into: [], back: [] }
  const {
    curve,
    gamutIds: [gamutId],
  } = encodingById(takes)
  const matrix = gamutToGamut(gamut, gamutById(gamutId))
  return {
    into: [curveOperation(decode), matrixOperation(matrix), curveOperation(curve.encode)],
    back: [curveOperation(curve.decode), matrixOperation(invert(matrix)), curveOperation(encode)],
  }
}
