// The stages of a pass in AssemblyScript with 128-bit SIMD. Pixels are four floats each (R, G, B and one unused), a
// chunk at a time. Built by bin/build-kernel into stages.wasm.ts; plain.ts does the same in plain TypeScript and tests
// compare the two. Addresses are bytes; index.ts lays out the memory.

// As in ../curve-table.ts.
const shift: i32 = 16
const firstCell: i32 = 11648
const octaveCells: i32 = 5888
const signEntries: i32 = 5890
/** Bits of the magnitudes that the zero entry and the last one stand for. */
const lowestBits: i32 = (firstCell - 1) << shift
const highestBits: i32 = (firstCell + octaveCells) << shift
/** From the bits of a magnitude, shifted, to its entry. */
const entryBase: i32 = firstCell - 1

/** 16-bit codes → floats by a table of 65536. */
export function decode(source: usize, pixels: usize, count: i32, table: usize): void {
  const end = source + <usize>count * 6
  for (; source < end; source += 6, pixels += 16) {
    store<f32>(pixels, load<f32>(table + ((<usize>load<u16>(source)) << 2)))
    store<f32>(pixels, load<f32>(table + ((<usize>load<u16>(source, 2)) << 2)), 4)
    store<f32>(pixels, load<f32>(table + ((<usize>load<u16>(source, 4)) << 2)), 8)
  }
}

/** `columns`: three columns of four floats. */
export function matrix(pixels: usize, count: i32, columns: usize): void {
  const red = v128.load(columns),
    green = v128.load(columns, 16),
    blue = v128.load(columns, 32)
  const end = pixels + <usize>count * 16
  for (; pixels < end; pixels += 16) {
    let sum = f32x4.mul(v128.load32_splat(pixels), red)
    sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(pixels, 4), green))
    sum = f32x4.add(sum, f32x4.mul(v128.load32_splat(pixels, 8), blue))
    v128.store(pixels, sum)
  }
}

// @ts-ignore: decorator
@inline
function lookUp(value: v128, red: usize, green: usize, blue: usize): v128 {
  // Held to the table's ends: at both, nothing is left between entries.
  const bits = i32x4.min_s(
    i32x4.max_s(v128.and(value, i32x4.splat(0x7fffffff)), i32x4.splat(lowestBits)),
    i32x4.splat(highestBits),
  )
  const offset = i32x4.shl(
    i32x4.add(i32x4.shr_u(bits, shift), v128.and(i32x4.shr_s(value, 31), i32x4.splat(signEntries))),
    2,
  )
  const part = f32x4.mul(f32x4.convert_i32x4_s(v128.and(bits, i32x4.splat(0xffff))), f32x4.splat(<f32>(1.0 / 65536.0)))
  const base: usize = (<usize>entryBase) << 2
  let two = v128.load64_zero(red - base + <usize>i32x4.extract_lane(offset, 0))
  two = v128.load64_lane(green - base + <usize>i32x4.extract_lane(offset, 1), two, 1)
  const third = v128.load64_zero(blue - base + <usize>i32x4.extract_lane(offset, 2))
  const low = v128.shuffle<f32>(two, third, 0, 2, 4, 4),
    high = v128.shuffle<f32>(two, third, 1, 3, 5, 5)
  return f32x4.add(low, f32x4.mul(f32x4.sub(high, low), part))
}

// @ts-ignore: decorator
@inline
function lookUpOne(value: f32, table: usize): f32 {
  const whole = reinterpret<i32>(value),
    bits = min(max(whole & 0x7fffffff, lowestBits), highestBits)
  const at = table + ((<usize>((bits >> shift) - entryBase + ((whole >> 31) & signEntries))) << 2)
  const low = load<f32>(at)
  return low + (load<f32>(at, 4) - low) * (<f32>(bits & 0xffff) * <f32>(1.0 / 65536.0))
}

/** A table for each channel, `stride` bytes apart; 0 where all share one. */
export function curve(pixels: usize, count: i32, table: usize, stride: usize): void {
  const end = pixels + <usize>count * 16
  const green = table + stride,
    blue = green + stride
  for (; pixels < end; pixels += 16) v128.store(pixels, lookUp(v128.load(pixels), table, green, blue))
}

/** The same, mixed over what was there by a matte of one float per pixel; a matte of 0 changes no bit. */
export function curveMixed(pixels: usize, matte: usize, count: i32, table: usize, stride: usize): void {
  const end = pixels + <usize>count * 16
  const green = table + stride,
    blue = green + stride
  for (; pixels < end; pixels += 16, matte += 4) {
    const old = v128.load(pixels)
    v128.store(
      pixels,
      f32x4.add(old, f32x4.mul(f32x4.sub(lookUp(old, table, green, blue), old), v128.load32_splat(matte))),
    )
  }
}

// @ts-ignore: decorator
@inline
function largestOf(value: v128): v128 {
  return f32x4.pmax(
    f32x4.pmax(value, v128.shuffle<f32>(value, value, 1, 2, 0, 0)),
    v128.shuffle<f32>(value, value, 2, 0, 1, 1),
  )
}

/**
 * Components times gain(n): n is the weighted sum, or the largest where the weights are zero; mixed toward a curve by
 * `blend`.
 */
export function gain(pixels: usize, count: i32, data: usize): void {
  const end = pixels + <usize>count * 16
  const curveAt = data + ((<usize>signEntries) << 3),
    numbers = data + ((<usize>signEntries) << 4)
  const weights = v128.load(numbers),
    wr = f32x4.extract_lane(weights, 0),
    wg = f32x4.extract_lane(weights, 1),
    wb = f32x4.extract_lane(weights, 2)
  const blend = f32x4.extract_lane(weights, 3),
    mixed = f32x4.splat(blend),
    kept: f32 = 1 - blend
  const byLargest = wr == 0 && wg == 0 && wb == 0
  for (; pixels < end; pixels += 16) {
    const value = v128.load(pixels)
    const norm = byLargest
      ? f32x4.extract_lane(largestOf(value), 0)
      : wr * f32x4.extract_lane(value, 0) + wg * f32x4.extract_lane(value, 1) + wb * f32x4.extract_lane(value, 2)
    let result = f32x4.mul(value, f32x4.splat(lookUpOne(norm, data) * kept))
    if (blend != 0) result = f32x4.add(result, f32x4.mul(lookUp(value, curveAt, curveAt, curveAt), mixed))
    v128.store(pixels, result)
  }
}

/** Each component c becomes m·curve(c / m), m being the largest. */
export function relative(pixels: usize, count: i32, table: usize): void {
  const end = pixels + <usize>count * 16
  for (; pixels < end; pixels += 16) {
    const value = v128.load(pixels),
      all = largestOf(value),
      largest = v128.shuffle<f32>(all, all, 0, 0, 0, 0)
    const bent = f32x4.mul(largest, lookUp(f32x4.div(value, largest), table, table, table))
    v128.store(pixels, v128.bitselect(bent, value, f32x4.gt(largest, f32x4.splat(0))))
  }
}

/**
 * R, G, B are positions on the lattice's axes; tetrahedral interpolation, without branches, as noisy pictures would
 * mispredict them. `scratch`: 64 bytes for two tables of strides, by which channels are largest and which smallest.
 */
export function lattice(pixels: usize, count: i32, nodes: usize, size: i32, scratch: usize): void {
  const green: usize = <usize>size * 16
  const blue: usize = <usize>size * green
  const far: usize = 16 + green + blue
  for (let mask: usize = 1; mask < 8; mask++) {
    const stride: usize = mask & 1 ? 16 : mask & 2 ? green : blue
    store<u32>(scratch + (mask << 2), <u32>stride)
    const least: usize = mask & 4 ? blue : mask & 2 ? green : 16
    store<u32>(scratch + (mask << 2), <u32>(far - least), 32)
  }
  const lastCell = f32x4.splat(<f32>(size - 2))
  const zero = f32x4.splat(0),
    one = f32x4.splat(1),
    top = f32x4.splat(<f32>(size - 1)),
    magic = f32x4.splat(8388608)
  const end = pixels + <usize>count * 16
  for (; pixels < end; pixels += 16) {
    const at = f32x4.pmin(f32x4.pmax(v128.load(pixels), zero), top)
    const cell = f32x4.pmin(f32x4.floor(at), lastCell)
    const part = f32x4.sub(at, cell)
    // Adding 2^23 puts a small whole number into the lowest bits.
    const whole = i32x4.sub(f32x4.add(cell, magic), magic)
    const near =
      nodes +
      ((<usize>i32x4.extract_lane(whole, 0)) << 4) +
      <usize>i32x4.extract_lane(whole, 1) * green +
      <usize>i32x4.extract_lane(whole, 2) * blue
    // The three parts in all orders side by side: their largest, middle and smallest fill whole vectors.
    const b = v128.shuffle<f32>(part, part, 1, 2, 0, 0),
      c = v128.shuffle<f32>(part, part, 2, 0, 1, 1)
    const low = f32x4.pmin(part, b),
      high = f32x4.pmax(part, b)
    const f1 = f32x4.pmax(high, c),
      f3 = f32x4.pmin(low, c),
      f2 = f32x4.pmax(low, f32x4.pmin(high, c))
    const first = <usize>load<u32>(scratch + ((<usize>(i32x4.bitmask(f32x4.eq(part, f1)) & 7)) << 2))
    const second = <usize>load<u32>(scratch + ((<usize>(i32x4.bitmask(f32x4.eq(part, f3)) & 7)) << 2), 32)
    let value = f32x4.mul(v128.load(near), f32x4.sub(one, f1))
    value = f32x4.add(value, f32x4.mul(v128.load(near + first), f32x4.sub(f1, f2)))
    value = f32x4.add(value, f32x4.mul(v128.load(near + second), f32x4.sub(f2, f3)))
    value = f32x4.add(value, f32x4.mul(v128.load(near + far), f3))
    v128.store(pixels, value)
  }
}

/** Mixes `pixels` over `before` by a matte of one float per pixel, in place; a matte of 0 keeps `before` to the bit. */
export function mix(pixels: usize, before: usize, matte: usize, count: i32): void {
  const end = pixels + <usize>count * 16
  for (; pixels < end; pixels += 16, before += 16, matte += 4) {
    const old = v128.load(before)
    v128.store(pixels, f32x4.add(old, f32x4.mul(f32x4.sub(v128.load(pixels), old), v128.load32_splat(matte))))
  }
}

/** Puts pixels aside. */
export function keep(pixels: usize, before: usize, count: i32): void {
  memory.copy(before, pixels, (<usize>count) << 4)
}

/**
 * The first pixel from `from` on, a whole four, that a matte holds, rounded down to a whole four; `count` where there
 * is none. The matte is zero up to a whole four.
 */
export function nextHeld(matte: usize, from: i32, count: i32): i32 {
  for (; from < count; from += 4) if (v128.any_true(v128.load(matte + ((<usize>from) << 2)))) return from
  return count
}

/** The larger of two mattes, into the first; both are zero up to a whole four. */
export function union(into: usize, matte: usize, count: i32): void {
  for (const end = into + ((<usize>count) << 2); into < end; into += 16, matte += 16)
    v128.store(into, f32x4.pmax(v128.load(into), v128.load(matte)))
}

/**
 * Where a run of clamped pixels from `from` on ends, at a whole four or with the matte: gaps of up to `gap` pixels are
 * within it.
 */
export function runEnd(matte: usize, from: i32, count: i32, gap: i32): i32 {
  let end = from
  for (let at = from; at < count && at - end <= gap; at += 4)
    if (v128.any_true(v128.load(matte + ((<usize>at) << 2)))) end = at + 4
  return min(end, count)
}

/** Display signal 0..1 → 16-bit codes, clamped to 0..1 and rounded. Writes two bytes beyond the last pixel. */
export function encode(pixels: usize, count: i32, target: usize): void {
  const end = pixels + <usize>count * 16
  const zero = f32x4.splat(0),
    one = f32x4.splat(1),
    top = f32x4.splat(65535),
    magic = f32x4.splat(8388608)
  const lowWords = i8x16(0, 1, 4, 5, 8, 9, 12, 13, 0, 0, 0, 0, 0, 0, 0, 0)
  for (; pixels < end; pixels += 16, target += 6) {
    const clamped = f32x4.pmin(f32x4.pmax(v128.load(pixels), zero), one)
    // Adding 2^23 rounds and puts the whole number into the lowest bits.
    v128.store64_lane(target, i8x16.swizzle(f32x4.add(f32x4.mul(clamped, top), magic), lowWords), 0)
  }
}

/**
 * Display signal 0..1 → packed canvas pixels (ABGR), each channel (code · 255 + 32768) / 65536 of the code that
 * `encode` gives.
 */
export function show(pixels: usize, count: i32, target: usize): void {
  const end = pixels + <usize>count * 16
  const zero = f32x4.splat(0),
    one = f32x4.splat(1),
    top = f32x4.splat(65535),
    magic = f32x4.splat(8388608)
  const lowBytes = i8x16(0, 4, 8, 15, 15, 15, 15, 15, 15, 15, 15, 15, 15, 15, 15, 15),
    opaque = i32x4(0xff000000, 0, 0, 0)
  for (; pixels < end; pixels += 16, target += 4) {
    const clamped = f32x4.pmin(f32x4.pmax(v128.load(pixels), zero), one)
    const code = v128.and(f32x4.add(f32x4.mul(clamped, top), magic), i32x4.splat(0xffff))
    const shown = i32x4.shr_u(i32x4.add(i32x4.mul(code, i32x4.splat(255)), i32x4.splat(32768)), 16)
    v128.store32_lane(target, v128.or(i8x16.swizzle(shown, lowBytes), opaque), 0)
  }
}
