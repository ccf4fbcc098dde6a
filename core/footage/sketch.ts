// A sketch of a frame: what is kept of every frame of a clip to find cuts and a lead frame.

export const sketchColumns = 16
export const sketchRows = 9
const cells = sketchColumns * sketchRows
/** Bytes of one sketch's colours: Y, Cb, Cr of each cell. */
export const sketchSize = cells * 3

export interface Sketch {
  /** Mean Y, then Cb, then Cr of a grid of 16 by 9 cells, 0..255. */
  readonly colours: Uint8Array
  /** Shares of the pixels in 32 classes of luma, and 16 each of Cb and Cr. Sums to 3. */
  readonly histogram: Float32Array
  /** Mean luma, 0..1 of the code range. */
  readonly luma: number
  /** Luma that one pixel in a hundred lies over, 0..1 of the code range: large where a light is in the picture. */
  readonly lights: number
  /** Mean absolute Laplacian of luma, 0..1: large where edges are crisp. */
  readonly sharpness: number
}

/** Sketches an 8-bit picture given as whole planes of equal size (4:4:4), at least 16 by 9. */
export function sketch(planes: Uint8Array, width: number, height: number): Sketch {
  const count = width * height
  const y = planes.subarray(0, count)
  const cb = planes.subarray(count, 2 * count)
  const cr = planes.subarray(2 * count, 3 * count)
  const sums = new Float64Array(sketchSize)
  const counts = new Float64Array(cells)
  const histogram = new Float32Array(64)
  const codes = new Uint32Array(256)
  const share = 1 / count
  let luma = 0
  let edges = 0
  for (let row = 0, i = 0; row < height; row++) {
    const cellRow = Math.floor((row * sketchRows) / height) * sketchColumns
    for (let x = 0; x < width; x++, i++) {
      const cell = cellRow + Math.floor((x * sketchColumns) / width)
      const yv = y[i]
      const bv = cb[i]
      const rv = cr[i]
      sums[cell] += yv
      sums[cells + cell] += bv
      sums[2 * cells + cell] += rv
      counts[cell]++
      histogram[yv >> 3] += share
      codes[yv]++
      histogram[32 + (bv >> 4)] += share
      histogram[48 + (rv >> 4)] += share
      luma += yv
      if (row > 0 && row < height - 1 && x > 0 && x < width - 1)
        edges += Math.abs(4 * yv - y[i - 1] - y[i + 1] - y[i - width] - y[i + width])
    }
  }
  return {
    colours: Uint8Array.from(sums, (sum, i) => sum / counts[i % cells] + 0.5),
    histogram,
    luma: luma / count / 255,
    lights: overShare(codes, count / 100) / 255,
    sharpness: edges / count / 255 / 4,
  }
}

/** The lowest code that no more than `most` values lie over. */
function overShare(codes: Uint32Array, most: number): number {
  let above = 0
  for (let code = 255; code > 0; code--) {
    above += codes[code]
    if (above > most) return code
  }
  return 0
}
