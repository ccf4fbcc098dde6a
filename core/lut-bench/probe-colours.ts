// The colours that a LUT is asked about.

export interface ProbeColours {
  readonly colours: Float64Array
  /** How many of them are greys, at the beginning. */
  readonly greys: number
}

/**
 * The colours that are looked at: a row of greys, and small steps off each to every side, as RGB triples of code
 * values. They lie on the entries of a table of `size` per axis, so that what is measured is the table and not the
 * lines between its entries.
 */
const sides = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
  [-1, 0, 0],
  [0, -1, 0],
  [0, 0, -1],
  [1, 1, 0],
  [1, 0, 1],
  [0, 1, 1],
] as const
export function probeColours(size: number): ProbeColours {
  const last = size - 1
  const every = Math.max(1, Math.round(last / 40))
  const near = Math.max(1, Math.round(last * 0.03))
  const far = Math.max(near + 1, Math.round(last * 0.08))
  const out: number[] = []
  for (let i = 0; i <= last; i += every) out.push(i, i, i)
  const greys = out.length / 3
  for (let n = 0; n < greys; n++) {
    const i = out[n * 3]
    for (const d of [near, far]) for (const [r, g, b] of sides) out.push(i + r * d, i + g * d, i + b * d)
  }
  return { colours: Float64Array.from(out, (v) => Math.min(1, Math.max(0, v / last))), greys }
}

/**
 * Colours farther off grey, to every side of greys all the way up, on entries of a table of `size` per axis: what a
 * change of gamut does shows the more the farther off they lie.
 */
export function coloursOffGrey(size: number): Float64Array {
  const last = size - 1
  const every = Math.max(1, Math.round(last / 20))
  const near = Math.max(1, Math.round(last * 0.03))
  const far = Math.max(near + 1, Math.round(last * 0.08))
  const out: number[] = []
  for (let i = 0; i <= last; i += every)
    for (const d of [near, far, 2 * far])
      for (const side of sides) {
        const colour = side.map((s) => i + s * d)
        if (colour.every((v) => v >= 0 && v <= last)) out.push(...colour.map((v) => v / last))
      }
  return Float64Array.from(out)
}
