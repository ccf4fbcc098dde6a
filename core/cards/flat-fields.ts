// Fields of one colour: connected pixels that differ little from their neighbours, in stops of light per channel.

export interface FlatField {
  readonly pixels: Int32Array
  /** Mean light in stops (log2), and what red and blue have more than green. */
  readonly stops: number
  readonly redMore: number
  readonly blueMore: number
  /** Deviation of single pixels about a plane, in stops. */
  readonly uneven: number
  /** Smallest box, in pixels, ends not counted in. */
  readonly box: { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number }
}

/**
 * The flat fields of at least `leastPixels` pixels.
 * @param stops log2 of red, green and blue light by pixel
 * @param mostStep over two pixels of one field light changes by no more, in stops
 */
export function flatFields(
  stops: Float32Array,
  width: number,
  height: number,
  mostStep: number,
  leastPixels: number,
): readonly FlatField[] {
  const flat = flatPixels(stops, width, height, mostStep)
  const field = new Int32Array(width * height).fill(-1)
  const found: FlatField[] = []
  const queue = new Int32Array(width * height)
  for (let start = 0; start < flat.length; start++) {
    if (!flat[start] || field[start] >= 0) continue
    let count = 1
    queue[0] = start
    field[start] = start
    for (let n = 0; n < count; n++) {
      const p = queue[n]
      const x = p % width
      for (const q of [x > 0 ? p - 1 : -1, x + 1 < width ? p + 1 : -1, p - width, p + width])
        if (q >= 0 && q < flat.length && flat[q] && field[q] < 0) {
          field[q] = start
          queue[count++] = q
        }
    }
    if (count >= leastPixels) found.push(fieldOf(stops, width, queue.slice(0, count)))
  }
  return found
}

/** Where light changes by little over two pixels, across and down, in every channel. */
function flatPixels(stops: Float32Array, width: number, height: number, mostStep: number): Uint8Array {
  const flat = new Uint8Array(width * height)
  for (let y = 1; y + 1 < height; y++)
    for (let x = 1; x + 1 < width; x++) {
      const i = (y * width + x) * 3
      const down = width * 3
      let most = 0
      for (let c = 0; c < 3; c++)
        most = Math.max(
          most,
          Math.abs(stops[i + 3 + c] - stops[i - 3 + c]),
          Math.abs(stops[i + down + c] - stops[i - down + c]),
        )
      if (most < mostStep) flat[y * width + x] = 1
    }
  return flat
}

function fieldOf(stops: Float32Array, width: number, pixels: Int32Array): FlatField {
  const n = pixels.length
  let [x0, y0, x1, y1] = [Infinity, Infinity, 0, 0]
  let [sx, sy, sl, sr, sb] = [0, 0, 0, 0, 0]
  for (const p of pixels) {
    const x = p % width
    const y = Math.floor(p / width)
    x0 = Math.min(x0, x)
    x1 = Math.max(x1, x + 1)
    y0 = Math.min(y0, y)
    y1 = Math.max(y1, y + 1)
    sx += x
    sy += y
    sl += stops[p * 3 + 1]
    sr += stops[p * 3] - stops[p * 3 + 1]
    sb += stops[p * 3 + 2] - stops[p * 3 + 1]
  }
  const [mx, my, ml] = [sx / n, sy / n, sl / n]
  // Light may fall off over a card: what is left about the plane of best fit counts as uneven.
  let [xx, xy, yy, xl, yl, ll] = [0, 0, 0, 0, 0, 0]
  for (const p of pixels) {
    const x = (p % width) - mx
    const y = Math.floor(p / width) - my
    const l = stops[p * 3 + 1] - ml
    xx += x * x
    xy += x * y
    yy += y * y
    xl += x * l
    yl += y * l
    ll += l * l
  }
  const det = xx * yy - xy * xy
  const explained = det > 1e-9 ? (yy * xl * xl - 2 * xy * xl * yl + xx * yl * yl) / det : 0
  return {
    pixels,
    stops: ml,
    redMore: sr / n,
    blueMore: sb / n,
    uneven: Math.sqrt(Math.max(0, ll - explained) / n),
    box: { x0, y0, x1, y1 },
  }
}
