// Filters on planes of floats in AssemblyScript: running means and extremes down the columns, four columns at a time,
// and turning a plane over its diagonal. Does what the plain functions in ../filters.ts do; a test compares the two.
// Built by bin/build-kernel. Planes lie in memory row by row; a row has `width` floats, a multiple of four.

// @ts-ignore: decorator
@inline
function row(plane: usize, width: i32, y: i32, rows: i32): usize {
  const nearest = y < 0 ? 0 : y >= rows ? rows - 1 : y
  return plane + <usize>(nearest * width) * 4
}

/**
 * Means over 2·(whole + part) + 1 rows, whose outermost count in part; `by` is one over that. Beyond the ends, the end
 * is repeated.
 */
export function meanDown(source: usize, target: usize, width: i32, rows: i32, whole: i32, part: f32, by: f32): void {
  const parts = f32x4.splat(part),
    scale = f32x4.splat(by)
  for (let x = 0; x < width; x += 4) {
    const at = <usize>x * 4
    let sum = f32x4.mul(v128.load(row(source, width, 0, rows) + at), f32x4.splat(<f32>whole))
    for (let y = 0; y <= whole; y++) sum = f32x4.add(sum, v128.load(row(source, width, y, rows) + at))
    for (let y = 0; y < rows; y++) {
      const low = v128.load(row(source, width, y - whole - 1, rows) + at),
        high = v128.load(row(source, width, y + whole + 1, rows) + at)
      v128.store(
        target + <usize>(y * width) * 4 + at,
        f32x4.mul(f32x4.add(sum, f32x4.mul(parts, f32x4.add(low, high))), scale),
      )
      sum = f32x4.sub(f32x4.add(sum, high), v128.load(row(source, width, y - whole, rows) + at))
    }
  }
}

/**
 * The largest (or, without `most`, the smallest) of 2·radius + 1 rows. `ahead` and `behind` have room for rows +
 * 2·radius, rounded up to whole windows.
 */
export function extremesDown(
  source: usize,
  target: usize,
  width: i32,
  rows: i32,
  radius: i32,
  most: i32,
  ahead: usize,
  behind: usize,
): void {
  const window = 2 * radius + 1,
    padded = ((rows + 2 * radius + window - 1) / window) * window,
    line = <usize>width * 4
  for (let i = 0; i < padded; i++) {
    const from = row(source, width, i - radius, rows),
      to = ahead + <usize>i * line,
      before = to - line,
      first = i % window == 0
    for (let x: usize = 0; x < line; x += 16) {
      const v = v128.load(from + x)
      v128.store(to + x, first ? v : most ? f32x4.max(v, v128.load(before + x)) : f32x4.min(v, v128.load(before + x)))
    }
  }
  for (let i = padded - 1; i >= 0; i--) {
    const from = row(source, width, i - radius, rows),
      to = behind + <usize>i * line,
      after = to + line,
      last = i % window == window - 1
    for (let x: usize = 0; x < line; x += 16) {
      const v = v128.load(from + x)
      v128.store(to + x, last ? v : most ? f32x4.max(v, v128.load(after + x)) : f32x4.min(v, v128.load(after + x)))
    }
  }
  for (let y = 0; y < rows; y++) {
    const a = behind + <usize>y * line,
      b = ahead + <usize>(y + window - 1) * line,
      to = target + <usize>y * line
    for (let x: usize = 0; x < line; x += 16)
      v128.store(
        to + x,
        most ? f32x4.max(v128.load(a + x), v128.load(b + x)) : f32x4.min(v128.load(a + x), v128.load(b + x)),
      )
  }
}

/** Rows become columns. `width` and `height` are multiples of four. */
export function turn(source: usize, target: usize, width: i32, height: i32): void {
  for (let y0 = 0; y0 < height; y0 += 32)
    for (let x0 = 0; x0 < width; x0 += 32) {
      const y1 = min(height, y0 + 32),
        x1 = min(width, x0 + 32)
      for (let y = y0; y < y1; y += 4)
        for (let x = x0; x < x1; x += 4) {
          const at = source + <usize>(y * width + x) * 4,
            line = <usize>width * 4
          const a = v128.load(at),
            b = v128.load(at + line),
            c = v128.load(at + 2 * line),
            d = v128.load(at + 3 * line)
          const ab = v128.shuffle<f32>(a, b, 0, 4, 1, 5),
            cd = v128.shuffle<f32>(c, d, 0, 4, 1, 5),
            ef = v128.shuffle<f32>(a, b, 2, 6, 3, 7),
            gh = v128.shuffle<f32>(c, d, 2, 6, 3, 7)
          const to = target + <usize>(x * height + y) * 4,
            step = <usize>height * 4
          v128.store(to, v128.shuffle<f32>(ab, cd, 0, 1, 4, 5))
          v128.store(to + step, v128.shuffle<f32>(ab, cd, 2, 3, 6, 7))
          v128.store(to + 2 * step, v128.shuffle<f32>(ef, gh, 0, 1, 4, 5))
          v128.store(to + 3 * step, v128.shuffle<f32>(ef, gh, 2, 3, 6, 7))
        }
    }
}

/** Products, value by value. `count` is a multiple of four. */
export function product(a: usize, b: usize, target: usize, count: i32): void {
  for (let i: usize = 0; i < <usize>count * 4; i += 16)
    v128.store(target + i, f32x4.mul(v128.load(a + i), v128.load(b + i)))
}

/**
 * From the means of guide, values, their product and the guide's square: the slope (in place of the product's) and the
 * offset (in place of the square's) of each window.
 */
export function slopes(guide: usize, values: usize, products: usize, squares: usize, flat: f32, count: i32): void {
  const least = f32x4.splat(flat),
    none = f32x4.splat(0)
  for (let i: usize = 0; i < <usize>count * 4; i += 16) {
    const g = v128.load(guide + i),
      p = v128.load(values + i)
    const slope = f32x4.div(
      f32x4.sub(v128.load(products + i), f32x4.mul(g, p)),
      f32x4.add(f32x4.max(none, f32x4.sub(v128.load(squares + i), f32x4.mul(g, g))), least),
    )
    v128.store(products + i, slope)
    v128.store(squares + i, f32x4.sub(p, f32x4.mul(slope, g)))
  }
}

/** slope · guide + offset, in place of the slope. */
export function along(slope: usize, offset: usize, guide: usize, count: i32): void {
  for (let i: usize = 0; i < <usize>count * 4; i += 16)
    v128.store(slope + i, f32x4.add(f32x4.mul(v128.load(slope + i), v128.load(guide + i)), v128.load(offset + i)))
}

/** (value − low) · by, clamped to 0..1, on steps of 1/65536, in place. */
export function stretch(plane: usize, low: f32, by: f32, count: i32): void {
  const from = f32x4.splat(low),
    scale = f32x4.splat(by),
    none = f32x4.splat(0),
    all = f32x4.splat(1)
  for (let i: usize = 0; i < <usize>count * 4; i += 16)
    v128.store(
      plane + i,
      onSteps(f32x4.pmin(f32x4.pmax(f32x4.mul(f32x4.sub(v128.load(plane + i), from), scale), none), all)),
    )
}

// @ts-ignore: decorator
@inline
function onSteps(value: v128): v128 {
  return f32x4.mul(
    f32x4.convert_i32x4_s(i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.mul(value, f32x4.splat(65536)), f32x4.splat(0.5)))),
    f32x4.splat(<f32>(1.0 / 65536.0)),
  )
}

/**
 * Rows `from` up to `to` of a grid twice as fine, straight between the pixels of the coarse rows `top` up to `bottom`,
 * on steps of 1/65536. A fine row has `stride` floats, a multiple of eight and at least twice the coarse width; `line`
 * has room for a coarse row and seven more.
 */
export function finer(
  coarse: usize,
  target: usize,
  line: usize,
  width: i32,
  top: i32,
  bottom: i32,
  stride: i32,
  from: i32,
  to: i32,
): void {
  const three = f32x4.splat(0.75),
    one = f32x4.splat(0.25)
  for (let y = from; y < to; y++, target += <usize>stride * 4) {
    const v = min(<f32>(bottom - 1), max(<f32>top, (<f32>y - 0.5) * 0.5)),
      above = <i32>Mathf.floor(v),
      share = f32x4.splat(v - <f32>above)
    const a = coarse + <usize>((above - top) * width) * 4,
      b = coarse + <usize>((min(bottom - 1, above + 1) - top) * width) * 4
    for (let x: usize = 0; x < <usize>width * 4; x += 16) {
      const first = v128.load(a + x)
      v128.store(line + 4 + x, f32x4.add(first, f32x4.mul(f32x4.sub(v128.load(b + x), first), share)))
    }
    store<f32>(line, load<f32>(line, 4))
    store<f32>(line + <usize>(width + 1) * 4, load<f32>(line + <usize>width * 4))
    // A fine pixel lies a quarter of a coarse one to the left or right of its middle.
    for (let x: usize = 0; x < <usize>width * 4; x += 16) {
      const own = f32x4.mul(v128.load(line + x, 4), three)
      const left = onSteps(f32x4.add(own, f32x4.mul(v128.load(line + x), one))),
        right = onSteps(f32x4.add(own, f32x4.mul(v128.load(line + x, 8), one)))
      v128.store(target + 2 * x, v128.shuffle<f32>(left, right, 0, 4, 1, 5))
      v128.store(target + 2 * x, v128.shuffle<f32>(left, right, 2, 6, 3, 7), 16)
    }
  }
}
