// The stages of a pass in AssemblyScript with 128-bit SIMD. Pixels are four floats each (R, G, B and one unused), a chunk
// at a time. Built by bin/build-kernel into stages-wasm.ts; plain.ts does the same in plain TypeScript and tests compare
// the two. Addresses are bytes; index.ts lays out the memory.

// As in ../curve-table.ts.
const shift: u32 = 16
const firstCell: i32 = 11648
const octaveCells: i32 = 5888
const signEntries: i32 = 5890
const perSmallest: f32 = 68719476736

/** 16-bit codes → floats by a table of 65536. */
export function decode(source: usize, pixels: usize, count: i32, table: usize): void {
  const end = source + <usize>count * 6
  for (; source < end; source += 6, pixels += 16) {
    store<f32>(pixels, load<f32>(table + (<usize>load<u16>(source) << 2)))
    store<f32>(pixels, load<f32>(table + (<usize>load<u16>(source, 2) << 2)), 4)
    store<f32>(pixels, load<f32>(table + (<usize>load<u16>(source, 4) << 2)), 8)
  }
}

/** `columns`: three columns of four floats. */
export function matrix(pixels: usize, count: i32, columns: usize): void {
  const red = v128.load(columns), green = v128.load(columns, 16), blue = v128.load(columns, 32)
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
function lookUp(at: usize, table: usize): f32 {
  const raw = load<u32>(at)
  const magnitude = raw & 0x7fffffff
  const cell = <i32>(magnitude >> shift) - firstCell
  let base = table + (<usize>(raw >> 31) * <usize>signEntries << 2)
  if (<u32>cell < <u32>octaveCells) {
    base += <usize>(cell + 1) << 2
    const low = load<f32>(base)
    return low + (load<f32>(base, 4) - low) * (<f32>(magnitude & 0xffff) * <f32>(1.0 / 65536.0))
  }
  if (cell >= octaveCells) return load<f32>(base + (<usize>(signEntries - 1) << 2))
  const zero = load<f32>(base)
  return zero + (load<f32>(base, 4) - zero) * (reinterpret<f32>(magnitude) * perSmallest)
}

/** A table for each channel, `stride` bytes apart; 0 where all share one. */
export function curve(pixels: usize, count: i32, table: usize, stride: usize): void {
  const end = pixels + <usize>count * 16
  const green = table + stride, blue = green + stride
  for (; pixels < end; pixels += 16) {
    store<f32>(pixels, lookUp(pixels, table))
    store<f32>(pixels, lookUp(pixels + 4, green), 4)
    store<f32>(pixels, lookUp(pixels + 8, blue), 8)
  }
}

/** Components times gain(n): n is the weighted sum, or the largest where the weights are zero; mixed toward a curve by `blend`. */
export function gain(pixels: usize, count: i32, data: usize): void {
  const end = pixels + <usize>count * 16
  const curveAt = data + (<usize>signEntries << 3), numbers = data + (<usize>signEntries << 4)
  const wr = load<f32>(numbers), wg = load<f32>(numbers, 4), wb = load<f32>(numbers, 8), blend = load<f32>(numbers, 12)
  const byLargest = wr == 0 && wg == 0 && wb == 0
  for (; pixels < end; pixels += 16) {
    const r = load<f32>(pixels), g = load<f32>(pixels, 4), b = load<f32>(pixels, 8)
    // The unused fourth float carries n, as look-ups read from memory.
    store<f32>(pixels, byLargest ? max(r, max(g, b)) : wr * r + wg * g + wb * b, 12)
    const share = lookUp(pixels + 12, data) * (1 - blend)
    if (blend == 0) v128.store(pixels, f32x4.mul(v128.load(pixels), f32x4.splat(share)))
    else {
      store<f32>(pixels, r * share + lookUp(pixels, curveAt) * blend)
      store<f32>(pixels, g * share + lookUp(pixels + 4, curveAt) * blend, 4)
      store<f32>(pixels, b * share + lookUp(pixels + 8, curveAt) * blend, 8)
    }
  }
}

/** Each component c becomes m·curve(c / m), m being the largest. */
export function relative(pixels: usize, count: i32, table: usize): void {
  const end = pixels + <usize>count * 16
  for (; pixels < end; pixels += 16) {
    const largest = max(load<f32>(pixels), max(load<f32>(pixels, 4), load<f32>(pixels, 8)))
    if (!(largest > 0)) continue
    v128.store(pixels, f32x4.div(v128.load(pixels), f32x4.splat(largest)))
    store<f32>(pixels, largest * lookUp(pixels, table))
    store<f32>(pixels, largest * lookUp(pixels + 4, table), 4)
    store<f32>(pixels, largest * lookUp(pixels + 8, table), 8)
  }
}

/** R, G, B are positions on the lattice's axes; tetrahedral interpolation. */
export function lattice(pixels: usize, count: i32, nodes: usize, size: i32): void {
  const green: usize = <usize>size * 16
  const blue: usize = <usize>size * green
  const far: usize = 16 + green + blue
  const lastCell: i32 = size - 2
  const zero = f32x4.splat(0), top = f32x4.splat(<f32>(size - 1))
  const end = pixels + <usize>count * 16
  for (; pixels < end; pixels += 16) {
    const at = f32x4.min(f32x4.max(v128.load(pixels), zero), top)
    const cell = i32x4.min_s(i32x4.trunc_sat_f32x4_s(at), i32x4.splat(lastCell))
    const part = f32x4.sub(at, f32x4.convert_i32x4_s(cell))
    const r = i32x4.extract_lane(cell, 0), g = i32x4.extract_lane(cell, 1), b = i32x4.extract_lane(cell, 2)
    const fr = f32x4.extract_lane(part, 0), fg = f32x4.extract_lane(part, 1), fb = f32x4.extract_lane(part, 2)
    const near = nodes + <usize>b * blue + <usize>g * green + (<usize>r << 4)
    let first: usize, second: usize, f1: f32, f2: f32, f3: f32
    if (fr >= fg) {
      if (fg >= fb) { first = 16; second = 16 + green; f1 = fr; f2 = fg; f3 = fb }
      else if (fr >= fb) { first = 16; second = 16 + blue; f1 = fr; f2 = fb; f3 = fg }
      else { first = blue; second = 16 + blue; f1 = fb; f2 = fr; f3 = fg }
    } else if (fb >= fg) { first = blue; second = green + blue; f1 = fb; f2 = fg; f3 = fr }
    else if (fb >= fr) { first = green; second = green + blue; f1 = fg; f2 = fb; f3 = fr }
    else { first = green; second = 16 + green; f1 = fg; f2 = fr; f3 = fb }
    let value = f32x4.mul(v128.load(near), f32x4.splat(1 - f1))
    value = f32x4.add(value, f32x4.mul(v128.load(near + first), f32x4.splat(f1 - f2)))
    value = f32x4.add(value, f32x4.mul(v128.load(near + second), f32x4.splat(f2 - f3)))
    value = f32x4.add(value, f32x4.mul(v128.load(near + far), f32x4.splat(f3)))
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

/** Display signal 0..1 → 16-bit codes, held to 0..1 and rounded. */
export function encode(pixels: usize, count: i32, target: usize): void {
  const end = pixels + <usize>count * 16
  const half = f32x4.splat(0.5), zero = f32x4.splat(0), one = f32x4.splat(1), top = f32x4.splat(65535)
  for (; pixels < end; pixels += 16, target += 6) {
    const held = f32x4.min(f32x4.max(v128.load(pixels), zero), one)
    const code = i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.mul(held, top), half))
    store<u16>(target, <u16>i32x4.extract_lane(code, 0))
    store<u16>(target, <u16>i32x4.extract_lane(code, 1), 2)
    store<u16>(target, <u16>i32x4.extract_lane(code, 2), 4)
  }
}
