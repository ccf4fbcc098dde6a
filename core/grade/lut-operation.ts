// A supplied LUT as operations: curves where it has one dimension, its own grid where it has three, one behind the
// other where it has parts.
import { encodingById, gamutById, gamutToGamut, invert, type Gamut } from '../colour'
import { applyLut, formulaCurves, lookUp1d, type Interpolation, type Lut, type LutPart } from '../luts'
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
  const run = parts.map((part) => exactPart(part, interpolation))
  const grids = run.filter((o) => o?.kind === 'pixels').length
  const exact = run.every((o): o is Operation => o !== null) && grids <= 1
  return exact ? run : [whole]
}

/** A part that needs no approximation when compiled; null where it does. */
function exactPart(part: LutPart, interpolation: Interpolation): Operation | null {
  if ('formula' in part) {
    const curves = formulaCurves(part)
    if (curves) return channelCurves(...curves)
    return part.formula === 'matrix' && part.offset.every((o) => o === 0) ? matrixOperation(part.matrix as never) : null
  }
  if (part.dimensions === 1) return channelCurves(lookUp1d(part, 0), lookUp1d(part, 1), lookUp1d(part, 2))
  const { size, domainMin, domainMax } = part
  const [low] = domainMin
  const [high] = domainMax
  const even = domainMin.every((v) => v === low) && domainMax.every((v) => v === high)
  if (!even || (part.interpolation ?? interpolation) !== 'tetrahedral') return null
  return {
    ...pixelsOperation((pixels) => applyLut(part, pixels, interpolation), 'displaySignal'),
    exactOn: { size, low, high },
  }
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
