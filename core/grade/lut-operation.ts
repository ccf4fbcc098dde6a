// A supplied LUT as an operation: curves where it has one dimension, its own grid where it has three.
import { applyLut, lookUp1d, type Interpolation, type Lut } from '../luts'
import { channelCurves, pixelsOperation, type Light, type Operation } from './operation'

export function lutOperation(lut: Lut, interpolation: Interpolation, takes: Light, leaves: Light = takes): Operation {
  if (lut.dimensions === 1) return channelCurves(lookUp1d(lut, 0), lookUp1d(lut, 1), lookUp1d(lut, 2))
  const operation = pixelsOperation((pixels) => applyLut(lut, pixels, interpolation), takes, leaves)
  const { size, domainMin, domainMax } = lut
  const [low] = domainMin, [high] = domainMax
  const even = domainMin.every((v) => v === low) && domainMax.every((v) => v === high)
  return even && interpolation === 'tetrahedral' ? { ...operation, exactOn: { size, low, high } } : operation
}
