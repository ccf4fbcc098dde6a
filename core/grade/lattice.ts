// Lattices: the fused effect of a run of links over a bounded domain, with a table before it and one behind it.

/** Everything the kernel needs to carry 16-bit codes to 16-bit codes. */
export interface Lattice {
  /** Nodes per axis. */
  readonly size: number
  /** Four values per node (R, G, B and one unused), red fastest, in entries of the output table; results beyond its ends are held to them. */
  readonly nodes: Float32Array
  /** Input code → position on the lattice's axis, 0 … size − 1. */
  readonly positionOfCode: Float32Array
  /** 65536 entries: node value → output code. */
  readonly codeOfOutput: Uint16Array
}

/**
 * Applies a lattice by tetrahedral interpolation to RGB triples of 16-bit codes. `source` and `target` may be the same.
 * The plain reference; kernel/ holds a faster one that agrees with it to four codes of 16 bits, as it counts in single precision.
 * @param from first value (not pixel) to treat @param to value after the last
 */
export function applyLattice(lattice: Lattice, source: Uint16Array, target: Uint16Array, from = 0, to = source.length): void {
  const { size, nodes, positionOfCode, codeOfOutput } = lattice
  const green = size * 4, blue = size * size * 4, lastCell = size - 2
  const far = 4 + green + blue
  for (let i = from; i < to; i += 3) {
    const pr = positionOfCode[source[i]!]!, pg = positionOfCode[source[i + 1]!]!, pb = positionOfCode[source[i + 2]!]!
    let r = pr | 0, g = pg | 0, b = pb | 0
    if (r > lastCell) r = lastCell
    if (g > lastCell) g = lastCell
    if (b > lastCell) b = lastCell
    const fr = pr - r, fg = pg - g, fb = pb - b
    // The cell's near corner, two corners on the way to the far one, and the far one.
    const o = b * blue + g * green + r * 4
    let first: number, second: number, f1: number, f2: number, f3: number
    if (fr >= fg) {
      if (fg >= fb) { first = o + 4; second = o + 4 + green; f1 = fr; f2 = fg; f3 = fb }
      else if (fr >= fb) { first = o + 4; second = o + 4 + blue; f1 = fr; f2 = fb; f3 = fg }
      else { first = o + blue; second = o + 4 + blue; f1 = fb; f2 = fr; f3 = fg }
    } else if (fb >= fg) { first = o + blue; second = o + green + blue; f1 = fb; f2 = fg; f3 = fr }
    else if (fb >= fr) { first = o + green; second = o + green + blue; f1 = fg; f2 = fb; f3 = fr }
    else { first = o + green; second = o + 4 + green; f1 = fg; f2 = fr; f3 = fb }
    const w0 = 1 - f1, w1 = f1 - f2, w2 = f2 - f3, last = o + far
    const x = nodes[o]! * w0 + nodes[first]! * w1 + nodes[second]! * w2 + nodes[last]! * f3 + 0.5
    const y = nodes[o + 1]! * w0 + nodes[first + 1]! * w1 + nodes[second + 1]! * w2 + nodes[last + 1]! * f3 + 0.5
    const z = nodes[o + 2]! * w0 + nodes[first + 2]! * w1 + nodes[second + 2]! * w2 + nodes[last + 2]! * f3 + 0.5
    target[i] = codeOfOutput[x < 0 ? 0 : x > 65535 ? 65535 : x | 0]!
    target[i + 1] = codeOfOutput[y < 0 ? 0 : y > 65535 ? 65535 : y | 0]!
    target[i + 2] = codeOfOutput[z < 0 ? 0 : z > 65535 ? 65535 : z | 0]!
  }
}

/** The values at all nodes of a lattice whose three axes carry `axis`: RGB triples, red fastest. */
export function latticeCoordinates(axis: Float64Array): Float64Array {
  const size = axis.length
  const out = new Float64Array(size ** 3 * 3)
  for (let b = 0, o = 0; b < size; b++)
    for (let g = 0; g < size; g++)
      for (let r = 0; r < size; r++, o += 3) {
        out[o] = axis[r]!
        out[o + 1] = axis[g]!
        out[o + 2] = axis[b]!
      }
  return out
}
