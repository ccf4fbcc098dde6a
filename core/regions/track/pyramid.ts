// Brightness at several sizes, each half the one before: what points are followed in.

export interface Level {
  readonly width: number
  readonly height: number
  readonly values: Float32Array
}
export interface Pyramid {
  readonly levels: readonly Level[]
}

const mostLevels = 4
const leastSide = 40

/**
 * From brightness in any unit. Levels are blurred by 1-2-1 before they are halved (Burt and Adelson, 1983, with a
 * shorter kernel).
 */
export function pyramidOf(finest: Level): Pyramid {
  const levels: Level[] = [finest]
  for (let level = finest; levels.length < mostLevels && Math.min(level.width, level.height) / 2 >= leastSide;) {
    level = halved(level)
    levels.push(level)
  }
  return { levels }
}

function halved({ width, height, values }: Level): Level {
  const w = width >> 1
  const h = height >> 1
  const rows = new Float32Array(w * height)
  const out = new Float32Array(w * h)
  for (let y = 0; y < height; y++) {
    const row = y * width
    for (let x = 0; x < w; x++) {
      const i = row + 2 * x
      rows[y * w + x] = 0.25 * values[x > 0 ? i - 1 : i] + 0.5 * values[i] + 0.25 * values[i + 1]
    }
  }
  for (let y = 0; y < h; y++) {
    const a = (y > 0 ? 2 * y - 1 : 0) * w
    const b = 2 * y * w
    const c = (2 * y + 1) * w
    const o = y * w
    for (let x = 0; x < w; x++) out[o + x] = 0.25 * rows[a + x] + 0.5 * rows[b + x] + 0.25 * rows[c + x]
  }
  return { width: w, height: h, values: out }
}
