// Chromatic adaptation between two whites, given as XYZ: Bradford for fixed conversions, CAT16 for white balance.
import { diagonal, invert, multiply, transform, type Matrix3, type Vector3 } from './matrix'

// ICC.1:2022, annex E.
const bradfordCone: Matrix3 = [0.8951, 0.2664, -0.1614, -0.7502, 1.7135, 0.0367, 0.0389, -0.0685, 1.0296]
// Li et al., "Comprehensive color solutions: CAM16, CAT16, and CAM16-UCS", 2017, equation 2.
const cat16Cone: Matrix3 = [0.401288, 0.650173, -0.051461, -0.250268, 1.204414, 0.045854, -0.002079, 0.048952, 0.953127]

function vonKries(cone: Matrix3, from: Vector3, to: Vector3): Matrix3 {
  const source = transform(cone, from)
  const target = transform(cone, to)
  const gain = diagonal([target[0] / source[0], target[1] / source[1], target[2] / source[2]])
  return multiply(invert(cone), multiply(gain, cone))
}

/** XYZ → XYZ so that white `from` becomes white `to`, in Bradford cone space. */
export function bradford(from: Vector3, to: Vector3): Matrix3 {
  return vonKries(bradfordCone, from, to)
}

/** XYZ → XYZ so that white `from` becomes white `to`, complete adaptation in CAT16 cone space. */
export function cat16(from: Vector3, to: Vector3): Matrix3 {
  return vonKries(cat16Cone, from, to)
}
