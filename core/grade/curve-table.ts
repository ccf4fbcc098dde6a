// Curves as tables indexed by the bits of a single-precision number: fine near zero and wide at the top, quick to
// build.

/** Cells per doubling: the upper bits of the mantissa. */
const cellBits = 7
const shift = 23 - cellBits
/** The smallest and largest magnitude told apart; below, as zero; above, held. */
const lowestExponent = -36
const highestExponent = 10
/** Bits of the smallest magnitude, shifted. */
const firstCell = (127 + lowestExponent) << cellBits
const octaveCells = (highestExponent - lowestExponent) << cellBits
/** Entries for one sign: zero, then one at the foot of every cell, then the end. */
const signEntries = octaveCells + 2
export const tableEntries = signEntries * 2

const bits = new Uint32Array(1)
const floats = new Float32Array(bits.buffer)

/** The magnitudes that the entries of one sign stand for. */
const magnitudes = Float32Array.from({ length: signEntries }, (_, i) => {
  if (i === 0) return 0
  bits[0] = (firstCell + i - 1) << shift
  return floats[0]
})

/** Entries for values from zero up, then for values from zero down. */
export function curveTable(curve: (value: number) => number): Float32Array {
  const table = new Float32Array(tableEntries)
  for (let i = 0; i < signEntries; i++) {
    const up = curve(magnitudes[i])
    const down = curve(-magnitudes[i])
    // An impossible value must not spread: tables hold finite numbers only.
    table[i] = Number.isFinite(up) ? up : 0
    table[signEntries + i] = Number.isFinite(down) ? down : 0
  }
  return table
}

/**
 * The plain reference of the kernel's look-up: straight between entries, held at both ends. Values in single precision.
 */
export function lookUp(table: Float32Array, value: number): number {
  floats[0] = value
  const magnitudeBits = Math.min(
    Math.max(bits[0] & 0x7fffffff, (firstCell - 1) << shift),
    (firstCell + octaveCells) << shift,
  )
  const at = (magnitudeBits >>> shift) - firstCell + 1 + (bits[0] >>> 31 ? signEntries : 0)
  const part = (magnitudeBits & ((1 << shift) - 1)) / (1 << shift)
  return part === 0 ? table[at] : table[at] + (table[at + 1] - table[at]) * part
}
