// Rows of Y'CbCr to R'G'B' in AssemblyScript with 128-bit SIMD, four pixels at a time. Does what the plain code in
// ../yuv.ts does, in single precision; a test compares the two. Built by bin/build-kernel. Rows have room for whole
// fours and four more.

// @ts-ignore: decorator
@inline
function samples(at: usize, x: i32, wide: bool): v128 {
  const pairs = wide
    ? v128.load64_zero(at + ((<usize>x) << 1))
    : i16x8.extend_low_i8x16_u(v128.load32_zero(at + <usize>x))
  return f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(pairs))
}

/**
 * A row of chroma between two lines of its plane, less its middle, as floats. `wide`: samples of 16 bits, else of 8.
 * With `apart`, every second value is the mean of its neighbours; `line` has room for one row.
 */
export function chroma(
  top: usize,
  bottom: usize,
  count: i32,
  wide: bool,
  down: f32,
  middle: f32,
  apart: bool,
  line: usize,
  target: usize,
): void {
  const below = f32x4.splat(down),
    above = f32x4.splat(1 - down),
    less = f32x4.splat(middle),
    into = apart ? line : target
  for (let x = 0; x < count; x += 4)
    v128.store(
      into + ((<usize>x) << 2),
      f32x4.sub(f32x4.add(f32x4.mul(samples(top, x, wide), above), f32x4.mul(samples(bottom, x, wide), below)), less),
    )
  if (!apart) return
  store<f32>(line + ((<usize>count) << 2), load<f32>(line + ((<usize>(count - 1)) << 2)))
  const half = f32x4.splat(0.5)
  for (let x = 0; x < count; x += 4) {
    const here = v128.load(line + ((<usize>x) << 2)),
      between = f32x4.mul(f32x4.add(here, v128.load(line + ((<usize>x) << 2), 4)), half),
      to = target + ((<usize>x) << 3)
    v128.store(to, v128.shuffle<f32>(here, between, 0, 4, 1, 5))
    v128.store(to, v128.shuffle<f32>(here, between, 2, 6, 3, 7), 16)
  }
}

/** A row of luma and its chroma as RGB triples of 16 bits, held to what 16 bits can say. */
export function rgb(
  luma: usize,
  cb: usize,
  cr: usize,
  width: i32,
  wide: bool,
  gain: f32,
  offset: f32,
  redFromCr: f32,
  greenFromCb: f32,
  greenFromCr: f32,
  blueFromCb: f32,
  target: usize,
): void {
  const g = f32x4.splat(gain),
    o = f32x4.splat(offset),
    rr = f32x4.splat(redFromCr),
    gb = f32x4.splat(greenFromCb),
    gr = f32x4.splat(greenFromCr),
    bb = f32x4.splat(blueFromCb)
  for (let x = 0; x < width; x += 4, target += 24) {
    const y = f32x4.add(f32x4.mul(samples(luma, x, wide), g), o),
      u = v128.load(cb + ((<usize>x) << 2)),
      v = v128.load(cr + ((<usize>x) << 2))
    const red = i32x4.trunc_sat_f32x4_s(f32x4.add(y, f32x4.mul(rr, v)))
    const green = i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.add(y, f32x4.mul(gb, u)), f32x4.mul(gr, v)))
    const blue = i32x4.trunc_sat_f32x4_s(f32x4.add(y, f32x4.mul(bb, u)))
    // Narrowing holds to 0..65535.
    const two = i16x8.narrow_i32x4_u(red, green),
      third = i16x8.narrow_i32x4_u(blue, blue)
    v128.store(target, v128.shuffle<u16>(two, third, 0, 4, 8, 1, 5, 9, 2, 6))
    v128.store64_lane(target, v128.shuffle<u16>(two, third, 10, 3, 7, 11, 0, 0, 0, 0), 0, 16)
  }
}
