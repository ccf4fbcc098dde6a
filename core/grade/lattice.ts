// Lattices: the effect of operations that mix channels, over a bounded domain, at evenly spaced nodes.

export interface Lattice {
  /** Nodes per axis. */
  readonly size: number
  /** Four values per node (R, G, B and one unused), red fastest. */
  readonly nodes: Float32Array
}

/**
 * Tetrahedral interpolation, in place, on pixels of four floats each whose R, G, B are positions on the lattice's axes
 * (0 … size − 1; held to them). The plain reference of the kernel.
 */
export function applyLattice({ size, nodes }: Lattice, pixels: Float32Array): void {
  const green = size * 4
  const blue = size * size * 4
  const last = size - 1
  const far = 4 + green + blue
  for (let i = 0; i < pixels.length; i += 4) {
    const pr = Math.min(Math.max(pixels[i], 0), last)
    const pg = Math.min(Math.max(pixels[i + 1], 0), last)
    const pb = Math.min(Math.max(pixels[i + 2], 0), last)
    const r = Math.min(Math.floor(pr), last - 1)
    const g = Math.min(Math.floor(pg), last - 1)
    const b = Math.min(Math.floor(pb), last - 1)
    const fr = pr - r
    const fg = pg - g
    const fb = pb - b
    // The cell's near corner, two corners on the way to the far one, and the far one.
    const o = b * blue + g * green + r * 4
    let first: number
    let second: number
    let f1: number
    let f2: number
    let f3: number
    if (fr >= fg) {
      if (fg >= fb) {
        first = o + 4
        second = o + 4 + green
        f1 = fr
        f2 = fg
        f3 = fb
      } else if (fr >= fb) {
        first = o + 4
        second = o + 4 + blue
        f1 = fr
        f2 = fb
        f3 = fg
      } else {
        first = o + blue
        second = o + 4 + blue
        f1 = fb
        f2 = fr
        f3 = fg
      }
    } else if (fb >= fg) {
      first = o + blue
      second = o + green + blue
      f1 = fb
      f2 = fg
      f3 = fr
    } else if (fb >= fr) {
      first = o + green
      second = o + green + blue
      f1 = fg
      f2 = fb
      f3 = fr
    } else {
      first = o + green
      second = o + 4 + green
      f1 = fg
      f2 = fr
      f3 = fb
    }
    const w0 = 1 - f1
    const w1 = f1 - f2
    const w2 = f2 - f3
    for (let c = 0; c < 3; c++)
      pixels[i + c] = nodes[o + c] * w0 + nodes[first + c] * w1 + nodes[second + c] * w2 + nodes[o + far + c] * f3
  }
}

/** The values at all nodes of a lattice whose three axes carry `axis`: RGB triples, red fastest. */
export function latticeCoordinates(axis: Float64Array): Float64Array {
  const size = axis.length
  const out = new Float64Array(size ** 3 * 3)
  for (let b = 0, o = 0; b < size; b++)
    for (let g = 0; g < size; g++)
      for (let r = 0; r < size; r++, o += 3) {
        out[o] = axis[r]
        out[o + 1] = axis[g]
        out[o + 2] = axis[b]
      }
  return out
}
