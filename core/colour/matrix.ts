// 3×3 matrices in double precision, row-major, for colour transforms.

export type Matrix3 = readonly [number, number, number, number, number, number, number, number, number]
export type Vector3 = readonly [number, number, number]

export const identity3: Matrix3 = [1, 0, 0, 0, 1, 0, 0, 0, 1]

/** The product a·b: applying it applies b first. */
export function multiply(a: Matrix3, b: Matrix3): Matrix3 {
  const at = (row: number, column: number): number =>
    a[row * 3] * b[column] + a[row * 3 + 1] * b[column + 3] + a[row * 3 + 2] * b[column + 6]
  return [at(0, 0), at(0, 1), at(0, 2), at(1, 0), at(1, 1), at(1, 2), at(2, 0), at(2, 1), at(2, 2)]
}

export function transform(m: Matrix3, v: Vector3): Vector3 {
  return [
    m[0] * v[0] + m[1] * v[1] + m[2] * v[2],
    m[3] * v[0] + m[4] * v[1] + m[5] * v[2],
    m[6] * v[0] + m[7] * v[1] + m[8] * v[2],
  ]
}

export function diagonal(v: Vector3): Matrix3 {
  return [v[0], 0, 0, 0, v[1], 0, 0, 0, v[2]]
}

/** The inverse by cofactors. Throws RangeError when the determinant is zero or not finite. */
export function invert(m: Matrix3): Matrix3 {
  const [a, b, c, d, e, f, g, h, i] = m
  const determinant = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)
  if (!Number.isFinite(determinant) || determinant === 0) throw new RangeError('The matrix has no inverse.')
  const s = 1 / determinant
  return [
    (e * i - f * h) * s,
    (c * h - b * i) * s,
    (b * f - c * e) * s,
    (f * g - d * i) * s,
    (a * i - c * g) * s,
    (c * d - a * f) * s,
    (d * h - e * g) * s,
    (b * g - a * h) * s,
    (a * e - b * d) * s,
  ]
}

/** Multiplies every RGB triple of `pixels` by `m`, in place. */
export function transformPixels(m: Matrix3, pixels: Float64Array): void {
  const [a, b, c, d, e, f, g, h, i] = m
  for (let p = 0; p < pixels.length; p += 3) {
    const red = pixels[p]
    const green = pixels[p + 1]
    const blue = pixels[p + 2]
    pixels[p] = a * red + b * green + c * blue
    pixels[p + 1] = d * red + e * green + f * blue
    pixels[p + 2] = g * red + h * green + i * blue
  }
}
